import type { Frame, Strands } from '../../api/client';

export interface Spot {
  place: string;
  position: number;
}

/** A column of the picture: the first is where the card begins, each further one a line or a time round. */
export interface ColumnPlace {
  line: number;
  last: number;
  turn: number | null;
  label: string;
  x: number;
}

export interface Axis {
  columns: ColumnPlace[];
  /** the places the card visits, with the deepest position in each */
  bands: { place: string; size: number; top: number; height: number }[];
  y: (spot: Spot) => number;
}

const LEFT = 62;
const RIGHT = 56;
const TOP = 30;
const GAP = 16;

const key = (spot: Spot) => `${spot.place} ${spot.position}`;

/** Every spot of a column: those its edges lead to, or for the first those where the card begins. */
export function spotsOf(strands: Strands, index: number): Spot[] {
  const found = new Map<string, Spot>();
  const column = strands.columns[index - 1];
  for (const spot of index === 0 ? strands.beginning.where : (column?.edges ?? []).map((edge) => edge.to)) {
    if (spot) found.set(key(spot), spot);
  }
  return [...found.values()];
}

/** Steps across, positions down; one band for each place, in the order in which the card comes there. */
export function axisOf(strands: Strands, width: number, height: number): Axis {
  const sizes = new Map<string, number>();
  for (let i = 0; i <= strands.columns.length; i++) {
    for (const { place, position } of spotsOf(strands, i)) sizes.set(place, Math.max(sizes.get(place) ?? 1, position));
  }
  const total = [...sizes.values()].reduce((sum, size) => sum + size, 0);
  const room = height - TOP - 14 - GAP * (sizes.size - 1);
  let top = TOP;
  const bands = [...sizes].map(([place, size]) => {
    // A place with one position still wants a line of its own.
    const share = (room * (size + 1)) / (total + sizes.size);
    const band = { place, size, top, height: share };
    top += share + GAP;
    return band;
  });
  const steps = strands.columns.length;
  const { beginning } = strands;
  const across = (i: number) => LEFT + ((width - LEFT - RIGHT) * i) / Math.max(1, steps);
  const columns = [
    { line: beginning.line, last: beginning.last, turn: beginning.turn, label: beginning.line ? `line ${beginning.line}` : 'set-up', x: across(0) },
    ...strands.columns.map((column, i) => ({
      line: column.line,
      last: column.last,
      turn: column.turn,
      label: column.turn === null ? `line ${column.line}` : `time ${column.turn}`,
      x: across(i + 1),
    })),
  ];
  const byPlace = new Map(bands.map((band) => [band.place, band]));
  return {
    columns,
    bands,
    y: ({ place, position }) => {
      const band = byPlace.get(place);
      return band ? band.top + (band.height * (position - 0.5)) / band.size : TOP;
    },
  };
}

/** Whether a moment of the path belongs to a column. */
export const belongs = (column: ColumnPlace, frame: Frame) =>
  column.line === 0 ? frame.line === 0 : frame.line >= column.line && frame.line <= column.last && (column.turn === null || frame.round[0] === column.turn);

/** Where the card is at each column on the path that is played; null where the path never comes, as it gets stuck at a line before. */
export function pathAcross(axis: Axis, frames: Frame[], stuckAt: number | null): (Spot | null)[] {
  const last = columnOf(axis, frames, frames.length - 1);
  let before: Spot | null = null;
  return axis.columns.map((column, i) => {
    const isBehind = stuckAt !== null && i >= last && column.last >= stuckAt;
    if (isBehind) return null;
    const frame = frames.findLast((moment) => belongs(column, moment));
    before = frame?.at ?? before;
    return before;
  });
}

/** The column a moment stands in, or the last one before it. */
export function columnOf(axis: Axis, frames: Frame[], index: number): number {
  for (let i = index; i >= 0; i--) {
    const frame = frames[i];
    const found = frame ? axis.columns.findIndex((column) => belongs(column, frame)) : -1;
    if (found >= 0) return found;
  }
  return 0;
}

/** Positions as sets and ranges: `deck 1 to 3, 7`. */
export function spotsInWords(spots: Spot[]): string {
  const byPlace = new Map<string, number[]>();
  for (const { place, position } of spots) byPlace.set(place, [...(byPlace.get(place) ?? []), position]);
  return [...byPlace]
    .map(([place, positions]) => {
      const runs: [number, number][] = [];
      for (const at of positions.sort((a, b) => a - b)) {
        const run = runs[runs.length - 1];
        if (run && run[1] === at - 1) run[1] = at;
        else runs.push([at, at]);
      }
      return `${place} ${runs.map(([a, b]) => (a === b ? a : `${a} to ${b}`)).join(', ')}`;
    })
    .join('; ');
}
