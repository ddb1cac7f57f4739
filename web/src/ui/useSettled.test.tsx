// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { useSettled } from './useSettled';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const pass = (ms: number) => act(() => void vi.advanceTimersByTime(ms));

test('a change after a pause counts with the change itself, a run of them when it has ended', () => {
  const { result, rerender } = renderHook(({ text }) => useSettled(text, 60), { initialProps: { text: '' } });
  pass(100);
  rerender({ text: 'a' });
  expect(result.current).toBe('a');
  for (const text of ['ab', 'abc', 'abcd']) {
    pass(30);
    rerender({ text });
  }
  pass(59);
  expect(result.current).toBe('a');
  pass(1);
  expect(result.current).toBe('abcd');
});
