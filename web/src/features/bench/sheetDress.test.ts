// @vitest-environment jsdom
import { EditorView } from '@codemirror/view';
import { expect, test } from 'vitest';
import type { SheetLine } from '../../api/client';
import { dressing, nextSlot, setDress, type Dress } from './sheetDress';

const TEXT = 'Title: One\nSpectator secretly names a number n from ? to 9\nDael 3';

function line(number: number, more: Partial<SheetLine> = {}): SheetLine {
  return { number, what: 'step', step: null, phase: 'handling', spectator: false, knowledge: null, level: 0, slots: [], faults: [], ...more };
}

const DRESS: Dress = {
  text: TEXT,
  lines: [
    line(1, { step: 'title', slots: [{ name: 'title', type: 'text', start: 7, end: 10 }] }),
    line(2, { spectator: true, knowledge: 'secret', slots: [{ name: 'number', type: 'range', start: 34, end: 47 }] }),
    line(3, { what: 'unread' }),
  ],
  ledger: [
    { line: 2, round: [1], text: 'n', sure: false, where: [] },
    { line: 2, round: [2], text: '7', sure: true, where: [] },
  ],
  faults: [{ line: 3, column: 1, end: 5, message: '“Dael” is no verb.', expected: 'a sentence', remedy: 'Did you mean Deal?' }],
  shown: { current: 2, failing: 0 },
  shows: [{ line: 2, what: 'KEY' }],
  slips: { strict: [2], free: [3] },
};

function sheet(dress: Dress = DRESS, doc = TEXT) {
  const view = new EditorView({ doc, extensions: [dressing], parent: document.body });
  view.dispatch({ effects: setDress.of(dress) });
  return view;
}

const all = (view: EditorView, selector: string) => [...view.dom.querySelectorAll(selector)].map((found) => found.textContent);

test('each line wears what it is, who acts, what is secret and what a slip does', () => {
  const view = sheet();
  const [title, names, unread] = [...view.dom.querySelectorAll('.gp-line')].map((found) => found.className) as [string, string, string];
  expect(title).toContain('gp-title');
  expect(names).toContain('gp-spectator');
  expect(names).toContain('gp-current');
  expect(unread).toContain('gp-is-unread');
  expect(view.dom.querySelector('.gp-knowledge')?.getAttribute('aria-label')).toBe('secret');
  expect(all(view, '.gp-blank')).toEqual(['n from ? to 9']);
  expect(all(view, '.gp-shows')).toEqual(['KEY shows']);
  expect(all(view, '.gp-handling')).toEqual(['strict', 'free']);
});

test('a fault is marked where it is, and told below its line', () => {
  const view = sheet();
  expect(all(view, '.gp-fault')).toEqual(['Dael']);
  expect(all(view, '.gp-fault-note')).toEqual(['“Dael” is no verb. Expected a sentence. Did you mean Deal?']);
});

test('the line at which a path fails is marked before the one that is shown', () => {
  expect(sheet({ ...DRESS, shown: { current: 2, failing: 2 } }).dom.querySelector('.gp-failing')?.className).not.toContain('gp-current');
});

test('an answer about an older text dresses nothing', () => {
  expect(sheet(DRESS, 'Title: Two').dom.querySelectorAll('.gp-line')).toHaveLength(0);
});

test('what it wears moves along while one writes above it', () => {
  const view = sheet();
  view.dispatch({ changes: { from: 0, insert: '# first\n' } });
  expect(all(view, '.gp-fault')).toEqual(['Dael']);
});

test('what is not known yet of a new text stays as it was, and moves along', () => {
  const view = sheet();
  const worn = () => [all(view, '.gp-spectator'), all(view, '.gp-at'), all(view, '.gp-shows'), all(view, '.gp-current')];
  const before = worn();
  view.dispatch({ changes: { from: 10, insert: ' more\n# remark' } });
  const text = view.state.doc.toString();
  view.dispatch({ effects: setDress.of({ text, lines: null, ledger: null, faults: null, shown: null, shows: null, slips: null }) });
  expect(worn()).toEqual(before);
  expect(nextSlot(view.state, 20)?.from).toBe(text.indexOf('n from ?'));
  view.dispatch({ effects: setDress.of({ ...DRESS, text, lines: [], ledger: [], shows: [] }) });
  expect(worn().slice(0, 3)).toEqual([[], [], []]);
});

test('from gap to gap, and round to the first', () => {
  const { state } = sheet();
  const second = TEXT.indexOf('n from ?');
  expect(nextSlot(state, 0)).toEqual({ from: 7, to: 10 });
  expect(nextSlot(state, 8)).toEqual({ from: second, to: second + 13 });
  expect(nextSlot(state, second)).toEqual({ from: 7, to: 10 });
});
