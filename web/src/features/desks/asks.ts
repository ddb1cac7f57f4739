/** What is asked at a desk, as it stands in the address: only what differs from how the desk opens. */

export type Asked = Record<string, unknown>;

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

export function toAddress(asks: Asked, opening: Asked): string {
  return JSON.stringify(Object.fromEntries(Object.entries(asks).filter(([field, value]) => !same(value, opening[field]))));
}

/** An address that someone wrote by hand is taken as far as it goes: unknown fields and other types are left out. */
export function fromAddress<A extends object>(address: string | null, opening: A): A {
  let given: unknown = null;
  try {
    given = JSON.parse(address ?? '{}');
  } catch {
    return opening;
  }
  if (typeof given !== 'object' || given === null) return opening;
  const begun = opening as Asked;
  const fits = Object.entries(given as Asked).filter(([field, value]) => field in begun && alike(value, begun[field]));
  return { ...opening, ...Object.fromEntries(fits) };
}

function alike(value: unknown, like: unknown): boolean {
  if (Array.isArray(like)) return Array.isArray(value) && value.every((one) => typeof one === 'string' || typeof one === 'number');
  return typeof value === typeof like && !Array.isArray(value);
}

/** `11, 12` or `11 to 14` as numbers; what is no number is left out. */
export function numbers(words: string): number[] {
  return [...words.matchAll(/(\d+)(?:\s*(?:to|–|-)\s*(\d+))?/g)].flatMap(([, first, last]) => {
    const low = Number(first);
    const run = last === undefined ? 1 : Math.min(200, Number(last) - low + 1);
    return Array.from({ length: Math.max(1, run) }, (_, i) => low + i);
  });
}

/** One a line; empty ones between others stay, so that typing goes on. */
export function lines(text: string): string[] {
  return text === '' ? [] : text.split('\n');
}
