import {
  acceptCompletion,
  autocompletion,
  closeCompletion,
  completionStatus,
  moveCompletionSelection,
  selectedCompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentLess, indentMore } from '@codemirror/commands';
import { codeFolding, foldGutter, foldKeymap, indentUnit } from '@codemirror/language';
import { closeSearchPanel, findNext, findPrevious, gotoLine, openSearchPanel, search } from '@codemirror/search';
import { type Extension, EditorState } from '@codemirror/state';
import { type Command, EditorView, drawSelection, keymap, lineNumbers, placeholder } from '@codemirror/view';
import { api } from '../../api/client';
import { leaveReading, nextReading, previousReading, readAsField, takeReading } from './readAs';
import { duplicateBlock, foldedBlocks, moveBlock } from './sheetBlocks';
import { dressing, nextSlot } from './sheetDress';

/** Put a sentence in place of part of the document and select its first gap. */
function place(view: EditorView, text: string, from: number, to: number) {
  const gap = text.indexOf('?');
  view.dispatch({
    changes: { from, to, insert: text },
    selection: gap < 0 ? { anchor: from + text.length } : { anchor: from + gap, head: from + gap + 1 },
    scrollIntoView: true,
    userEvent: 'input.complete',
  });
}

/** Insert a step as a line of its own below the cursor, or in an empty line. */
export function insertStep(view: EditorView, sentence: string) {
  const line = view.state.doc.lineAt(view.state.selection.main.head);
  const margin = /^\s*/.exec(line.text)?.[0] ?? '';
  if (line.text.trim() === '') place(view, margin + sentence, line.from, line.to);
  else place(view, `\n${margin}${/:\s*$/.test(line.text) ? '  ' : ''}${sentence}`, line.to, line.to);
  view.focus();
}

async function suggest(context: CompletionContext): Promise<CompletionResult | null> {
  const line = context.state.doc.lineAt(context.pos);
  const typed = line.text.slice(0, context.pos - line.from);
  // In the middle of a sentence, and on an empty line, only when asked for.
  if (!context.explicit && (typed.trim() === '' || context.pos < line.to)) return null;
  if (/^\s*(#|["“„])/.test(typed)) return null;
  const margin = typed.length - typed.trimStart().length;
  const found = await api.suggest(context.state.doc.toString(), line.number, typed.length).catch(() => []);
  const options: Completion[] = found.map((suggestion, rank) => ({
    label: suggestion.text,
    detail: suggestion.family,
    info: suggestion.summary,
    boost: -rank,
    apply: (view) => place(view, suggestion.text, line.from + margin, line.to),
  }));
  return options.length ? { from: line.from + margin, options, filter: false } : null;
}

/** Takes the suggestion shown; behind words for which none is shown yet, asks for one. Elsewhere Tab indents. */
const takeSuggestion: Command = (view) => {
  if (completionStatus(view.state) === 'active') {
    if (!selectedCompletion(view.state)) moveCompletionSelection(true)(view);
    // Refused for the first moments after a list has opened, so that it is not taken by accident.
    if (acceptCompletion(view)) return true;
  }
  const { doc, selection } = view.state;
  const line = doc.lineAt(selection.main.head);
  const typed = line.text.slice(0, selection.main.head - line.from);
  if (!selection.main.empty || typed.trim() === '' || selection.main.head < line.to) return false;
  void api
    .suggest(doc.toString(), line.number, typed.length)
    .catch(() => [])
    .then(([first]) => {
      if (first && view.state.doc === doc) {
        closeCompletion(view);
        place(view, first.text, line.from + typed.length - typed.trimStart().length, line.to);
      }
    });
  return true;
};

/** A new line with the margin of this one; deeper behind a colon. */
const newLine: Command = (view) => {
  if (completionStatus(view.state) === 'active' && selectedCompletion(view.state)) return acceptCompletion(view);
  closeCompletion(view);
  const { head } = view.state.selection.main;
  const line = view.state.doc.lineAt(head);
  const margin = /^\s*/.exec(line.text)?.[0] ?? '';
  const deeper = head === line.to && /:\s*$/.test(line.text) ? '  ' : '';
  view.dispatch(view.state.replaceSelection(`\n${margin}${deeper}`), { scrollIntoView: true, userEvent: 'input' });
  return true;
};

const toNextSlot: Command = (view) => {
  const slot = nextSlot(view.state, view.state.selection.main.from);
  if (!slot) return false;
  view.dispatch({ selection: { anchor: slot.from, head: slot.to }, scrollIntoView: true });
  return true;
};

const leave: Command = (view) => {
  if (closeCompletion(view) || leaveReading(view) || closeSearchPanel(view)) return true;
  view.contentDOM.blur();
  return true;
};

const KEYS = keymap.of([
  { key: 'Tab', run: (view) => (selectedCompletion(view.state) ? false : takeReading(view)) || takeSuggestion(view) || indentMore(view), shift: indentLess },
  { key: 'Alt-ArrowDown', run: nextReading },
  { key: 'Alt-ArrowUp', run: previousReading },
  { key: 'Enter', run: newLine },
  { key: 'F2', run: toNextSlot },
  { key: 'Escape', run: leave },
  { key: 'Alt-ArrowDown', run: moveBlock(1) },
  { key: 'Alt-ArrowUp', run: moveBlock(-1) },
  { key: 'Shift-Alt-ArrowDown', run: duplicateBlock },
  { key: 'Mod-f', run: openSearchPanel, scope: 'editor search-panel' },
  { key: 'F3', run: findNext, shift: findPrevious, scope: 'editor search-panel', preventDefault: true },
  { key: 'Escape', run: closeSearchPanel, scope: 'search-panel' },
  { key: 'Alt-g', run: gotoLine },
  ...foldKeymap,
  ...historyKeymap,
  ...defaultKeymap,
]);

export interface SheetEvents {
  onText: (text: string) => void;
  onLine: (line: number) => void;
}

/** Everything the sheet's editor consists of. */
export function sheetExtensions(events: SheetEvents): Extension[] {
  return [
    history(),
    drawSelection(),
    lineNumbers(),
    foldedBlocks,
    codeFolding({ placeholderText: '…' }),
    foldGutter({ openText: '▾', closedText: '▸' }),
    indentUnit.of('  '),
    EditorView.lineWrapping,
    EditorState.allowMultipleSelections.of(false),
    EditorView.contentAttributes.of({
      'aria-label': 'The routine, one sentence a line',
      tabindex: '0',
      spellcheck: 'false',
      autocorrect: 'off',
      autocapitalize: 'off',
    }),
    // Mod-/ makes remarks of lines, and lines of remarks.
    EditorState.languageData.of(() => [{ commentTokens: { line: '#' } }]),
    search({ top: true }),
    EditorState.phrases.of({ regexp: 'by pattern', 'by word': 'whole words', 'match case': 'as written', all: 'all of them' }),
    autocompletion({ override: [suggest], selectOnOpen: false, icons: false, activateOnTypingDelay: 60 }),
    placeholder('Pack: 52 cards, any order'),
    KEYS,
    dressing,
    readAsField,
    EditorView.updateListener.of((update) => {
      if (update.docChanged) events.onText(update.state.doc.toString());
      if (update.docChanged || update.selectionSet) {
        events.onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
      }
    }),
  ];
}
