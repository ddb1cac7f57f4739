import { expect, test } from 'vitest';
import type { Frame, Strands } from '../../api/client';
import { axisOf, belongs, columnOf, pathAcross, spotsInWords, spotsOf } from './strandsLayout';

const at = (position: number, place = 'deck') => ({ place, position });
const edge = (from: ReturnType<typeof at>, to: ReturnType<typeof at> | null) => ({ source: from, to, paths: 1, can_succeed: true, can_fail: false });

/** A card that begins 4th or 6th, is dealt with or stays, and goes once round a repetition; one way gets stuck. */
const STRANDS: Strands = {
  card: 'BUOY',
  beginning: { line: 0, last: 0, turn: null, where: [at(4), at(6)] },
  columns: [
    { line: 3, last: 3, turn: null, edges: [edge(at(4), at(2, 'table')), edge(at(6), at(1)), edge(at(6), null)] },
    { line: 4, last: 6, turn: 1, edges: [edge(at(2, 'table'), at(2, 'table')), edge(at(1), at(3))] },
  ],
};

const frame = (line: number, spot: ReturnType<typeof at> | null, ...round: number[]): Frame => ({
  line,
  round,
  done: '',
  said: [],
  names: {},
  at: spot,
  places: [],
  numbers: {},
});

test('the spots of a column are those its edges lead to; where nothing goes on there is none', () => {
  expect(spotsOf(STRANDS, 0)).toEqual([at(4), at(6)]);
  expect(spotsOf(STRANDS, 1)).toEqual([at(2, 'table'), at(1)]);
});

test('places are bands below each other, deep enough for where the card comes, and columns go from left to right', () => {
  const { columns, bands, y } = axisOf(STRANDS, 600, 200);
  expect(columns.map((column) => column.label)).toEqual(['set-up', 'line 3', 'time 1']);
  expect(bands.map((band) => [band.place, band.size])).toEqual([
    ['deck', 6],
    ['table', 2],
  ]);
  const [deck, table] = bands as [(typeof bands)[0], (typeof bands)[0]];
  expect(table.top).toBeGreaterThan(deck.top + deck.height);
  expect(table.top + table.height).toBeLessThanOrEqual(200);
  for (const spot of [at(1), at(6)]) expect(y(spot) > deck.top && y(spot) < deck.top + deck.height).toBe(true);
  expect(y(at(1))).toBeLessThan(y(at(2)));
  const across = columns.map((column) => column.x);
  expect(across).toEqual(across.toSorted((a, b) => a - b));
});

test('a moment belongs to the column of its line, and of its time round', () => {
  const { columns } = axisOf(STRANDS, 600, 200);
  const [start, dealt, time] = columns as [(typeof columns)[0], (typeof columns)[0], (typeof columns)[0]];
  expect(belongs(start, frame(0, at(4)))).toBe(true);
  expect(belongs(dealt, frame(3, at(4)))).toBe(true);
  expect(belongs(time, frame(5, at(4), 1))).toBe(true);
  expect(belongs(time, frame(5, at(4), 2))).toBe(false);
});

test('the path goes on where it was until it moves, and stays there where it never comes', () => {
  const axis = axisOf(STRANDS, 600, 200);
  const frames = [frame(0, at(4)), frame(2, at(4)), frame(3, at(2, 'table'))];
  expect(pathAcross(axis, frames, null)).toEqual([at(4), at(2, 'table'), at(2, 'table')]);
  // Stuck in the repetition, behind it, or at the deal.
  expect(pathAcross(axis, frames, 5)).toEqual([at(4), at(2, 'table'), null]);
  expect(pathAcross(axis, frames, 9)).toEqual([at(4), at(2, 'table'), at(2, 'table')]);
  expect(pathAcross(axis, frames.slice(0, 2), 3)).toEqual([at(4), null, null]);
  expect([0, 1, 2].map((index) => columnOf(axis, frames, index))).toEqual([0, 0, 1]);
});

test('spots in words', () => {
  expect(spotsInWords([at(3), at(1), at(2), at(7), at(1, 'table')])).toBe('deck 1 to 3, 7; table 1');
});
