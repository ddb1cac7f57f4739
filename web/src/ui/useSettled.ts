import { useEffect, useRef, useState } from 'react';

/** What is asked about: at once after a pause, and in a run of changes so many milliseconds after the last. */
export function useSettled<T>(value: T, pause: number): T {
  const [settled, setSettled] = useState(value);
  const changed = useRef(-Infinity);
  useEffect(() => {
    const since = performance.now() - changed.current;
    changed.current = performance.now();
    const timer = setTimeout(() => setSettled(value), since < pause ? pause : 0);
    return () => clearTimeout(timer);
  }, [value, pause]);
  return settled;
}
