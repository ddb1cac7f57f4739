import { useReducedMotion } from '@mantine/hooks';
import { useCallback, useEffect, useState } from 'react';
import type { Play } from '../../api/client';

const STEP = 650;

/** Which moment of the path the table shows: moved by the cursor, by stepping, or played from the start. */
export function usePlayback(play: Play | undefined) {
  const still = useReducedMotion();
  const last = Math.max(0, (play?.frames.length ?? 1) - 1);
  const [wanted, setWanted] = useState<number | null>(null);
  const [running, setRunning] = useState(false);
  const index = Math.min(wanted ?? last, last);

  useEffect(() => {
    if (!running) return;
    const timer = window.setTimeout(() => {
      if (index >= last) setRunning(false);
      else setWanted(index + 1);
    }, STEP);
    return () => window.clearTimeout(timer);
  }, [running, index, last]);

  const goTo = useCallback((to: number) => {
    setRunning(false);
    setWanted(Math.max(0, to));
  }, []);

  const step = useCallback((by: number) => goTo(Math.min(index + by, last)), [goTo, index, last]);

  /** The frame after this line has been carried out for the last time. */
  const goToLine = useCallback(
    (line: number) => {
      const found = play?.frames.findLastIndex((frame) => frame.line <= line && frame.line > 0) ?? -1;
      goTo(found < 0 ? 0 : found);
    },
    [play, goTo],
  );

  /** From the beginning to the end; with reduced motion straight to the end. */
  const run = useCallback(() => {
    setWanted(still ? null : 0);
    setRunning(!still);
  }, [still]);

  return { index, last, step, goTo, goToLine, run, running };
}

export type Playback = ReturnType<typeof usePlayback>;
