import { Modal, NavLink } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { familiesQuery } from '../../api/queries';

const BLANK = 'Title: A new routine\nPack: 52 cards, any order\n';

interface NewRoutineProps {
  opened: boolean;
  close: () => void;
  onNew: (text: string) => void;
}

/** A blank page, or a short working routine of a family to change into one's own. */
export function NewRoutine({ opened, close, onNew }: NewRoutineProps) {
  const { data: families = [], isPending } = useQuery({ ...familiesQuery(), enabled: opened });
  const begin = (text: string) => {
    close();
    onNew(text);
  };
  return (
    <Modal opened={opened} onClose={close} title="New routine" size="lg">
      <NavLink data-autofocus component="button" label="A blank page" description="A pack, and nothing else yet" onClick={() => begin(BLANK)} />
      <NavLink
        component={Link}
        to="/notes"
        label="Read my notes"
        description="A page of everyday words becomes a routine; nothing of it is lost"
        onClick={close}
      />
      <h3 className="families-head">From a family</h3>
      {isPending && <p>Fetching the families…</p>}
      {families.map((family) => (
        <NavLink key={family.name} component="button" label={family.name} description={family.about} onClick={() => begin(family.text)} />
      ))}
    </Modal>
  );
}
