import { Modal, NavLink } from '@mantine/core';
import { Link } from 'react-router';

const BLANK = 'Title: A new routine\nPack: 52 cards, any order\n';

interface NewRoutineProps {
  opened: boolean;
  close: () => void;
  onNew: (text: string) => void;
}

/** A blank page, one's own notes, or a principle to change into a routine of one's own. */
export function NewRoutine({ opened, close, onNew }: NewRoutineProps) {
  return (
    <Modal opened={opened} onClose={close} title="New routine" size="lg">
      <NavLink
        data-autofocus
        component="button"
        label="A blank page"
        description="A pack, and nothing else yet"
        onClick={() => {
          close();
          onNew(BLANK);
        }}
      />
      <NavLink
        component={Link}
        to="/library"
        label="From the library"
        description="Principles that work by themselves: try their numbers, then write your own around one"
        onClick={close}
      />
      <NavLink
        component={Link}
        to="/notes"
        label="Read my notes"
        description="A page of everyday words becomes a routine; nothing of it is lost"
        onClick={close}
      />
    </Modal>
  );
}
