// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { ApiError, api, type Routine } from '../../api/client';
import { writeDraft } from './drafts';
import { useAutosave } from './useAutosave';

vi.mock('@mantine/notifications', () => ({ notifications: { show: vi.fn() } }));

const opened: Routine = {
  id: 7, uid: 'u', shelf: 'a', text: 'one', revision: 1, title: '', note: null, badges: [], pinned: false, put_away: false, tags: [], created_at: '', changed_at: '',
}; // prettier-ignore

/** What the shelf has now. */
let shelf: Routine;

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  shelf = opened;
  vi.spyOn(api, 'save').mockImplementation(async (_, text, revision) => {
    if (revision !== shelf.revision) throw new ApiError(409, { current: shelf });
    return (shelf = { ...shelf, text, revision: revision + 1 });
  });
  vi.spyOn(api, 'revision').mockImplementation(async () => ({ revision: shelf.revision }));
  vi.spyOn(api, 'routine').mockImplementation(async () => shelf);
  vi.spyOn(api, 'keepVersion').mockResolvedValue({ number: 1, name: '', reason: '', text: '', created_at: '' });
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

function autosave(of: Routine = opened) {
  const replace = vi.fn();
  return { replace, ...renderHook(() => useAutosave(of, replace)) };
}

const pass = (milliseconds: number) => act(() => vi.advanceTimersByTimeAsync(milliseconds));

test('what is written is on the shelf a moment later, and leaving before is asked about only without a draft', async () => {
  const { result } = autosave();
  act(() => result.current.change('two'));
  expect(result.current.now.state).toBe('saving');
  await pass(3000);
  expect(shelf.text).toBe('two');
  expect(result.current.now.state).toBe('saved');
});

test('a text from another window takes the place of one that was not touched', async () => {
  const { result, replace } = autosave();
  shelf = { ...shelf, text: 'theirs', revision: 2 };
  await pass(10_000);
  expect(replace).toHaveBeenCalledWith('theirs');
  expect(result.current.now.conflict).toBeNull();
});

test('what the shelf had before the last save is no text from another window, however late it comes', async () => {
  const { result, replace } = autosave();
  let release = () => {};
  vi.mocked(api.routine).mockImplementation(() => {
    const then = { ...shelf, text: 'two', revision: 2 };
    return new Promise((answer) => (release = () => answer(then)));
  });
  vi.mocked(api.revision).mockResolvedValue({ revision: 2 });
  await pass(2000); // asks, and the answer is long on its way
  act(() => result.current.change('two'));
  await pass(400);
  act(() => result.current.change('two and more'));
  await pass(400);
  expect(shelf.text).toBe('two and more');
  release();
  await pass(0);
  expect(replace).not.toHaveBeenCalled();
  expect(result.current.now.conflict).toBeNull();
});

test('a routine that was taken off the shelf is told', async () => {
  vi.mocked(api.revision).mockRejectedValue(new ApiError(404, {}));
  const { result } = autosave();
  await pass(10_000);
  expect(result.current.gone).toBe(true);
});

test('of two texts both are kept: mine goes on and the other becomes a version', async () => {
  const { result } = autosave();
  shelf = { ...shelf, text: 'theirs', revision: 2 };
  act(() => result.current.change('mine'));
  await pass(3000);
  expect(result.current.now.conflict).toMatchObject({ from: 'window', mine: 'mine' });
  await act(async () => {
    const kept = result.current.keepMine();
    await vi.advanceTimersByTimeAsync(3000);
    await kept;
  });
  expect(api.keepVersion).toHaveBeenCalledWith(7, 'from the other window', '', 'theirs');
  await pass(3000);
  expect(shelf.text).toBe('mine');
});

test('or theirs goes on and mine becomes a version', async () => {
  const { result, replace } = autosave();
  shelf = { ...shelf, text: 'theirs', revision: 2 };
  act(() => result.current.change('mine'));
  await pass(3000);
  await act(() => result.current.takeOther());
  expect(api.keepVersion).toHaveBeenCalledWith(7, 'from this window', '', 'mine');
  expect(replace).toHaveBeenCalledWith('theirs');
});

test('a draft on a text that the shelf has changed since is shown beside it', () => {
  writeDraft(opened, { id: 7, text: 'left behind', revision: 1, at: '' });
  const { result } = autosave({ ...opened, text: 'newer', revision: 5 });
  expect(result.current.now.conflict).toMatchObject({ from: 'draft', mine: 'left behind' });
  expect(result.current.opening).toBe('newer');
});
