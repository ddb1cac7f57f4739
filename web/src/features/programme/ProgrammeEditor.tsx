import { Button, Group, Select } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Programme, RunningOrder } from '../../api/client';
import { routinesQuery, runningOrderQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';
import { Calls, Totals } from './Beside';
import { BestOrder } from './BestOrder';
import { Files } from './Files';
import { OccasionForm } from './OccasionForm';
import { clock, moved } from './ordering';
import { useProgramme } from './useProgramme';

interface EditorProps {
  programme: Programme;
  strike: () => void;
}

/** One programme: the routines in their order, what is to be done in between, and what speaks against it. */
export function ProgrammeEditor({ programme, strike }: EditorProps) {
  const it = useProgramme(programme);
  const { occasion, change } = it;
  const { data: routines = [] } = useQuery(routinesQuery());
  const { data, ...search } = useSearch(runningOrderQuery(programme.uid, it.revision));
  const [sought, setSought] = useState('');
  useHotkeys([['mod+z', () => it.undo?.()]]);
  const titles = new Map(routines.map((one) => [one.uid, one]));
  const running = data && !search.isOld ? data.running : null;
  const last = data?.running ?? null;
  const order = (next: string[]) => change({ routines: next });
  return (
    <>
      <OccasionForm occasion={occasion} change={change} trouble={it.trouble} />
      <div className="programme-halves">
        <section aria-label="The order" className="order">
          {occasion.routines.length === 0 && (
            <p className="quiet">Nothing is in it yet. Take the routines from the shelf, in the order in which you would show them.</p>
          )}
          <ol>
            {occasion.routines.map((uid, at) => (
              <Turn
                key={`${uid} ${occasion.routines.slice(0, at).filter((one) => one === uid).length}`}
                at={at}
                id={titles.get(uid)?.id ?? null}
                title={titles.get(uid)?.title ?? 'No longer on the shelf'}
                running={matches(running, occasion.routines, titles) ? running : null}
                move={(to) => order(moved(occasion.routines, at, to))}
                remove={() => order(occasion.routines.filter((_, other) => other !== at))}
              />
            ))}
          </ol>
          <Group gap={8} className="add">
            <Select
              aria-label="Add a routine"
              placeholder="Add a routine"
              searchable
              data={routines.map((one) => ({ value: one.uid, label: one.title }))}
              value={null}
              searchValue={sought}
              onSearchChange={setSought}
              onChange={(uid) => {
                if (uid) order([...occasion.routines, uid]);
                // The field writes the title of what was taken; it is free for the next one.
                requestAnimationFrame(() => setSought(''));
              }}
              w={300}
            />
            <Button variant="default" disabled={!it.undo} onClick={() => it.undo?.()}>
              Undo
            </Button>
            <Button variant="subtle" color="gray" onClick={strike}>
              Strike the programme out
            </Button>
          </Group>
        </section>
        <aside className="panel beside" aria-label="What it takes" tabIndex={0}>
          {search.isFetching || search.error ? <Working search={search} doing="Working out the packs…" /> : null}
          {last && <Totals running={last} occasion={occasion} />}
          {last && (
            <Calls
              running={last}
              keep={(key) => change({ kept: [...occasion.kept, key] })}
              think={(key) => change({ kept: occasion.kept.filter((one) => one !== key) })}
            />
          )}
          <BestOrder uid={programme.uid} revision={it.revision} occasion={occasion} change={change} titles={titles} />
          <Files programme={programme} occasion={occasion} saved={it.saved} />
        </aside>
      </div>
    </>
  );
}

/** What was worked out is of the routines as they stand on the screen. */
function matches(running: RunningOrder | null, routines: string[], titles: Map<string, unknown>) {
  const here = routines.filter((uid) => titles.has(uid));
  return (
    running !== null && running.turns.length === here.length && here.length === routines.length && running.turns.every((turn, at) => turn.uid === here[at])
  );
}

interface TurnProps {
  at: number;
  id: number | null;
  title: string;
  running: RunningOrder | null;
  move: (to: number) => void;
  remove: () => void;
}

function Turn({ at, id, title, running, move, remove }: TurnProps) {
  const turn = running?.turns[at];
  const before = turn?.after != null ? running?.turns[turn.after] : null;
  return (
    <li
      tabIndex={0}
      aria-label={`${at + 1}. ${title}`}
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget) return;
        const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
        if (by) {
          event.preventDefault();
          move(at + by);
          const list = event.currentTarget.parentElement;
          requestAnimationFrame(() => (list?.children[at + by] as HTMLElement | undefined)?.focus());
        } else if (event.key === 'Delete') remove();
      }}
    >
      {turn && (
        <div className={`between ${turn.between?.state === 'another pack' ? 'bad' : ''}`}>
          {turn.between && before ? (
            <details>
              <summary>
                Pack {turn.pack}, as {before.title} leaves it: {STATES[turn.between.state]}
                {turn.between.moves.length > 0 && `, about ${Math.round(turn.between.seconds)} s`}
                {turn.between.covered > 0 && `, ${Math.round(turn.between.covered)} s of it unseen`}
              </summary>
              <ol>
                {turn.between.moves.map((one) => (
                  <li key={one.words}>{one.words}</li>
                ))}
              </ol>
              {turn.between.ahead.length > 0 && <p>{turn.between.says.slice(turn.between.says.indexOf('Or put'))}</p>}
            </details>
          ) : (
            <p>Pack {turn.pack}, set up before you begin.</p>
          )}
          {turn.ready && <p>{turn.ready}</p>}
        </div>
      )}
      <div className="turn">
        <span className="nth">{at + 1}</span>
        <div>
          {id === null ? (
            <span className="name">{title}</span>
          ) : (
            <Link to={`/bench/${id}`} className="name">
              {title}
            </Link>
          )}
          {turn?.trouble && <p className="trouble">{turn.trouble}</p>}
          {turn && (
            <p className="times figures">
              begins at {clock(turn.begins)}, takes {clock(turn.seconds)}
              {turn.measured > 0 ? ` as in ${turn.measured} performances` : ' as reckoned'}
            </p>
          )}
        </div>
        <Group gap={2} className="does">
          <Button size="compact-sm" variant="subtle" color="gray" aria-label={`${title} earlier`} onClick={() => move(at - 1)}>
            ↑
          </Button>
          <Button size="compact-sm" variant="subtle" color="gray" aria-label={`${title} later`} onClick={() => move(at + 1)}>
            ↓
          </Button>
          <Button size="compact-sm" variant="subtle" color="gray" aria-label={`Take out ${title}`} onClick={remove}>
            Take out
          </Button>
        </Group>
      </div>
    </li>
  );
}

const STATES = { ready: 'ready as it lies', 'after a reset': 'ready after a reset', 'another pack': 'another pack is needed' };
