import { useState } from 'react';

/** A value while it is complete, and until it is so again the last that was; at first what there is. */
export function useLast<T>(complete: boolean, value: T): { value: T; isOld: boolean } {
  const [last, setLast] = useState(value);
  if (complete && last !== value) setLast(value);
  return { value: complete ? value : last, isOld: !complete };
}
