import { expect, test } from 'vitest';
import { clock, moved } from './ordering';

test('what is moved comes to its place, and nothing goes over the end', () => {
  expect(moved(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a']);
  expect(moved(['a', 'b', 'c'], 2, 0)).toEqual(['c', 'a', 'b']);
  expect(moved(['a', 'b'], 1, 2)).toEqual(['a', 'b']);
  expect(moved(['a', 'b'], 0, -1)).toEqual(['a', 'b']);
});

test('times are read as on a clock', () => {
  expect([0, 59.6, 65, 3605].map(clock)).toEqual(['0:00', '1:00', '1:05', '60:05']);
});
