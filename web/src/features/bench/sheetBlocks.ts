import { copyLineDown } from '@codemirror/commands';
import { foldService } from '@codemirror/language';
import type { EditorState, StateCommand, Text } from '@codemirror/state';

/** A line with all that is indented deeper below it: numbers of its first and its last line. */
interface Block {
  first: number;
  last: number;
}

const isBlank = (text: string) => text.trim() === '';
const margin = (text: string) => text.length - text.trimStart().length;

function blockFrom(doc: Text, first: number): Block {
  const deep = margin(doc.line(first).text);
  let last = first;
  for (let number = first + 1; number <= doc.lines; number += 1) {
    const { text } = doc.line(number);
    if (!isBlank(text) && margin(text) <= deep) break;
    if (!isBlank(text)) last = number;
  }
  return { first, last };
}

/** The block that stands right before or behind this one, no deeper than it; null where there is none, or one steps out of a block there. */
function neighbour(doc: Text, { first, last }: Block, by: 1 | -1): Block | null {
  const deep = margin(doc.line(first).text);
  if (by === 1) {
    const next = last + 1;
    if (next > doc.lines || (!isBlank(doc.line(next).text) && margin(doc.line(next).text) !== deep)) return null;
    return isBlank(doc.line(next).text) ? { first: next, last: next } : blockFrom(doc, next);
  }
  let begin = first - 1;
  if (begin >= 1 && isBlank(doc.line(begin).text)) return { first: begin, last: begin };
  while (begin >= 1 && (isBlank(doc.line(begin).text) || margin(doc.line(begin).text) > deep)) begin -= 1;
  return begin >= 1 && margin(doc.line(begin).text) === deep ? { first: begin, last: first - 1 } : null;
}

const isIn = (state: EditorState) => {
  const { selection, doc } = state;
  const line = doc.lineAt(selection.main.head);
  return doc.lineAt(selection.main.anchor).number === line.number ? blockFrom(doc, line.number) : null;
};

/** Moves a line with its block over the next one with its own. Several selected lines, and what would step out of a block, are left to others. */
export const moveBlock =
  (by: 1 | -1): StateCommand =>
  ({ state, dispatch }) => {
    const block = isIn(state);
    const other = block && neighbour(state.doc, block, by);
    if (!block || !other || (block.first === block.last && other.first === other.last)) return false;
    const [above, below] = by === 1 ? [block, other] : [other, block];
    const [from, to] = [state.doc.line(above.first).from, state.doc.line(below.last).to];
    const upper = state.doc.sliceString(from, state.doc.line(above.last).to);
    const lower = state.doc.sliceString(state.doc.line(below.first).from, to);
    const { anchor, head } = state.selection.main;
    const moved = by === 1 ? lower.length + 1 : -(upper.length + 1);
    dispatch(
      state.update({
        changes: { from, to, insert: `${lower}\n${upper}` },
        selection: { anchor: anchor + moved, head: head + moved },
        scrollIntoView: true,
        userEvent: 'move.line',
      }),
    );
    return true;
  };

/** Writes a line with its block once more below it, and goes there. */
export const duplicateBlock: StateCommand = (target) => {
  const { state, dispatch } = target;
  const block = isIn(state);
  if (!block || block.first === block.last) return copyLineDown(target);
  const [from, to] = [state.doc.line(block.first).from, state.doc.line(block.last).to];
  const { anchor, head } = state.selection.main;
  const on = to - from + 1;
  dispatch(
    state.update({
      changes: { from: to, insert: `\n${state.doc.sliceString(from, to)}` },
      selection: { anchor: anchor + on, head: head + on },
      scrollIntoView: true,
      userEvent: 'input.copyline',
    }),
  );
  return true;
};

/** A block folds into the line above it: from behind its colon to the end of what is indented deeper. */
export const foldedBlocks = foldService.of((state, from) => {
  const first = state.doc.lineAt(from);
  if (!/:\s*$/.test(first.text)) return null;
  const end = state.doc.line(blockFrom(state.doc, first.number).last).to;
  return end > first.to ? { from: first.to, to: end } : null;
});
