import { useEffect, useRef } from 'react';
import type { Play } from '../../api/client';
import type { Playback } from '../bench/usePlayback';

/** What a window with the table alone shows: one path and the moment of it that the bench shows. */
export interface Shown {
  title: string;
  play: Play | undefined;
  index: number;
  last: number;
  running: boolean;
}

/** Windows of one browser about one routine: the bench tells what it shows, a table window asks for that and for other moments. */
export type Word = { shown: Shown } | { asks: 'shown' } | { asks: 'step'; by: number } | { asks: 'goTo'; to: number } | { asks: 'run' };

export const channelOf = (routine: number) => new BroadcastChannel(`golden-pivot-table-${routine}`);

/** Lets windows with the table alone follow what the bench shows. */
export function useSharedTable(routine: number, shown: Shown, playback: Playback) {
  const channel = useRef<BroadcastChannel>(null);
  const now = useRef({ shown, playback });
  useEffect(() => {
    now.current = { shown, playback };
  });
  useEffect(() => {
    const opened = channelOf(routine);
    channel.current = opened;
    opened.onmessage = ({ data }: MessageEvent<Word>) => {
      if (!('asks' in data)) return;
      const { step, goTo, run } = now.current.playback;
      if (data.asks === 'shown') opened.postMessage({ shown: now.current.shown } satisfies Word);
      else if (data.asks === 'step') step(data.by);
      else if (data.asks === 'goTo') goTo(data.to);
      else run();
    };
    return () => opened.close();
  }, [routine]);
  useEffect(() => {
    channel.current?.postMessage({ shown: now.current.shown } satisfies Word);
  }, [shown.play, shown.index, shown.running, shown.title]);
}
