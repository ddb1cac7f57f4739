import { expect, test } from 'vitest';
import type { Programme, Routine } from '../../api/client';
import { firstOf, inOrder, isWanted, partsOf, searched } from './shelving';

const routine = (id: number, title: string, more: Partial<Routine> = {}): Routine =>
  ({
    id,
    uid: `u${id}`,
    title,
    note: null,
    text: `Title: ${title}`,
    badges: [],
    tags: [],
    pinned: false,
    put_away: false,
    changed_at: `2026-01-0${id}`,
    ...more,
  }) as Routine;

const FOG = routine(1, 'Fog', { tags: ['opener', 'counts'] });
const BELL = routine(2, 'Bell', { tags: ['counts'], badges: ['no set-up'] });
const GULL = routine(3, 'Gull', { pinned: true });
const OLD = routine(4, 'Old', { put_away: true });
const ALL = [FOG, BELL, GULL, OLD];
const names = (routines: Routine[]) => routines.map((one) => one.title);
const EVERYTHING = { sought: '', badges: [], tags: [], putAway: false };
const found = (wanted: object) => names(ALL.filter((one) => isWanted(one, searched(one), { ...EVERYTHING, ...wanted })));

test('what is put away is out of sight, and by itself when asked for; tags are searched like words', () => {
  expect(found({})).toEqual(['Fog', 'Bell', 'Gull']);
  expect(found({ putAway: true })).toEqual(['Old']);
  expect(found({ sought: 'counts' })).toEqual(['Fog', 'Bell']);
  expect(found({ tags: ['counts'], badges: ['no set-up'] })).toEqual(['Bell']);
});

test('what is pinned comes first in every order', () => {
  expect(names(inOrder(ALL.slice(0, 3), 'by title', () => ''))).toEqual(['Gull', 'Bell', 'Fog']);
  expect(names(inOrder(ALL.slice(0, 3), 'last shown first', (id) => (id === 2 ? '2026' : '')))).toEqual(['Gull', 'Bell', 'Fog']);
  expect(names(inOrder(ALL.slice(0, 3), 'last changed first', () => ''))).toEqual(['Gull', 'Bell', 'Fog']);
});

test('parts: by tag with the rest last; by programme in its running order, without what it no longer finds', () => {
  const parts = (grouping: 'by tag' | 'by programme', programmes: Programme[] = []) =>
    partsOf(ALL.slice(0, 3), grouping, programmes).map((part) => [part.name, names(part.routines)]);
  expect(parts('by tag')).toEqual([
    ['counts', ['Fog', 'Bell']],
    ['opener', ['Fog']],
    ['Without a tag', ['Gull']],
  ]);
  const supper = { uid: 'supper', occasion: { title: 'Supper', routines: ['u3', 'gone', 'u1', 'u3'] } } as Programme;
  expect(parts('by programme', [supper])).toEqual([
    ['Supper', ['Gull', 'Fog']],
    ['In no programme', ['Bell']],
  ]);
  const keys = partsOf(ALL.slice(0, 3), 'by programme', [supper, { ...supper, uid: 'another' }]).map((part) => part.key);
  expect(new Set(keys).size).toBe(3);
});

test('no more rows are drawn than there is room for, and no part without a row', () => {
  const parts = partsOf(ALL.slice(0, 3), 'by tag', []);
  expect(firstOf(parts, 3).map((part) => [part.name, part.routines.length])).toEqual([
    ['counts', 2],
    ['opener', 1],
  ]);
});
