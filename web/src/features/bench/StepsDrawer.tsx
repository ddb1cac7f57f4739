import { Drawer, NavLink, TextInput } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { memo, useState } from 'react';
import type { StepKind } from '../../api/client';

interface StepsProps {
  kinds: StepKind[];
  opened: boolean;
  close: () => void;
  /** put this sentence on the sheet */
  onInsert: (sentence: string) => void;
}

/** Every sentence there is, by family, each with what it means; choosing one writes it below the cursor. */
export const StepsDrawer = memo(function StepsDrawer({ kinds, opened, close, onInsert }: StepsProps) {
  const [sought, setSought] = useState('');
  const leave = () => {
    setSought('');
    close();
  };
  const wanted = sought.trim().toLowerCase();
  const own = kinds.filter((kind) => `${kind.family} ${kind.example} ${kind.summary}`.toLowerCase().includes(wanted));
  // Where no step has these words itself: what performers call it.
  const shown = own.length > 0 ? own : kinds.filter((kind) => kind.also.includes(wanted));
  const families = [...new Set(shown.map((kind) => kind.family))];
  return (
    <Drawer opened={opened} onClose={leave} title="Steps" position="right" size={430} overlayProps={{ backgroundOpacity: 0.15 }}>
      <TextInput
        data-autofocus
        aria-label="Search the steps"
        placeholder="Search: deal, pile, spell…"
        leftSection={<IconSearch size={16} />}
        value={sought}
        onChange={(event) => setSought(event.currentTarget.value)}
      />
      {shown.length === 0 && <p>No step is called that.</p>}
      {families.map((family) => (
        <section key={family} aria-label={family} className="step-family">
          <h3>{family}</h3>
          {shown
            .filter((kind) => kind.family === family)
            .map((kind) => (
              <NavLink
                key={kind.name}
                component="button"
                label={kind.example}
                description={kind.summary}
                onClick={() => {
                  leave();
                  onInsert(kind.example);
                }}
              />
            ))}
        </section>
      ))}
    </Drawer>
  );
});
