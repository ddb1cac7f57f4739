import { expect, test } from 'vitest';
import { ago, isRight } from './ago';

test('how long ago something was, also where the clock went back', () => {
  const now = new Date('2026-11-28T12:00:00Z');
  expect(['2026-11-28', '2026-11-27T10:00:00Z', '2026-11-18', '2026-06-01', '2026-12-03'].map((day) => ago(day, now))).toEqual([
    'today',
    'yesterday',
    '10 days ago',
    '6 months ago',
    'later than today',
  ]);
});

test('an answer is right however it is written, and a place by its number', () => {
  expect(isRight(' 12 ', '12')).toBe(true);
  expect(isRight('Queen of  Hearts', 'queen of hearts')).toBe(true);
  expect(isRight('27', '27th in deck')).toBe(true);
  expect(isRight('2', '27th in deck')).toBe(false);
  expect(isRight('', '0')).toBe(false);
});
