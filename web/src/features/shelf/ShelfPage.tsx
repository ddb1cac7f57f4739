import { Button, Chip, Group, NativeSelect, Skeleton, TextInput } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ApiError, api, type Programme, type Routine } from '../../api/client';
import { practisedQuery, findQuery, programmesQuery, routinesQuery } from '../../api/queries';
import { ImportButtons } from '../keep/Import';
import { undoable } from '../../ui/undoable';
import { useCommands } from '../palette/commands';
import { useBeginFirstProof } from '../first/useBeginFirstProof';
import { NewRoutine } from './NewRoutine';
import { Row, type Stood } from './Row';
import { TagsOf } from './TagsOf';
import { GROUPINGS, ORDERS, firstOf, inOrder, isWanted, partsOf, searched, type Grouping, type Order } from './shelving';
import './shelf.css';

/** rows drawn at once; more come as one scrolls to them */
const AT_ONCE = 20;
const NO_PROGRAMMES: Programme[] = [];

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
  const { mutate: onStanding } = useMutation({
    mutationFn: ({ routine, change }: Stood) => api.changeStanding(routine.id, change),
    onSuccess: (_, { routine, back }) => {
      void changed();
      if (back?.tags) undoable(`The tags of ${routine.title} are changed.`, 'As they were', () => onStanding({ routine, change: back }));
      else if (back) undoable(`${routine.title} is put away.`, 'Take it out', () => onStanding({ routine, change: back }));
    },
  });
  const [tagging, setTagging] = useState<Routine | null>(null);
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
  const [wantedTags, setWantedTags] = useState<string[]>([]);
  const [order, setOrder] = useLocalStorage<Order>({ key: 'gp-shelf-order', defaultValue: 'as they came' });
  const [grouping, setGrouping] = useLocalStorage<Grouping>({ key: 'gp-shelf-grouping', defaultValue: 'in one list' });
  const { data: programmes = NO_PROGRAMMES } = useQuery({ ...programmesQuery(), enabled: grouping === 'by programme' });
  const badges = useMemo(() => [...new Set((routines ?? []).flatMap((routine) => routine.badges))].sort(), [routines]);
  const tags = useMemo(() => [...new Set((routines ?? []).flatMap((routine) => routine.tags))].sort(), [routines]);
  const away = (routines ?? []).filter((routine) => routine.put_away).length;
  const [wantsAway, setWantsAway] = useState(false);
  // Once the last one is taken out again, the others are shown.
  const putAway = wantsAway && away > 0;
  const texts = useMemo(() => (routines ?? []).map((routine) => ({ routine, text: searched(routine) })), [routines]);
  const parts = useMemo(() => {
    const wantedTagsNow = wantedTags.filter((tag) => tags.includes(tag));
    const those = texts.filter(({ routine, text }) => isWanted(routine, text, { sought: wanted, badges: wantedBadges, tags: wantedTagsNow, putAway }));
    const shown = inOrder(
      those.map(({ routine }) => routine),
      order,
      (id) => worked.get(id)?.last_shown ?? '',
    );
    return partsOf(shown, grouping, programmes);
  }, [texts, wanted, wantedBadges, wantedTags, tags, putAway, order, grouping, programmes, worked]);
  const rows = parts.reduce((sum, part) => sum + part.routines.length, 0);
  const [room, setRoom] = useState(AT_ONCE);
  const drawn = firstOf(parts, room);
  const end = useCallback((more: HTMLButtonElement) => {
    const watching = new IntersectionObserver(([seen]) => seen?.isIntersecting && setRoom((now) => now + AT_ONCE), { rootMargin: '600px' });
    watching.observe(more);
    return () => watching.disconnect();
  }, []);
  // What was found of a text before came with the list.
  const unproved = [...new Set(drawn.flatMap((part) => part.routines))].filter((routine) => !routine.found);
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
      {routines && routines.length > 0 && rows === 0 && (
        <p>
          {sought ? `No routine has “${sought}” in it` : away === routines.length ? 'Every routine is put away' : 'No routine is like that'}
          {wantedBadges.length + wantedTags.length > 0 && sought ? ' with these marks' : ''}.
        </p>
      )}
      <NewRoutine opened={beginning} close={() => setBeginning(false)} onNew={add.mutate} />
      {tagging && (
        <TagsOf
          key={tagging.id}
          routine={tagging}
          known={tags}
          onTags={(tags) => onStanding({ routine: tagging, change: { tags }, back: { tags: tagging.tags } })}
          close={() => setTagging(null)}
        />
      )}
      <Group className="shelf-tools" wrap="nowrap" align="start">
        <Group gap={6} className="badge-filter" role="group" aria-label="Show only routines that are">
          <Chip.Group multiple value={wantedBadges} onChange={setWantedBadges}>
            {badges.map((badge) => (
              <Chip key={badge} value={badge} size="xs" variant="outline">
                {badge}
              </Chip>
            ))}
          </Chip.Group>
          <Chip.Group multiple value={wantedTags} onChange={setWantedTags}>
            {tags.map((tag) => (
              <Chip key={tag} value={tag} size="xs" variant="light" className="tag-chip">
                {tag}
              </Chip>
            ))}
          </Chip.Group>
          {away > 0 && (
            <Chip size="xs" variant="outline" checked={putAway} onChange={setWantsAway}>
              put away: {away.toLocaleString('en')}
            </Chip>
          )}
        </Group>
        {(routines?.length ?? 0) > 1 && (
          <Group gap={6} wrap="nowrap">
            <NativeSelect
              size="xs"
              aria-label="Parts of the shelf"
              data={[...GROUPINGS]}
              value={grouping}
              onChange={(event) => setGrouping(event.currentTarget.value as Grouping)}
            />
            <NativeSelect
              size="xs"
              aria-label="Order of the shelf"
              data={Object.keys(ORDERS)}
              value={order}
              onChange={(event) => setOrder(event.currentTarget.value as Order)}
            />
          </Group>
        )}
      </Group>
      {drawn.map((part) => (
        <section key={part.key} aria-label={part.name ?? 'Routines'}>
          {part.name !== null && <h2 className="part">{part.name}</h2>}
          <ul className="routines">
            {part.routines.map((routine) => (
              <Row
                key={routine.id}
                routine={routine}
                found={routine.found ?? fresh.get(routine.id)}
                worked={worked.get(routine.id)}
                onRemove={remove.mutate}
                onStanding={onStanding}
                onTags={setTagging}
              />
            ))}
          </ul>
        </section>
      ))}
      {rows > room && (
        <Button ref={end} variant="subtle" fullWidth mt={12} onClick={() => setRoom(room + AT_ONCE)}>
          More: {(rows - room).toLocaleString('en')} of {rows.toLocaleString('en')}
        </Button>
      )}
    </div>
  );
}
