import type { Frame } from '../../api/client';

/** Where every heap and card edge is drawn; one unit is a pixel of the picture's own size. */
export interface Heap {
  name: string;
  x: number;
  cards: number[];
}

export interface Layout {
  heaps: Heap[];
  width: number;
  height: number;
  top: number;
  /** distance from one card edge to the next */
  pitch: number;
  edge: number;
  /** centre of the y of the card at an index from 0 */
  y: (index: number) => number;
}

export const FACE_UP = 128;
export const cardId = (card: number) => card % FACE_UP;

const TOP = 14;
const FOOT = 44;

/**
 * Lay the heaps of a frame side by side. Columns are those of the whole play, so that nothing jumps while
 * stepping, and so is the pitch: the deepest heap of all frames fits.
 */
export function layOut(frames: Frame[], frame: Frame, width: number, height: number): Layout {
  const used = frame.places.filter((_, i) => frames.some((other) => (other.places[i]?.cards.length ?? 0) > 0));
  const deepest = Math.max(1, ...frames.flatMap((other) => other.places.map((place) => place.cards.length)));
  const column = width / Math.max(1, used.length);
  const pitch = Math.min(12, (height - TOP - FOOT) / deepest);
  const edge = Math.min(118, column * 0.42);
  return {
    heaps: used.map((place, i) => ({ name: place.name, cards: place.cards, x: column * i + column * 0.44 - edge / 2 })),
    width,
    height,
    top: TOP,
    pitch,
    edge,
    y: (index) => TOP + index * pitch,
  };
}

export function ordinal(n: number): string {
  const tail = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${tail}`;
}

/** The table in words, for those who do not see it. */
export function tableInWords(frame: Frame, names: Record<string, string>): string {
  return frame.places
    .filter((place) => place.cards.length > 0)
    .map((place) => {
      const known = place.cards.flatMap((card, i) => {
        const name = names[String(cardId(card))];
        return name ? [`${name} ${ordinal(i + 1)}${card >= FACE_UP ? ', face up' : ''}`] : [];
      });
      const up = place.cards.filter((card) => card >= FACE_UP).length;
      return [`${place.name}: ${place.cards.length} cards`, up ? `${up} face up` : '', ...known].filter(Boolean).join(', ');
    })
    .join('; ');
}
