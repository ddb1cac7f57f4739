import { expect, test } from 'vitest';
import { triedWords, type Tried } from './tried';

const one = (r: number, t: number, came: Tried['came']): Tried => ({ values: { r, t }, came });

test('what was tried is told for one number at a time', () => {
  const tried = [one(5, 3, 'works'), one(4, 3, 'fails'), one(3, 3, 'works'), one(5, 2, 'fails')];
  expect(triedWords(tried, 'r', { r: 3, t: 3 })).toBe('works at 3, 5; fails at 4');
  expect(triedWords(tried, 't', { r: 5, t: 2 })).toBe('works at 3; fails at 2');
  expect(triedWords(tried, 't', { r: 3, t: 3 })).toBe('');
});
