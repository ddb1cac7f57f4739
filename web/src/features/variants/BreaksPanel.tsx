import { Button, Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { slipsOfQuery, slipsQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { Working } from '../../ui/Working';
import { ToLine, percent, type PanelProps } from './parts';

const KINDS = {
  all: ['✕', 'break it'],
  some: ['◐', 'break some paths'],
  elsewhere: ['→', 'end elsewhere, but known'],
  'not settled': ['?', 'not settled'],
  harmless: ['✓', 'harmless'],
} as const;

/** What breaks it: every plausible slip, the worst first. */
export function BreaksPanel({ routine, text, onLine, replace }: PanelProps) {
  const { data: known = [] } = useQuery(slipsOfQuery(routine));
  const { data, ...search } = useSearch(slipsQuery(text));
  const [by, setBy] = useState<string | null>('worst');
  if (search.isFetching || search.error) return <Working search={search} doing="Making every slip once…" />;
  const found = data?.slips;
  if (!found) return <p className="quiet">There is something to mend on the sheet first.</p>;
  const happened = new Map(known.filter((one) => one.times > 0).map((one) => [one.what, one.times]));
  const times = (slip: { line: number; what: string }) => happened.get(`line ${slip.line}: ${slip.what}`) ?? 0;
  // What happened comes before what could.
  const slips = found.slips.toSorted((one, other) => (by === 'line' ? one.line - other.line : times(other) - times(one)));
  const count = (kind: string) => found.slips.filter((slip) => slip.kind === kind).length;
  return (
    <>
      <div className="bar">
        <p className="sum">
          {(Object.keys(KINDS) as (keyof typeof KINDS)[]).filter(count).map((kind) => (
            <span key={kind} className={`kind ${kind.replace(' ', '-')}`}>
              {KINDS[kind][0]} {count(kind)} {KINDS[kind][1]}
            </span>
          ))}
        </p>
        <Select
          size="xs"
          w={130}
          aria-label="Order of the slips"
          value={by}
          onChange={setBy}
          allowDeselect={false}
          data={[
            { value: 'worst', label: 'worst first' },
            { value: 'line', label: 'line by line' },
          ]}
        />
      </div>
      {found.untried > 0 && <p className="quiet">{found.untried} more slips were not tried: the time was up.</p>}
      {found.advice.length > 0 && (
        <ul className="advice" aria-label="What may be given away">
          {found.advice.map((one) => (
            <li key={`${one.line}${one.words}`}>
              <ToLine line={one.line} onLine={onLine} /> {one.words}
            </li>
          ))}
        </ul>
      )}
      <table className="slips" aria-label="Slips">
        <thead>
          <tr>
            <th>Where</th>
            <th>What goes wrong</th>
            <th>What comes of it</th>
            <th aria-label="Try it" />
          </tr>
        </thead>
        <tbody>
          {slips.map((slip) => (
            <tr key={`${slip.line} ${slip.what}`} className={slip.kind.replace(' ', '-')}>
              <td>
                <ToLine line={slip.line} onLine={onLine} />
              </td>
              <td>
                {slip.what}
                {slip.rows && <small>{slip.rows}</small>}
                {times(slip) > 0 && <small>happened {times(slip) === 1 ? 'once' : `${times(slip)} times`}, by the book</small>}
              </td>
              <td>
                <span className="mark" aria-hidden>
                  {KINDS[slip.kind][0]}
                </span>{' '}
                {slip.says}
                {slip.kind === 'some' && slip.share !== null && <small>{percent(slip.share)} of the paths</small>}
              </td>
              <td>
                <Button size="compact-xs" variant="subtle" color="gray" onClick={() => replace(slip.text)}>
                  Try it
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
