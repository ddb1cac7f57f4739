import { useReducedMotion } from '@mantine/hooks';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Play } from '../../api/client';

const STEP = 650;

/** A moment of whichever path is played: by its frame, by the line that is done then, or the last one. */
type Moment = { frame: number } | { line: number } | null;
const END: Moment = null;

function frameOf(moment: Moment, play: Play | undefined): number | null {
  if (moment === null) return null;
  if ('frame' in moment) return moment.frame;
  return Math.max(0, play?.frames.findLastIndex((frame) => frame.line <= moment.line && frame.line > 0) ?? 0);
}

/** Which moment of the path the table shows: moved by the cursor, by stepping, or played from the start. */
export function usePlayback(play: Play | undefined) {
  const still = useReducedMotion();
  const last = Math.max(0, (play?.frames.length ?? 1) - 1);
  const [wanted, setWanted] = useState<Moment>(END);
  const [running, setRunning] = useState(false);
  const index = Math.min(frameOf(wanted, play) ?? last, last);

  useEffect(() => {
    if (!running) return;
    const timer = window.setTimeout(() => {
      if (index >= last) setRunning(false);
      else setWanted({ frame: index + 1 });
    }, STEP);
    return () => window.clearTimeout(timer);
  }, [running, index, last]);

  const goTo = useCallback((to: number) => {
    setRunning(false);
    setWanted({ frame: Math.max(0, to) });
  }, []);

  const step = useCallback((by: number) => goTo(Math.min(index + by, last)), [goTo, index, last]);

  /** When this line has been carried out for the last time; also on the path that comes once the text on the sheet is played. */
  const goToLine = useCallback((line: number) => {
    setRunning(false);
    setWanted({ line });
  }, []);

  /** From the beginning to the end; with reduced motion straight to the end. */
  const run = useCallback(() => {
    setWanted(still ? END : { frame: 0 });
    setRunning(!still);
  }, [still]);

  return useMemo(() => ({ index, last, step, goTo, goToLine, run, running }), [index, last, step, goTo, goToLine, run, running]);
}

export type Playback = ReturnType<typeof usePlayback>;
