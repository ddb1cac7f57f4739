import type { SheetLine } from '../../api/client';

/** What is said at a line: the patter below it, with the numbers that were named filled in, such as {n}. */
export function spoken(text: string, lines: SheetLine[], line: number, numbers: Record<string, number>): string[] {
  const rows = text.split('\n');
  const found: string[] = [];
  for (let next = line + 1; lines[next - 1]?.what === 'patter'; next++) {
    const words = (rows[next - 1] ?? '').trim().replace(/\s*\(untrue\)$/, '');
    const bare = words.replace(/^[“"„«]/, '').replace(/[”"“»]$/, '');
    found.push(bare.replace(/\{([^{}]*)\}/g, (field, name: string) => (name in numbers ? String(numbers[name]) : field)));
  }
  return found;
}
