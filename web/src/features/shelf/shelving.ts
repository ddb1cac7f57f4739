import type { Programme, Routine } from '../../api/client';

/** When each routine was last shown, as a date that sorts; '' for never. */
type Shown = (id: number) => string;

export const ORDERS = {
  'as they came': () => 0,
  'last changed first': (one: Routine, other: Routine) => other.changed_at.localeCompare(one.changed_at),
  'last shown first': (one: Routine, other: Routine, shown: Shown) => shown(other.id).localeCompare(shown(one.id)),
  'by title': (one: Routine, other: Routine) => one.title.localeCompare(other.title),
};
export type Order = keyof typeof ORDERS;

export const GROUPINGS = ['in one list', 'by programme', 'by tag'] as const;
export type Grouping = (typeof GROUPINGS)[number];

export interface Wanted {
  /** what titles, notes, tags and lines are searched for, in small letters */
  sought: string;
  badges: string[];
  tags: string[];
  /** those that are put away, rather than the others */
  putAway: boolean;
}

/** All of a routine that is searched, in small letters. */
export const searched = (one: Routine) => `${one.title} ${one.note ?? ''} ${one.tags.join(' ')} ${one.text}`.toLowerCase();

export const isWanted = (one: Routine, text: string, { sought, badges, tags, putAway }: Wanted) =>
  one.put_away === putAway && text.includes(sought) && badges.every((badge) => one.badges.includes(badge)) && tags.every((tag) => one.tags.includes(tag));

/** Those that are pinned first, each part in its order. */
export const inOrder = (routines: Routine[], order: Order, shown: Shown) =>
  routines.toSorted((one, other) => Number(other.pinned) - Number(one.pinned) || ORDERS[order](one, other, shown));

export interface Part {
  /** another for each: two programmes may have one name */
  key: string;
  /** null where the shelf is one list */
  name: string | null;
  routines: Routine[];
}

/** A part for each programme in its running order, or each tag; whatever belongs to several stands in each, the rest last. */
export function partsOf(routines: Routine[], grouping: Grouping, programmes: Programme[]): Part[] {
  if (grouping === 'in one list') return [{ key: '', name: null, routines }];
  const parts: Part[] =
    grouping === 'by tag'
      ? [...new Set(routines.flatMap((one) => one.tags))]
          .sort((one, other) => one.localeCompare(other))
          .map((tag) => ({ key: tag, name: tag, routines: routines.filter((one) => one.tags.includes(tag)) }))
      : programmes.map(({ uid, occasion }) => ({
          key: uid,
          name: occasion.title || 'A programme without a name',
          routines: [...new Set(occasion.routines)].flatMap((uid) => routines.find((one) => one.uid === uid) ?? []),
        }));
  const placed = new Set(parts.flatMap((part) => part.routines));
  const rest = { key: '', name: grouping === 'by tag' ? 'Without a tag' : 'In no programme', routines: routines.filter((one) => !placed.has(one)) };
  return [...parts, rest].filter((part) => part.routines.length > 0);
}

/** The first rows of it all, as many as are drawn. */
export function firstOf(parts: Part[], many: number): Part[] {
  let left = many;
  return parts.flatMap((part) => {
    const routines = part.routines.slice(0, Math.max(0, left));
    left -= part.routines.length;
    return routines.length ? [{ ...part, routines }] : [];
  });
}
