import { useLayoutEffect, useRef, useState } from 'react';

/** What is asked about: at once after a pause, and in a run of changes so many milliseconds after the last. */
export function useSettled<T>(value: T, pause: number): T {
  const [settled, setSettled] = useState(value);
  const changed = useRef(-Infinity);
  // With the change itself, before anything is painted: the question is on its way while the key is being drawn.
  useLayoutEffect(() => {
    const since = performance.now() - changed.current;
    changed.current = performance.now();
    if (since >= pause) {
      setSettled(value);
      return;
    }
    const timer = setTimeout(() => setSettled(value), pause);
    return () => clearTimeout(timer);
  }, [value, pause]);
  return settled;
}
