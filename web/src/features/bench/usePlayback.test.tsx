// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import type { Play } from '../../api/client';
import { usePlayback } from './usePlayback';

vi.stubGlobal('matchMedia', () => ({ matches: true, addEventListener: vi.fn(), removeEventListener: vi.fn() }));

/** A path that comes to these lines. */
const path = (...lines: number[]) => ({ frames: lines.map((line) => ({ line })) }) as unknown as Play;

test('a line that was gone to is shown on the path that comes after, wherever it is done there', () => {
  const { result, rerender } = renderHook(({ play }) => usePlayback(play), { initialProps: { play: path(0, 1, 2) } });
  expect(result.current.index).toBe(2);
  act(() => result.current.goToLine(2));
  rerender({ play: path(0, 1, 2, 2, 2, 3) });
  expect(result.current.index).toBe(4);
  act(() => result.current.step(1));
  expect(result.current.index).toBe(5);
  rerender({ play: path(0, 1) });
  expect(result.current.index).toBe(1);
  act(() => result.current.goToLine(0));
  expect(result.current.index).toBe(0);
});
