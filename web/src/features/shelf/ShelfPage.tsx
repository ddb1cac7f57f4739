import { Button, Chip, Group, NativeSelect, Skeleton, TextInput } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { IconPlus, IconSearch, IconTrash } from '@tabler/icons-react';
import { useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { memo, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ApiError, api, type Found, type Practised, type Routine } from '../../api/client';
import { practisedQuery, findQuery, routinesQuery } from '../../api/queries';
import { ago } from '../practice/ago';
import { ImportButtons } from '../keep/Import';
import { VerdictMark, toneOf } from '../bench/VerdictBar';
import { undoable } from '../../ui/undoable';
import { useCommands } from '../palette/commands';
import { useBeginFirstProof } from '../first/useBeginFirstProof';
import { NewRoutine } from './NewRoutine';
import './shelf.css';

/** rows drawn at once; more come as one scrolls to them */
const AT_ONCE = 40;

const ORDERS = {
  'as they came': () => 0,
  'last changed first': (one: Routine, other: Routine) => other.changed_at.localeCompare(one.changed_at),
  'last shown first': (one: Routine, other: Routine, shown: (id: number) => string) => shown(other.id).localeCompare(shown(one.id)),
  'by title': (one: Routine, other: Routine) => one.title.localeCompare(other.title),
};
type Order = keyof typeof ORDERS;

/** The shelf: every routine with its verdict. */
export function ShelfPage() {
  const go = useNavigate();
  const client = useQueryClient();
  const [sought, setSought] = useState('');
  const { data: routines, error, refetch } = useQuery(routinesQuery());
  const { data: practised = [] } = useQuery(practisedQuery());
  const worked = useMemo(() => new Map(practised.map((one) => [one.routine, one])), [practised]);

  const changed = () => client.invalidateQueries({ queryKey: routinesQuery().queryKey });
  const opened = (routine: Routine) => {
    void changed();
    void go(`/bench/${routine.id}`);
  };
  const add = useMutation({ mutationFn: api.add, onSuccess: opened });
  const programme = useMutation({ mutationFn: api.addDemo, onSuccess: changed });
  const beginFirst = useBeginFirstProof();
  const bringBack = useMutation({ mutationFn: api.bringBack, onSuccess: changed });
  const remove = useMutation({
    mutationFn: (routine: Routine) => api.remove(routine.id),
    onSuccess: (_, routine) => {
      void changed();
      undoable(`${routine.title} is off the shelf.`, 'Bring it back', () => bringBack.mutate(routine.id));
    },
  });
  const [beginning, setBeginning] = useState(false);
  const commands = useMemo(
    () => [
      { id: 'new', group: 'Shelf', label: 'New routine', description: 'blank, from the library, or from my notes', run: () => setBeginning(true) },
      { id: 'first', group: 'Shelf', label: 'A first proof', description: 'six short steps on a real routine', run: () => beginFirst() },
      { id: 'notes', group: 'Shelf', label: 'Read my notes', description: 'a page of everyday words becomes a routine', run: () => void go('/notes') },
    ],
    [go, beginFirst],
  );
  useCommands('shelf', commands);

  const wanted = useDeferredValue(sought.trim().toLowerCase());
  const [wantedBadges, setWantedBadges] = useState<string[]>([]);
  const [order, setOrder] = useLocalStorage<Order>({ key: 'gp-shelf-order', defaultValue: 'as they came' });
  const badges = useMemo(() => [...new Set((routines ?? []).flatMap((routine) => routine.badges))].sort(), [routines]);
  const texts = useMemo(
    () => (routines ?? []).map((routine) => ({ routine, text: `${routine.title} ${routine.note ?? ''} ${routine.text}`.toLowerCase() })),
    [routines],
  );
  const shown = useMemo(() => {
    const lastShown = (id: number) => worked.get(id)?.last_shown ?? '';
    return texts
      .filter(({ text }) => text.includes(wanted))
      .map(({ routine }) => routine)
      .filter((routine) => wantedBadges.every((badge) => routine.badges.includes(badge)))
      .sort((one, other) => ORDERS[order](one, other, lastShown));
  }, [texts, wanted, wantedBadges, order, worked]);
  const [room, setRoom] = useState(AT_ONCE);
  const drawn = shown.slice(0, room);
  const end = useCallback((more: HTMLButtonElement) => {
    const watching = new IntersectionObserver(([seen]) => seen?.isIntersecting && setRoom((now) => now + AT_ONCE), { rootMargin: '600px' });
    watching.observe(more);
    return () => watching.disconnect();
  }, []);
  // What was found of a text before came with the list.
  const unproved = drawn.filter((routine) => !routine.found);
  const asked = useQueries({ queries: unproved.map((routine) => findQuery(routine.text)) });
  const fresh = new Map(unproved.map((routine, i) => [routine.id, asked[i]?.data]));

  return (
    <div className="shelf">
      <Group className="shelf-head" align="end">
        <h1>The shelf</h1>
        <TextInput
          aria-label="Search the shelf"
          placeholder="Search titles, notes and lines"
          leftSection={<IconSearch size={16} />}
          value={sought}
          onChange={(event) => setSought(event.currentTarget.value)}
          w={270}
        />
        <ImportButtons />
        <Button leftSection={<IconPlus size={17} />} loading={add.isPending} onClick={() => setBeginning(true)}>
          New routine
        </Button>
      </Group>
      {error && (
        <div className="empty" role="alert">
          <h1>The shelf cannot be reached</h1>
          <p>{error instanceof ApiError ? error.whole : error.message}</p>
          <Group justify="center">
            <Button onClick={() => void refetch()}>Try again</Button>
            <Button variant="default" component={Link} to="/keep">
              Go to Keep
            </Button>
          </Group>
        </div>
      )}
      {!routines && !error && <Skeleton height={240} role="img" aria-label="Fetching the shelf" />}
      {routines?.length === 0 && (
        <div className="empty">
          <h1>Nothing stands here yet</h1>
          <p>
            A routine is a page of plain sentences, and the bench says whether it comes out whatever they choose. Begin with six short steps on a real one, look
            at a whole programme, or bring your own.
          </p>
          <Group justify="center">
            <Button onClick={() => beginFirst()}>A first proof</Button>
            <Button variant="default" onClick={() => setBeginning(true)}>
              Write the first one
            </Button>
            <Button variant="default" component={Link} to="/notes">
              Read my notes
            </Button>
            <Button variant="default" loading={programme.isPending} onClick={() => programme.mutate()}>
              The demo programme
            </Button>
          </Group>
        </div>
      )}
      {routines && routines.length > 0 && shown.length === 0 && (
        <p>
          {sought ? `No routine has “${sought}” in it` : 'No routine is like that'}
          {wantedBadges.length > 0 && sought ? ' with these marks' : ''}.
        </p>
      )}
      <NewRoutine opened={beginning} close={() => setBeginning(false)} onNew={add.mutate} />
      <Group className="shelf-tools" wrap="nowrap" align="start">
        {badges.length > 0 && (
          <Chip.Group multiple value={wantedBadges} onChange={setWantedBadges}>
            <Group gap={6} className="badge-filter" role="group" aria-label="Show only routines that are">
              {badges.map((badge) => (
                <Chip key={badge} value={badge} size="xs" variant="outline">
                  {badge}
                </Chip>
              ))}
            </Group>
          </Chip.Group>
        )}
        {(routines?.length ?? 0) > 1 && (
          <NativeSelect
            size="xs"
            aria-label="Order of the shelf"
            data={Object.keys(ORDERS)}
            value={order}
            onChange={(event) => setOrder(event.currentTarget.value as Order)}
          />
        )}
      </Group>
      <ul className="routines">
        {drawn.map((routine) => (
          <Row key={routine.id} routine={routine} found={routine.found ?? fresh.get(routine.id)} worked={worked.get(routine.id)} onRemove={remove.mutate} />
        ))}
      </ul>
      {shown.length > drawn.length && (
        <Button ref={end} variant="subtle" fullWidth mt={12} onClick={() => setRoom(room + AT_ONCE)}>
          More: {(shown.length - drawn.length).toLocaleString('en')} of {shown.length.toLocaleString('en')}
        </Button>
      )}
    </div>
  );
}

interface RowProps {
  routine: Routine;
  found: Found | undefined;
  worked: Practised | undefined;
  onRemove: (routine: Routine) => void;
}

const Row = memo(function Row({ routine, found, worked, onRemove }: RowProps) {
  return (
    <li className="panel">
      <VerdictMark tone={toneOf(found)} size={26} />
      <div>
        <Link to={`/bench/${routine.id}`} className="open">
          {routine.title}
        </Link>
        {routine.note && <p className="note">{routine.note}</p>}
        {routine.unread && <p className="note">{routine.unread}</p>}
        <p className="says figures">{found?.says ?? 'Proving…'}</p>
        <Worked of={worked} />
        {routine.badges.length > 0 && <p className="badges">{routine.badges.join(' · ')}</p>}
      </div>
      <Group gap={4} className="item-tools">
        <Button
          variant="subtle"
          color="gray"
          size="compact-sm"
          component={Link}
          to={`/practice/${routine.id}?tab=rehearse`}
          aria-label={`Rehearse ${routine.title}`}
        >
          Rehearse
        </Button>
        <Button variant="subtle" color="gray" size="compact-sm" component={Link} to={`/book?write=${routine.id}`} aria-label={`Write down ${routine.title}`}>
          Write down
        </Button>
        <Button variant="subtle" color="gray" size="compact-sm" component={Link} to={`/show/${routine.id}`} aria-label={`Show ${routine.title}`}>
          Show
        </Button>
        <Button
          variant="subtle"
          color="gray"
          size="compact-sm"
          leftSection={<IconTrash size={15} />}
          onClick={() => onRemove(routine)}
          aria-label={`Remove ${routine.title}`}
        >
          Remove
        </Button>
      </Group>
    </li>
  );
});

/** When it was last shown and rehearsed, and what of it is due. */
function Worked({ of }: { of: Practised | undefined }) {
  if (!of) return null;
  const said = [
    of.last_shown && `shown ${ago(of.last_shown)}`,
    of.last_rehearsed && `rehearsed ${ago(of.last_rehearsed)}`,
    of.due > 0 && `${of.due} to drill today`,
  ].filter(Boolean);
  return said.length ? <p className="worked">{said.join(' · ')}</p> : null;
}
