import { useHotkeys } from '@mantine/hooks';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { TablePanel } from '../bench/TablePanel';
import '../bench/bench.css';
import { channelOf, type Shown, type Word } from './shared';
import './table-window.css';

/** The table alone, in a window of its own: it follows the bench, and can be stepped from here. */
export default function TableWindow() {
  const { id } = useParams();
  const routine = Number(id);
  const [shown, setShown] = useState<Shown | null>(null);
  const ask = useMemo(() => {
    const say = (word: Word) => {
      const channel = channelOf(routine);
      channel.postMessage(word);
      channel.close();
    };
    return {
      step: (by: number) => say({ asks: 'step', by }),
      goTo: (to: number) => say({ asks: 'goTo', to }),
      run: () => say({ asks: 'run' }),
    };
  }, [routine]);
  useEffect(() => {
    const channel = channelOf(routine);
    channel.onmessage = ({ data }: MessageEvent<Word>) => {
      if ('shown' in data) setShown(data.shown);
    };
    channel.postMessage({ asks: 'shown' } satisfies Word);
    return () => channel.close();
  }, [routine]);
  useEffect(() => {
    document.title = shown ? `${shown.title} · the table` : 'The table';
  }, [shown]);
  useHotkeys([
    ['ArrowRight', () => ask.step(1)],
    ['ArrowLeft', () => ask.step(-1)],
    ['Home', () => ask.goTo(0)],
  ]);
  if (!shown)
    return (
      <main className="table-window">
        <h1>The table</h1>
        <p>
          It follows the bench: <Link to={`/bench/${id}`}>open the routine there</Link>, in another window of this browser.
        </p>
      </main>
    );
  const { play, index, last, running } = shown;
  return (
    <main className="table-window" aria-label={`The table of ${shown.title}`}>
      <TablePanel play={play} playback={{ index, last, running, ...ask, goToLine: () => undefined }} />
    </main>
  );
}
