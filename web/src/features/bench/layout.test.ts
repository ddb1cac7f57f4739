import { expect, test } from 'vitest';
import type { Frame } from '../../api/client';
import { captions, layOut, namedIn, ordinal } from './layout';

const NAMES = { '1': 'FORCE', '2': 'MATE', '3': 'KEY', '4': 'MARK' };

function frame(...sizes: number[]): Frame {
  const places = sizes.map((size, i) => ({
    name: `heap ${i}`,
    lies: 'in a heap',
    spots: [] as [number, number][],
    cards: Array.from({ length: size }, (_, at) => at + 1),
  }));
  return { line: 1, round: [], done: '', said: [], places, names: NAMES, at: null, numbers: {} };
}

test.each([
  [1, '1st'],
  [2, '2nd'],
  [3, '3rd'],
  [11, '11th'],
  [22, '22nd'],
  [113, '113th'],
])('%i is the %s', (n, words) => {
  expect(ordinal(n)).toBe(words);
});

test('cards with names are told by their place, as many as there is room for', () => {
  expect(namedIn([9, 1, 2], NAMES)).toEqual(['FORCE 2nd', 'MATE 3rd']);
  expect(captions([1, 9, 3, 2], NAMES)).toHaveLength(3);
  expect(captions([1, 9, 3, 2, 4], NAMES)).toEqual(['FORCE 1st', 'KEY 3rd', 'and 2 more']);
});

test('four rows and a pack have room: no heap is drawn upside down, and nothing lies on anything else', () => {
  const one = frame(36, 4, 4, 4, 4);
  one.places.slice(1).forEach((place) => (place.spots = place.cards.map((_, i) => [i, 0])));
  const layout = layOut([one], one, 640, 240);
  expect(layout.pitch).toBeGreaterThan(1);
  expect(layout.y(36)).toBeLessThan(layout.laid[0]?.y ?? 0);
  const lie = layout.laid.map((row) => ({ left: row.x, top: row.y, right: row.x + 70 + 4 * row.pitch, bottom: row.y + 34 }));
  for (const [i, one] of lie.entries()) {
    expect(one.right).toBeLessThanOrEqual(640);
    expect(one.bottom).toBeLessThanOrEqual(layout.height);
    for (const other of lie.slice(i + 1)) {
      expect(one.right <= other.left || other.right <= one.left || one.bottom <= other.top || other.bottom <= one.top).toBe(true);
    }
  }
});

test('the deepest heap of the whole play fits, and nothing jumps while stepping', () => {
  const frames = [frame(52, 0), frame(20, 32)];
  const [first, second] = frames.map((one) => layOut(frames, one, 700, 240));
  expect(first?.pitch).toBe(second?.pitch);
  expect(first?.heaps.map((heap) => heap.x)).toEqual(second?.heaps.map((heap) => heap.x));
  expect(first?.y(52)).toBeLessThan(240);
});

test('a grid keeps its shape, and nothing below it lies on it', () => {
  const one = frame(20, 9, 4);
  one.places[1]!.spots = one.places[1]!.cards.map((_, i) => [i % 3, Math.floor(i / 3)]);
  one.places[2]!.spots = one.places[2]!.cards.map((_, i) => [i, 0]);
  const layout = layOut([one], one, 640, 400);
  const [grid, row] = layout.laid;
  const ends = grid!.y + 2 * grid!.step + 34;
  const right = grid!.x + 70 + 3 * grid!.pitch;
  expect(row!.y >= ends || row!.x >= right).toBe(true);
  expect(Math.max(ends, row!.y + 34)).toBeLessThanOrEqual(layout.height);
});
