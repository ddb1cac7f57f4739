import { expect, test } from 'vitest';
import { bars } from './bars';

const SEEN = [
  { number: 9, times: 1 },
  { number: 12, times: 4 },
  { number: 20, times: 2 },
];

test('a column a number, from the smallest to the largest; what is proved is shaded', () => {
  const drawn = bars({ seen: SEEN, low: 10, high: 19 });
  const [nine, twelve, twenty] = drawn.bars as [(typeof drawn.bars)[0], (typeof drawn.bars)[0], (typeof drawn.bars)[0]];
  expect([nine.inside, twelve.inside, twenty.inside]).toEqual([false, true, false]);
  expect(drawn.marks.map((mark) => mark.number)).toEqual([9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20]);
  expect(twelve.y).toBeLessThan(twenty.y);
  expect(drawn.base - nine.y).toBeCloseTo((drawn.base - twelve.y) / 4);
  expect(nine.x).toBeLessThan(drawn.proved!.x);
  expect(twenty.x).toBeGreaterThan(drawn.proved!.x + drawn.proved!.width);
});

test('without a range all are inside, and nothing is shaded', () => {
  const drawn = bars({ seen: [{ number: 5, times: 3 }], low: null, high: null });
  expect(drawn.proved).toBeNull();
  expect(drawn.bars).toHaveLength(1);
  expect(drawn.bars[0]!.inside).toBe(true);
});

test('a long range has no more marks than there is room for', () => {
  expect(bars({ seen: SEEN, low: 1, high: 200 }).marks.length).toBeLessThanOrEqual(16);
});
