import { expect, test } from 'vitest';
import { Stopwatch } from './stopwatch';

test('time that is paused does not count, however often it is said', () => {
  let now = 1000;
  const watch = new Stopwatch(() => now);
  now += 1500;
  expect(watch.seconds).toBe(1.5);
  watch.pause();
  watch.pause();
  now += 60_000;
  expect(watch.seconds).toBe(1.5);
  watch.goOn();
  watch.goOn();
  now += 500;
  expect(watch.seconds).toBe(2);
  watch.restart();
  expect(watch.seconds).toBe(0);
});
