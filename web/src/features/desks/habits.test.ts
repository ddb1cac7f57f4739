import { expect, it } from 'vitest';
import { habitOf, habitText, withHabit, type Habit } from './habits';

const HABITS: Habit[] = [
  { kind: 'evenly', low: 0, high: 39, seen: '' },
  { kind: 'about the middle', low: 5, high: 40, seen: '' },
];

it('reads a habit as it is written', () => {
  for (const habit of HABITS) expect(habitOf([habitText('n', habit)], 'n')).toEqual(habit);
  expect(habitOf(['n: as recorded 18, 20'], 'n')).toMatchObject({ kind: 'as recorded', seen: '18, 20' });
  expect(habitOf(['m: evenly from 1 to 2'], 'n')).toBeNull();
});

it('changes one habit and leaves the others', () => {
  const [even, middle] = HABITS as [Habit, Habit];
  const before = ['a: evenly from 1 to 2', habitText('n', even)];
  expect(withHabit(before, 'n', middle)).toEqual(['a: evenly from 1 to 2', 'n: about the middle from 5 to 40']);
  expect(withHabit(before, 'n', null)).toEqual(['a: evenly from 1 to 2']);
});
