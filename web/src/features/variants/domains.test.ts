import { expect, test } from 'vitest';
import type { SheetLine } from '../../api/client';
import { literals, marks, values, withBlanks } from './domains';

const TEXT = 'Title: 3 ways?\nPlace BUOY 12th\nSpectator names a number n from ? to 20';

function line(number: number, ...slots: [string, number, number][]): SheetLine {
  const found = slots.map(([type, start, end]) => ({ name: 'slot', type, start, end }));
  return { number, what: 'step', step: null, phase: null, spectator: false, knowledge: null, level: 0, slots: found, faults: [] };
}

const LINES = [line(1, ['text', 7, 14]), line(2, ['card', 6, 10], ['position', 11, 15]), line(3, ['range', 25, 39])];

test.each([
  ['3 to 6', ['3', '4', '5', '6']],
  [' 7-9 ', ['7', '8', '9']],
  ['on, under', ['on', 'under']],
  ['9 to 3', []],
  ['', []],
])('what is typed to be tried: %s', (typed, tried) => {
  expect(values(typed)).toEqual(tried);
});

test('numbers and blanks are those in slots, not those in a title', () => {
  expect(literals(TEXT, LINES).map((one) => [one.line, one.value])).toEqual([
    [2, 12],
    [3, 20],
  ]);
  expect(marks(TEXT, LINES)).toEqual([3]);
});

test('a number becomes a blank, with the ending that goes with it', () => {
  const [first] = literals('Place BUOY 21st', [line(1, ['position', 11, 15])]);
  expect(withBlanks('Place BUOY 21st', first ? [first] : [])).toBe('Place BUOY ?th');
});
