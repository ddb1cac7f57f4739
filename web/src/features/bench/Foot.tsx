import { Button, Menu } from '@mantine/core';
import { memo, type ReactNode } from 'react';
import { Link } from 'react-router';

interface FootProps {
  id: number;
  /** how the text is saved */
  state: string;
  children: ReactNode;
  onSteps: () => void;
  onVersions: () => void;
  onShow: (event: { preventDefault: () => void }) => void;
}

/** Below the sheet: what is saved, and the ways on. */
export const Foot = memo(function Foot({ id, state, children, onSteps, onVersions, onShow }: FootProps) {
  const quiet = { size: 'compact-sm', variant: 'subtle', color: 'gray' } as const;
  return (
    <footer className={`foot ${state}`} role="status" data-save={state}>
      {children}
      <span className="foot-tools">
        <Button {...quiet} onClick={onSteps}>
          Steps
        </Button>
        <Button {...quiet} component={Link} to={`/show/${id}`} onClick={onShow}>
          Show
        </Button>
        <Button {...quiet} onClick={onVersions}>
          Versions
        </Button>
        <Menu position="top-end">
          <Menu.Target>
            <Button {...quiet}>Export</Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item component="a" href={`/api/routines/${id}/routine.pivot`} download>
              Text (.pivot)
            </Menu.Item>
            <Menu.Item component="a" href={`/api/routines/${id}/routine.json`} download>
              JSON
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </span>
    </footer>
  );
});
