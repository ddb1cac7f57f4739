import { Button, Group, Select } from '@mantine/core';
import { useState } from 'react';
import type { Occasion, Routine, Wish } from '../../api/client';
import { bestOrderQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';
import { clock, moved } from './ordering';

interface BestOrderProps {
  uid: string;
  revision: number;
  occasion: Occasion;
  change: (what: Partial<Occasion>) => void;
  titles: Map<string, Routine>;
}

const KINDS: Wish['kind'][] = ['fewest warnings', 'least resetting', 'fewest packs', 'variety', 'within the minutes', 'opener', 'closer'];

/** What an order is to have, the most important first; and the order that has it. */
export function BestOrder({ uid, revision, occasion, change, titles }: BestOrderProps) {
  const [asked, setAsked] = useState<number | null>(null);
  const { data, ...search } = useSearch(bestOrderQuery(uid, revision), asked === revision);
  const { wishes } = occasion;
  const set = (next: Wish[]) => change({ wishes: next });
  const named = (one: Wish) => one.kind === 'opener' || one.kind === 'closer';
  const inIt = [...new Set(occasion.routines)];
  const said = (one: Wish) => (named(one) ? `${one.kind}: ${titles.get(one.routine ?? '')?.title ?? '–'}` : one.kind);
  return (
    <section aria-label="A better order">
      <h2>A better order</h2>
      <ol className="wishes">
        {wishes.map((one, at) => (
          <li key={`${one.kind} ${one.routine}`}>
            <span>{said(one)}</span>
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              aria-label={`${said(one)} before the others`}
              disabled={at === 0}
              onClick={() => set(moved(wishes, at, at - 1))}
            >
              ↑
            </Button>
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              aria-label={`No longer wish: ${said(one)}`}
              onClick={() => set(wishes.filter((_, other) => other !== at))}
            >
              ✕
            </Button>
          </li>
        ))}
      </ol>
      <Group gap={6}>
        <Select
          size="xs"
          aria-label="Wish for"
          placeholder="wish for…"
          data={[
            ...KINDS.filter((kind) => !['opener', 'closer'].includes(kind) && !wishes.some((one) => one.kind === kind)),
            ...inIt.flatMap((routine) =>
              (['opener', 'closer'] as const).map((kind) => ({ value: `${kind} ${routine}`, label: `${kind}: ${titles.get(routine)?.title ?? '–'}` })),
            ),
          ]}
          value={null}
          onChange={(to) => {
            const kind = KINDS.find((one) => to?.startsWith(one));
            if (to && kind) set([...wishes, { kind, routine: to.slice(kind.length + 1) }]);
          }}
          w={190}
        />
        <Button size="compact-sm" onClick={() => setAsked(revision)}>
          Propose an order
        </Button>
      </Group>
      {asked === revision && (search.isFetching || search.error ? <Working search={search} doing="Trying orders…" /> : null)}
      {asked === revision && data && !search.isFetching && (
        <div className="proposal" role="status">
          <p>{data.says}</p>
          {data.running && data.order.some((from, to) => from !== to) && (
            <>
              <ol>
                {data.running.turns.map((turn, at) => (
                  <li key={at}>
                    {turn.title}{' '}
                    <small className="figures">
                      pack {turn.pack}, {clock(turn.begins)}
                    </small>
                  </li>
                ))}
              </ol>
              <Button size="compact-sm" onClick={() => change({ routines: data.order.map((from) => occasion.routines[from]!) })}>
                Take this order
              </Button>
            </>
          )}
          {data.gives.map((one) => (
            <p key={one} className="quiet">
              {one}
            </p>
          ))}
        </div>
      )}
    </section>
  );
}
