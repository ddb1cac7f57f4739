import type { SheetLine } from '../../api/client';

/** `3 to 20` and `3-20` are a run of numbers, `on, under` the words themselves. Empty for nothing. */
export function values(typed: string): string[] {
  const run = /^\s*(\d+)\s*(?:to|-|–|\.\.)\s*(\d+)\s*$/.exec(typed);
  if (run) {
    const [low, high] = [Number(run[1]), Number(run[2])];
    return high >= low && high - low < 5000 ? Array.from({ length: high - low + 1 }, (_, i) => String(low + i)) : [];
  }
  return typed
    .split(/[,\n;]/)
    .map((word) => word.trim())
    .filter(Boolean);
}

export interface Literal {
  line: number;
  /** columns from 0 */
  start: number;
  end: number;
  value: number;
  label: string;
}

/** The numbers written in the slots of a text, where one may stand for others. */
export function literals(text: string, lines: SheetLine[]): Literal[] {
  return inSlots(text, lines, /(?<![\w.])\d+/g).map(({ line, row, start, found }) => ({
    line,
    start,
    end: start + found.length,
    value: Number(found),
    label: `line ${line}: ${row.slice(0, start).trimStart()}[${found}]${row.slice(start + found.length)}`,
  }));
}

/** The line of each `?` of a text, in order. */
export function marks(text: string, lines: SheetLine[]): number[] {
  return inSlots(text, lines, /\?/g).map(({ line }) => line);
}

function inSlots(text: string, lines: SheetLine[], sought: RegExp) {
  const rows = text.split('\n');
  return lines.flatMap((line) => {
    const row = rows[line.number - 1] ?? '';
    return line.slots
      .filter((slot) => slot.type !== 'text')
      .flatMap((slot) =>
        [...row.slice(slot.start, slot.end).matchAll(sought)].map((match) => ({
          line: line.number,
          row,
          start: slot.start + match.index,
          found: match[0],
        })),
      );
  });
}

/** The text with a `?` in place of some of its numbers. */
export function withBlanks(text: string, chosen: Literal[]): string {
  const rows = text.split('\n');
  for (const one of chosen.toSorted((a, b) => b.start - a.start)) {
    const row = rows[one.line - 1] ?? '';
    rows[one.line - 1] = `${row.slice(0, one.start)}?${row.slice(one.end).replace(/^(st|nd|rd|th)\b/, 'th')}`;
  }
  return rows.join('\n');
}
