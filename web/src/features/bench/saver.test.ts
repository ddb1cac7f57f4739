import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { ApiError, type Routine } from '../../api/client';
import { readDraft, writeDraft } from './drafts';
import { DELAY, RETRY, Saver } from './saver';

const kept = new Map<string, string>();
let full = false;

beforeEach(() => {
  kept.clear();
  full = false;
  vi.useFakeTimers();
  vi.stubGlobal('localStorage', {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => {
      if (full) throw new Error('full');
      kept.set(name, value);
    },
    removeItem: (name: string) => kept.delete(name),
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const routine = (text: string, revision = 1, shelf = 'a'): Routine => ({
  id: 1,
  uid: 'u',
  shelf,
  text,
  revision,
  title: '',
  note: null,
  badges: [],
  pinned: false,
  put_away: false,
  tags: [],
  created_at: '',
  changed_at: '',
});

/** A shelf that takes what is saved, or refuses as it is told. */
function shelf() {
  const it = {
    now: routine('one'),
    refuses: null as Error | null,
    save: async (_: number, text: string, revision: number): Promise<Routine> => {
      if (it.refuses) throw it.refuses;
      if (revision !== it.now.revision) throw new ApiError(409, { current: it.now });
      it.now = routine(text, revision + 1);
      return it.now;
    },
  };
  return it;
}

test('saved is said when the shelf has acknowledged exactly this text', async () => {
  const it = shelf();
  const saver = new Saver(it.now, it.save);
  saver.change('two');
  expect(saver.now()).toMatchObject({ state: 'saving', drafted: true });
  expect(readDraft(it.now)).toMatchObject({ text: 'two', revision: 1 });
  await vi.advanceTimersByTimeAsync(DELAY);
  expect([saver.now().state, it.now.text, readDraft(it.now)]).toEqual(['saved', 'two', null]);
  saver.change('three');
  saver.change('two');
  expect(saver.now().state).toBe('saved');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect(it.now.revision).toBe(2);
});

test('with full storage it is saved all the same, and it is told that nothing is kept here', async () => {
  const it = shelf();
  const saver = new Saver(it.now, it.save);
  full = true;
  it.refuses = new ApiError(507, { message: 'The disk is full.', saved: 'This change was not saved.', remedy: 'Make room.' });
  saver.change('two');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect(saver.now()).toMatchObject({ state: 'trouble', drafted: false, trouble: 'The disk is full. This change was not saved. Make room.' });
  it.refuses = null;
  await vi.advanceTimersByTimeAsync(RETRY);
  expect([saver.now().state, it.now.text]).toEqual(['saved', 'two']);
});

test('a draft on the newest text goes on, one that is stale or of another shelf does not', async () => {
  const it = shelf();
  writeDraft(it.now, { id: 1, text: 'left', revision: 1, at: '' });
  const goes = new Saver(it.now, it.save);
  expect(goes.opening).toBe('left');
  goes.begin();
  await vi.advanceTimersByTimeAsync(DELAY);
  expect(it.now.text).toBe('left');

  writeDraft(it.now, { id: 1, text: 'stale', revision: 1, at: '' });
  const asks = new Saver(it.now, it.save);
  expect([asks.opening, asks.now().state, asks.now().conflict?.mine]).toEqual(['left', 'conflict', 'stale']);
  asks.begin();
  await vi.advanceTimersByTimeAsync(DELAY);
  expect([it.now.text, readDraft(it.now)?.text]).toEqual(['left', 'stale']);
  asks.change('typed beside it');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect([it.now.text, readDraft(it.now)?.text]).toEqual(['typed beside it', 'stale']);
  expect(asks.keepMine()).toBe('stale');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect([it.now.text, asks.now().state, readDraft(it.now)]).toEqual(['stale', 'saved', null]);

  writeDraft(it.now, { id: 1, text: 'of a', revision: it.now.revision, at: '' });
  expect(new Saver(routine('other shelf', it.now.revision, 'b'), it.save).opening).toBe('other shelf');
});

test('a change elsewhere meets what was typed here, and both are there', async () => {
  const it = shelf();
  const saver = new Saver(it.now, it.save);
  it.now = routine('elsewhere', 5);
  saver.change('here');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect(saver.now()).toMatchObject({ state: 'conflict', conflict: { mine: 'here', other: { text: 'elsewhere' }, from: 'window' } });
  saver.change('here and on');
  await vi.advanceTimersByTimeAsync(RETRY);
  expect(it.now.text).toBe('elsewhere');
  expect(saver.keepMine()).toBe('here and on');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect([it.now.text, saver.now().state]).toEqual(['here and on', 'saved']);
});

test('an answer that was lost on its way is no conflict', async () => {
  const it = shelf();
  const saver = new Saver(it.now, it.save);
  const save = it.save;
  it.save = vi.fn(save);
  await it.save(1, 'two', 1);
  saver.change('two');
  await vi.advanceTimersByTimeAsync(DELAY);
  expect(saver.now()).toMatchObject({ state: 'saved', conflict: null });
});

test('what another window saved is taken over only where nothing was typed', () => {
  const it = shelf();
  const saver = new Saver(it.now, it.save);
  expect(saver.heard(routine('theirs', 3), 1)).toBe('theirs');
  expect(saver.heard(routine('theirs', 3), 1)).toBeNull();
  saver.change('mine');
  expect(saver.heard(routine('theirs again', 4), 3)).toBeNull();
  expect(saver.now().state).toBe('conflict');
});
