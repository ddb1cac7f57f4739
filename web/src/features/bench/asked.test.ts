import { expect, test } from 'vitest';
import type { Decision } from '../../api/client';
import { choosing, choosingTogether, FIRST, inHand } from './asked';

const decision = (key: string, value: number) => ({ key, value }) as Decision;
const decisions = [decision('a', 1), decision('b', 2), decision('c', 3)];
const played = { decisions, isOld: false };
const waiting = { decisions, isOld: true };

test('a choice leaves the others as they were played', () => {
  expect(choosing({ ...FIRST, seed: 7 }, played, 'b', 9)).toEqual({ ...FIRST, choices: { a: 1, b: 9, c: 3 } });
});

test('a choice made before the last one was played takes nothing back', () => {
  const once = choosing(FIRST, played, 'a', 8);
  expect(choosing(once, waiting, 'b', 9).choices).toEqual({ a: 8, b: 9, c: 3 });
  const plainest = choosingTogether(once, waiting, ['b', 'c'], false);
  expect(choosing(plainest, waiting, 'b', 9).choices).toEqual({ a: 8, b: 9 });
});

test('a path by chance that is not played yet is the one that is changed', () => {
  const asked = choosing({ ...FIRST, seed: 7 }, waiting, 'b', 9);
  expect(asked).toEqual({ ...FIRST, seed: 7, choices: { b: 9 } });
});

test('a worst case that is not known yet gives way to a choice in what is seen', () => {
  expect(choosing({ ...FIRST, worst: true }, waiting, 'b', 9)).toEqual({ ...FIRST, choices: { a: 1, b: 9, c: 3 } });
});

test('several choices by chance leave the others', () => {
  const asked = choosingTogether(FIRST, played, ['a', 'b'], true);
  expect(asked.choices).toEqual({ c: 3 });
  expect(asked.seed).not.toBeNull();
});

test('the hand shows what was chosen at once', () => {
  expect(inHand({ ...FIRST, choices: { b: 9 } }, waiting)?.map(({ value }) => value)).toEqual([1, 9, 3]);
  expect(inHand(FIRST, waiting), 'nothing is drawn anew while nothing has changed').toBe(decisions);
  expect(inHand({ ...FIRST, choices: { b: 9 } }, played)?.map(({ value }) => value)).toEqual([1, 2, 3]);
});
