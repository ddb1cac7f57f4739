import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { BookPick, BookRecord, Routine } from '../../api/client';
import { spectatorsQuery } from '../../api/queries';
import { toAddress } from '../desks/asks';
import { bars, day } from './bars';

/** One's own spectators in one routine: how it ended, and each number they chose against what is proved. */
export function Spectators({ routine }: { routine: Routine }) {
  const { data } = useQuery(spectatorsQuery(routine.id));
  if (!data) return <p className="quiet">Counting…</p>;
  const { shown, records, picks } = data;
  if (!shown.times) return <p className="quiet">It is not in the book yet.</p>;
  const asks = toAddress({ routine: routine.text, habits: records.filter((one) => one.line !== null).map((one) => one.habit) }, {});
  return (
    <>
      <p>
        Shown {shown.times === 1 ? 'once' : `${shown.times} times`}, last on {day(shown.last)}: {shown.as_planned} as planned, {shown.another_way} another way,{' '}
        {shown.failed} failed.{shown.minutes ? ` It takes ${shown.minutes} minutes.` : ''}
      </p>
      {shown.slips.length > 0 && <p>What slipped: {shown.slips.map((one) => `${one.what} (${one.times})`).join(', ')}.</p>}
      {records.map((one) => (
        <Chosen key={one.name} record={one} />
      ))}
      {picks.map((one) => (
        <Picked key={one.name} pick={one} />
      ))}
      {records.some((one) => one.line !== null) && (
        <Button component={Link} size="compact-sm" variant="default" to={`/desks/odds?asks=${encodeURIComponent(asks)}&shelf=${routine.id}`}>
          How often it comes out with them
        </Button>
      )}
    </>
  );
}

/** How often each was chosen of what is no number, the most frequent first. */
function Picked({ pick }: { pick: BookPick }) {
  const most = pick.seen[0]?.times ?? 1;
  return (
    <section aria-label={`What was chosen for ${pick.name}`}>
      <h3>{pick.name}</h3>
      <p>
        {pick.says}
        {most > 1 ? ` Of all spectators that may be ${Math.round(100 * pick.least)} to ${Math.round(100 * pick.most)} of 100.` : ''}
      </p>
      <table className="picked">
        <thead>
          <tr>
            <th scope="col">chosen</th>
            <th scope="col">times</th>
          </tr>
        </thead>
        <tbody>
          {pick.seen.map((one) => (
            <tr key={one.choice}>
              <td>{one.choice}</td>
              <td>
                <span className="often" style={{ inlineSize: `${(100 * one.times) / most}px` }} /> {one.times}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** How often each number was chosen, with the part shaded for which the routine is proved. */
function Chosen({ record }: { record: BookRecord }) {
  const drawn = bars(record);
  const often = `${Math.round(100 * record.least)} to ${Math.round(100 * record.most)} of 100`;
  return (
    <section aria-label={`What was chosen for ${record.name}`}>
      <h3>
        {record.name}
        {record.line === null ? '' : `, line ${record.line}`}
      </h3>
      <p>
        {record.says}
        {record.outside > 0 ? ` Of all spectators that may be ${often}.` : ''}
      </p>
      <svg
        viewBox={`0 0 ${drawn.width} ${drawn.height}`}
        className="bars"
        role="img"
        aria-label={`${record.name}: ${record.seen.map((one) => `${one.number}, ${one.times} times`).join('; ')}`}
      >
        {drawn.proved && <rect className="proved" x={drawn.proved.x} width={drawn.proved.width} y={0} height={drawn.base} />}
        {drawn.bars.map((bar) => (
          <g key={bar.number}>
            <rect className={bar.inside ? 'bar' : 'bar outside'} x={bar.x} y={bar.y} width={bar.width} height={drawn.base - bar.y} />
            {!bar.inside && (
              <text x={bar.x + bar.width / 2} y={bar.y - 3}>
                ✕
              </text>
            )}
          </g>
        ))}
        {drawn.marks.map((mark) => (
          <text key={mark.number} x={mark.x} y={drawn.height - 3}>
            {mark.number}
          </text>
        ))}
      </svg>
      <details>
        <summary>as a table</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">{record.name}</th>
              <th scope="col">times</th>
            </tr>
          </thead>
          <tbody>
            {record.seen.map((one) => (
              <tr key={one.number}>
                <td>{one.number}</td>
                <td>{one.times}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}
