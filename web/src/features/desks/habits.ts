/** How a number is chosen, as one line: `n: about the middle from 0 to 40`. The server reads the line. */
export interface Habit {
  kind: 'evenly' | 'about the middle' | 'as recorded';
  low: number;
  high: number;
  seen: string;
}

export function habitText(name: string, habit: Habit): string {
  return habit.kind === 'as recorded' ? `${name}: as recorded ${habit.seen}` : `${name}: ${habit.kind} from ${habit.low} to ${habit.high}`;
}

export function habitOf(habits: string[], name: string): Habit | null {
  const line = habits.find((one) => one.slice(0, one.lastIndexOf(':')).trim() === name);
  if (line === undefined) return null;
  const words = line.slice(line.lastIndexOf(':') + 1).trim();
  const recorded = /^as recorded\s*(.*)$/.exec(words);
  if (recorded) return { kind: 'as recorded', low: 0, high: 51, seen: recorded[1] ?? '' };
  const range = /^(evenly|about the middle) from (\d+) to (\d+)$/.exec(words);
  return range ? { kind: range[1] as Habit['kind'], low: Number(range[2]), high: Number(range[3]), seen: '' } : null;
}

export function withHabit(habits: string[], name: string, habit: Habit | null): string[] {
  const others = habits.filter((one) => one.slice(0, one.lastIndexOf(':')).trim() !== name);
  return habit ? [...others, habitText(name, habit)] : others;
}
