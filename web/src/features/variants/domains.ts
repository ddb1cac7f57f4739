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

/** The numbers written in a text, where one may stand for others. */
export function literals(text: string): Literal[] {
  return text.split('\n').flatMap((row, i) => {
    if (/^\s*(#|Title:|Note:|["“„])/.test(row)) return [];
    return [...row.matchAll(/(?<![\w.])\d+/g)].map((found) => ({
      line: i + 1,
      start: found.index,
      end: found.index + found[0].length,
      value: Number(found[0]),
      label: `line ${i + 1}: ${row.slice(0, found.index).trimStart()}[${found[0]}]${row.slice(found.index + found[0].length)}`,
    }));
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

/** The line of each `?` of a text, in order. */
export function marks(text: string): number[] {
  return text.split('\n').flatMap((row, i) => (/^\s*(#|Title:|Note:|["“„])/.test(row) ? [] : [...row.matchAll(/\?/g)].map(() => i + 1)));
}
