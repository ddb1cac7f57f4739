import { EditorState, type StateCommand } from '@codemirror/state';
import { expect, test } from 'vitest';
import { duplicateBlock, moveBlock } from './sheetBlocks';

/** The lines after the command, with | where the cursor stands; null where it does nothing. */
function after(command: StateCommand, marked: string): string | null {
  const head = marked.indexOf('|');
  let state = EditorState.create({ doc: marked.replace('|', ''), selection: { anchor: head } });
  const done = command({ state, dispatch: (update) => (state = update.state) });
  if (!done) return null;
  const text = state.doc.toString();
  const at = state.selection.main.head;
  return `${text.slice(0, at)}|${text.slice(at)}`;
}

const [down, up] = [moveBlock(1), moveBlock(-1)];

test('a block moves over a line, and a line over a block, and back', () => {
  const low = 'Rep|eat:\n  Cut\n    deeper\n\n  Deal\nCount\nEnd';
  const moved = 'Count\nRep|eat:\n  Cut\n    deeper\n\n  Deal\nEnd';
  expect(after(down, low)).toBe(moved);
  expect(after(up, moved)).toBe(low);
  expect(after(down, 'Co|unt\nRepeat:\n  Cut\nEnd')).toBe('Repeat:\n  Cut\nCo|unt\nEnd');
  expect(after(up, 'Repeat:\n  Cut\n  Deal\nC|ount')).toBe('C|ount\nRepeat:\n  Cut\n  Deal');
  expect(after(up, 'Repeat:\n  Cut\n\n  Deal\nC|ount')).toBe('C|ount\nRepeat:\n  Cut\n\n  Deal');
});

test('a block moves over a block; over an empty line; not out of the block it is in, nor off the sheet', () => {
  expect(after(down, '|If:\n  Cut\nElse:\n  Deal\n  Count')).toBe('Else:\n  Deal\n  Count\n|If:\n  Cut');
  expect(after(down, '|If:\n  Cut\n\nEnd')).toBe('\n|If:\n  Cut\nEnd');
  expect(after(up, 'End\n\n|If:\n  Cut')).toBe('End\n|If:\n  Cut\n');
  expect(after(down, 'Repeat:\n  |If:\n    Cut\nEnd')).toBeNull();
  expect(after(up, 'Repeat:\n  |If:\n    Cut\nEnd')).toBeNull();
  expect(after(up, '|If:\n  Cut')).toBeNull();
  expect(after(down, 'End\n|If:\n  Cut')).toBeNull();
});

test('two lines are left to the editor’s own way of moving', () => {
  expect(after(down, '|Cut\nDeal')).toBeNull();
});

test('a line is duplicated with its block', () => {
  expect(after(duplicateBlock, 'Repeat:\n  I|f:\n    Cut\n  Deal')).toBe('Repeat:\n  If:\n    Cut\n  I|f:\n    Cut\n  Deal');
  expect(after(duplicateBlock, 'C|ut\nDeal')).toBe('Cut\nC|ut\nDeal');
});
