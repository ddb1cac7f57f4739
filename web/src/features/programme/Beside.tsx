import { Button } from '@mantine/core';
import type { Occasion, RunningOrder } from '../../api/client';
import { clock } from './ordering';

/** Time, packs and resetting, with the minutes that are allowed as a bar. */
export function Totals({ running, occasion }: { running: RunningOrder; occasion: Occasion }) {
  const allowed = occasion.minutes ? 60 * occasion.minutes : null;
  const whole = Math.max(allowed ?? 0, running.seconds, 1);
  return (
    <section>
      <h2>What it takes</h2>
      <p className="figures">
        {clock(running.seconds)} {allowed ? `of ${clock(allowed)} allowed` : 'in all'} · {running.packs} {running.packs === 1 ? 'pack' : 'packs'} ·{' '}
        {Math.round(running.resetting)} s between
      </p>
      <svg viewBox="0 0 300 14" className="minutes" role="img" aria-label={`${clock(running.seconds)}${allowed ? ` of ${clock(allowed)}` : ''}`}>
        {running.turns.map((turn, at) => (
          <rect
            key={at}
            x={(300 * turn.begins) / whole}
            width={Math.max(1, (300 * turn.seconds) / whole - 1)}
            y={2}
            height={10}
            className={`pack-${turn.pack % 2}`}
          />
        ))}
        {allowed && <line x1={(300 * allowed) / whole} x2={(300 * allowed) / whole} y1={0} y2={14} className="limit" />}
      </svg>
    </section>
  );
}

/** What speaks against the order; what was looked at and is kept. */
export function Calls({ running, keep, think }: { running: RunningOrder; keep: (key: string) => void; think: (key: string) => void }) {
  return (
    <section aria-label="Warnings">
      <h2>{running.calls.length === 0 ? 'Nothing speaks against it' : 'Think of'}</h2>
      <ul className="calls">
        {running.calls.map((one) => (
          <li key={one.key}>
            <span aria-hidden="true">▲</span> {one.says}{' '}
            <Button size="compact-xs" variant="default" onClick={() => keep(one.key)} aria-label={`Keep it so: ${one.says}`}>
              Keep it so
            </Button>
          </li>
        ))}
      </ul>
      {running.kept.length > 0 && (
        <details>
          <summary>{running.kept.length} kept as they are</summary>
          <ul className="calls">
            {running.kept.map((one) => (
              <li key={one.key}>
                {one.says}{' '}
                <Button size="compact-xs" variant="default" onClick={() => think(one.key)}>
                  Think of it again
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
