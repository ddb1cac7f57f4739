import type { BookRecord } from '../../api/client';

/** A day of the book, as one reads it. */
export const day = (iso: string | null) =>
  iso === null ? 'never' : new Date(`${iso}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

const WIDTH = 460;
const HEIGHT = 120;
const FOOT = 18;
const TOP = 16;

/** Where the bars stand: a column a number, from the smallest to the largest that was chosen or is proved. */
export function bars({ seen, low, high }: Pick<BookRecord, 'seen' | 'low' | 'high'>) {
  const numbers = seen.map((one) => one.number);
  const first = Math.min(...numbers, low ?? Infinity);
  const last = Math.max(...numbers, high ?? -Infinity);
  const step = WIDTH / (last - first + 1);
  const most = Math.max(...seen.map((one) => one.times));
  const base = HEIGHT - FOOT;
  const at = (number: number) => (number - first) * step;
  const every = Math.ceil((last - first + 1) / 16);
  return {
    width: WIDTH,
    height: HEIGHT,
    base,
    proved: low === null || high === null ? null : { x: at(low), width: (high - low + 1) * step },
    bars: seen.map(({ number, times }) => ({
      number,
      x: at(number) + step * 0.14,
      width: step * 0.72,
      y: base - ((base - TOP) * times) / most,
      inside: low === null || high === null || (number >= low && number <= high),
    })),
    marks: Array.from({ length: last - first + 1 }, (_, i) => first + i)
      .filter((number) => (number - first) % every === 0)
      .map((number) => ({ number, x: at(number) + step / 2 })),
  };
}
