import { Button, Group, Select, Skeleton } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, type Occasion } from '../../api/client';
import { programmesQuery } from '../../api/queries';
import { undoable } from '../../ui/undoable';
import { useCommands } from '../palette/commands';
import { ProgrammeEditor } from './ProgrammeEditor';
import './programme.css';

const EMPTY: Occasion = {
  title: 'A new occasion',
  held_on: '',
  begins: '',
  place: '',
  audience: '',
  people: null,
  minutes: null,
  packs: 2,
  pockets: ['pocket'],
  routines: [],
  wishes: [
    { kind: 'fewest warnings', routine: '' },
    { kind: 'least resetting', routine: '' },
    { kind: 'fewest packs', routine: '' },
  ],
  kept: [],
};

/** What is to be shown at an occasion, and what it takes. */
export default function ProgrammePage() {
  const go = useNavigate();
  const client = useQueryClient();
  const { uid } = useParams();
  const { data: programmes } = useQuery(programmesQuery());
  const changed = () => client.invalidateQueries({ queryKey: programmesQuery().queryKey });
  const add = useMutation({
    mutationFn: () => api.addProgramme(EMPTY),
    onSuccess: async (added) => {
      await changed();
      void go(`/programme/${added.uid}`);
    },
  });
  const putBack = useMutation({ mutationFn: api.putBackProgramme, onSuccess: changed });
  const strike = useMutation({
    mutationFn: api.strikeProgramme,
    onSuccess: async (gone) => {
      await changed();
      void go('/programme');
      undoable(`${gone.occasion.title} is struck out.`, 'Put it back', () => putBack.mutate(gone));
    },
  });
  const { mutate: addOne } = add;
  const commands = useMemo(() => [{ id: 'programme', group: 'Programme', label: 'New programme', run: () => addOne() }], [addOne]);
  useCommands('programme', commands);
  if (!programmes) return <Skeleton height={300} role="img" aria-label="Fetching the programmes" />;
  const chosen = programmes.find((one) => one.uid === uid) ?? programmes[0];
  return (
    <div className="programme">
      <Group className="programme-head">
        <h1>The programme</h1>
        {programmes.length > 1 && (
          <Select
            aria-label="Which programme"
            allowDeselect={false}
            data={programmes.map((one) => ({ value: one.uid, label: [one.occasion.title, one.occasion.held_on].filter(Boolean).join(', ') }))}
            value={chosen?.uid ?? null}
            onChange={(to) => void go(`/programme/${to}`)}
            w={280}
          />
        )}
        <Button variant="default" loading={add.isPending} onClick={() => add.mutate()}>
          New programme
        </Button>
      </Group>
      {chosen ? (
        <ProgrammeEditor key={chosen.uid} programme={chosen} strike={() => strike.mutate(chosen.uid)} />
      ) : (
        <div className="empty">
          <h1>Nothing is planned yet</h1>
          <p>A programme is an occasion and what is shown there, in its order. The bench works out what happens to the packs in between.</p>
          <Button onClick={() => add.mutate()}>Plan the first one</Button>
        </div>
      )}
    </div>
  );
}
