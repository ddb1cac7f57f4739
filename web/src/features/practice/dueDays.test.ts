import { expect, test } from 'vitest';
import { dueDays } from './dueDays';

test('what is overdue is due today, what is new is not due, what comes later stands at the end', () => {
  const now = new Date(2026, 10, 28, 12);
  const at = (day: number, hour = 13) => new Date(2026, 10, 28 + day, hour).toISOString();
  expect(dueDays([at(-9), at(0, 1), at(0, 23), at(1, 0), at(3), at(99), null], now, 5)).toEqual([3, 1, 0, 1, 1]);
});
