import { expect, it } from 'vitest';
import type { SheetLine } from '../../api/client';
import { spoken } from './patter';

const line = (number: number, what: SheetLine['what']) => ({ number, what }) as SheetLine;

it('fills the numbers in that were named, line by line below the step', () => {
  const text = 'Deal n cards\n  “You said {n}, not {m}.”\n  “Well.” (untrue)\nTurn deck over\n  “Later.”';
  const lines = [line(1, 'step'), line(2, 'patter'), line(3, 'patter'), line(4, 'step'), line(5, 'patter')];
  expect(spoken(text, lines, 1, { n: 12 })).toEqual(['You said 12, not {m}.', 'Well.']);
  expect(spoken(text, lines, 4, {})).toEqual(['Later.']);
  expect(spoken(text, lines, 0, {})).toEqual([]);
});
