import type { Frame } from '../../api/client';

/** Where every place and card edge is drawn; one unit is a pixel of the picture's own size. */
export interface Heap {
  name: string;
  x: number;
  cards: number[];
}

/** Cards that lie beside each other: where each of them does is told with the play. */
export interface Laid {
  name: string;
  /** left edge of its name */
  x: number;
  /** top of the cards */
  y: number;
  cards: number[];
  /** (cards to the left, rows above) of each */
  spots: [number, number][];
  /** distance from one card to the next, and from one row to the next */
  pitch: number;
  step: number;
}

export interface Layout {
  heaps: Heap[];
  laid: Laid[];
  width: number;
  height: number;
  /** the height it takes with everything as close together as it may lie */
  needs: number;
  top: number;
  /** distance from one card edge to the next */
  pitch: number;
  edge: number;
  /** whether names find room beside a heap; else they stand under it */
  roomy: boolean;
  /** y of the card edge at an index from 0 */
  y: (index: number) => number;
}

export const FACE_UP = 128;
export const cardId = (card: number) => card % FACE_UP;

const TOP = 14;
const FOOT = 46;
const ROW = 70;
/** a row of cards with its numbers takes at least this */
const LEAST_ROW = 68;
/** two card edges closer than this are one */
const LEAST_PITCH = 2;
/** further apart they are no heap any more */
const MOST_PITCH = 18;
/** width of a letter of a name beside a heap, about */
const LETTER = 7.6;
export const ROW_LEFT = 70;
export const CARD_HEIGHT = 34;

/**
 * Lay the places of a frame out: heaps side by side, what is laid out below them. Columns are those of the whole play, so
 * that nothing jumps while stepping, and so is the pitch: the deepest heap of all frames fits.
 */
export function layOut(frames: Frame[], frame: Frame, width: number, height: number): Layout {
  const used = frame.places.filter((_, i) => frames.some((other) => (other.places[i]?.cards.length ?? 0) > 0));
  const laidOut = (place: Frame['places'][number]) => frames.some((other) => other.places.some((one) => one.name === place.name && one.spots.length > 0));
  const heaps = used.filter((place) => !laidOut(place));
  const laid = used.filter(laidOut);
  const spots = (name: string) => frames.flatMap((other) => other.places.filter((place) => place.name === name).flatMap((place) => place.spots));
  const rowsOf = (name: string) => 1 + Math.max(0, ...spots(name).map(([, down]) => down));
  const column = width / Math.max(1, heaps.length);
  const longestName = Math.max(0, ...frames.flatMap((other) => Object.values(other.names).map((name) => name.length)));
  const beside = column * 0.62 - Math.min(118, column * 0.4) / 2 - 18;
  const roomy = column >= 150 && beside >= (longestName + 5) * LETTER;
  const lines = Math.max(1, ...frames.flatMap((other) => other.places.map((place) => captions(place.cards, other.names).length)));
  const foot = FOOT + (roomy ? 0 : (lines - 1) * CAPTION);
  const longest = Math.max(1, ...laid.flatMap((place) => spots(place.name).map(([left]) => left + 1)));
  // Short rows lie beside each other where they would not all fit below each other.
  const abreast = Math.max(1, Math.floor(width / (ROW_LEFT + longest * 32 + 30)));
  const allRows = laid.reduce((sum, place) => sum + rowsOf(place.name), 0);
  const across = allRows * LEAST_ROW > height * 0.5 ? Math.min(abreast, laid.length) : 1;
  const columns: { place: (typeof laid)[number]; column: number; above: number }[] = [];
  for (const place of laid) {
    const before = columns.at(-1);
    const behind = before ? before.above + rowsOf(before.place.name) : 0;
    const full = before !== undefined && behind + rowsOf(place.name) > Math.ceil(allRows / across);
    columns.push({ place, column: (before?.column ?? 0) + (full ? 1 : 0), above: full ? 0 : behind });
  }
  const abreastNow = Math.max(1, ...columns.map((one) => one.column + 1));
  const lying = Math.max(0, ...columns.map((one) => one.above + rowsOf(one.place.name)));
  // Rows give way to heaps down to what they need; what does not fit then makes the picture longer, never a heap negative.
  const deepest = Math.max(1, ...frames.flatMap((other) => other.places.filter((place) => !laidOut(place)).map((place) => place.cards.length)));
  const step = Math.max(LEAST_ROW, Math.min(ROW, (height * 0.5) / Math.max(1, lying)));
  const forLeastHeaps = heaps.length ? TOP + foot + LEAST_PITCH * deepest : 0;
  const whole = Math.max(height, lying * step + forLeastHeaps);
  const forHeaps = whole - lying * step;
  const pitch = Math.min(MOST_PITCH, (forHeaps - TOP - foot) / deepest);
  const edge = Math.min(118, roomy ? column * 0.4 : column * 0.62);
  return {
    heaps: heaps.map((place, i) => ({
      name: place.name,
      cards: place.cards,
      x: column * i + (roomy ? column * 0.38 - edge / 2 : (column - edge) / 2 + 8),
    })),
    laid: columns.map(({ place, column, above }) => ({
      name: place.name,
      cards: place.cards,
      spots: place.spots,
      x: column * (width / abreastNow),
      y: forHeaps + above * step + 16,
      pitch: Math.min(32, (width / abreastNow - ROW_LEFT - 30) / longest),
      step,
    })),
    width,
    height: whole,
    needs: lying * LEAST_ROW + forLeastHeaps,
    top: TOP,
    pitch,
    edge,
    roomy,
    y: (index) => TOP + index * pitch,
  };
}

export function ordinal(n: number): string {
  const tail = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${tail}`;
}

/** height of a line below a heap */
export const CAPTION = 13;

/** The cards of a heap that have a name, for below it: one a line, as many as there is room for. */
export function captions(cards: number[], names: Record<string, string>): string[] {
  const known = namedIn(cards, names);
  return known.length > 3 ? [...known.slice(0, 2), `and ${known.length - 2} more`] : known;
}

/** The cards of a place that have a name, as `FORCE 3rd`. */
export function namedIn(cards: number[], names: Record<string, string>): string[] {
  return cards.flatMap((card, i) => {
    const name = names[String(cardId(card))];
    return name ? [`${name} ${ordinal(i + 1)}${card >= FACE_UP ? ', face up' : ''}`] : [];
  });
}

/** The cards that came to another place since the moment before, or were turned there. */
export function moved(frame: Frame, before: Frame | undefined): Set<number> {
  if (!before) return new Set();
  const lay = new Map(before.places.flatMap((place) => place.cards.map((card) => [cardId(card), `${place.name} ${card >= FACE_UP}`] as const)));
  const came = frame.places.flatMap((place) => place.cards.filter((card) => lay.get(cardId(card)) !== `${place.name} ${card >= FACE_UP}`));
  return new Set(came.map(cardId));
}

/** The table in words, for those who do not see it. */
export function tableInWords(frame: Frame): string {
  return frame.places
    .filter((place) => place.cards.length > 0)
    .map((place) => {
      const up = place.cards.filter((card) => card >= FACE_UP).length;
      const known = namedIn(place.cards, frame.names);
      return [`${place.name}: ${place.cards.length} cards${place.spots.length ? ` ${place.lies}` : ''}`, up ? `${up} face up` : '', ...known]
        .filter(Boolean)
        .join(', ');
    })
    .join('; ');
}
