import { Button, Group } from '@mantine/core';
import { IconPlayerPlay, IconPlayerTrackNext, IconPlayerTrackPrev, IconWindowMaximize } from '@tabler/icons-react';
import { memo } from 'react';
import type { Play, Schemas } from '../../api/client';
import { TableView } from './TableView';
import type { Playback } from './usePlayback';

type Moment = Schemas['TableMoment'];

interface TablePanelProps {
  play: Play | undefined;
  playback: Playback;
  /** where the table stands alone; nothing where it does */
  alone?: string;
}

/** One path on the table, line by line. */
export const TablePanel = memo(function TablePanel({ play, playback, alone }: TablePanelProps) {
  const { index, last, step, goTo, run, running } = playback;
  const frame = play?.frames[index];
  const fails = index === last ? (play?.failures ?? []) : [];
  const done = fails.length ? '' : frame?.done;
  return (
    <section className="panel table-panel" aria-label="The table">
      <header>
        <h2>The table</h2>
        <span className="when" title={done || undefined}>
          {frame ? moment(frame, fails) : ''}
          {done && (
            <>
              : <em>{done}</em>
            </>
          )}
        </span>
        <Group gap={6} wrap="nowrap">
          <Button size="compact-sm" variant="subtle" aria-label="One step back" disabled={index === 0} onClick={() => step(-1)}>
            <IconPlayerTrackPrev size={16} />
          </Button>
          <span className="figures">
            {index} of {last}
          </span>
          <Button size="compact-sm" variant="subtle" aria-label="One step on" disabled={index === last} onClick={() => step(1)}>
            <IconPlayerTrackNext size={16} />
          </Button>
          <Button size="compact-sm" variant="subtle" leftSection={<IconPlayerPlay size={15} />} onClick={running ? () => goTo(index) : run}>
            {running ? 'Hold' : 'Play'}
          </Button>
          {alone && (
            <Button
              size="compact-sm"
              variant="subtle"
              aria-label="The table in a window of its own"
              title="The table in a window of its own"
              onClick={() => window.open(alone, alone, 'popup,width=900,height=600')}
            >
              <IconWindowMaximize size={16} />
            </Button>
          )}
        </Group>
      </header>
      {frame && frame.said.length > 0 && <p className="spoken">{frame.said.map((words) => `“${words}”`).join(' ')}</p>}
      {play && frame && play.frames.some((f) => f.places.some((p) => p.cards.length)) ? (
        <TableView play={play} frame={frame} before={play.frames[index - 1]} />
      ) : (
        <p className="bare-table">The table is bare. Write the pack first: “Pack: 52 cards, any order”.</p>
      )}
    </section>
  );
});

function moment({ line, round }: Moment, failures: string[]): string {
  const when = line === 0 ? 'before the first line' : `after line ${line}`;
  const turn = round.length ? `, time ${round.join(', ')}` : '';
  return `${when}${turn}${failures.length ? `: ${failures.join(' and ')}` : ''}`;
}
