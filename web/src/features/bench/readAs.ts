import { StateEffect, StateField, type EditorState, type Range } from '@codemirror/state';
import { Decoration, EditorView, WidgetType, type Command, type DecorationSet } from '@codemirror/view';
import type { Schemas } from '../../api/client';

/** How the lines outside the language can be read, as the server said of this very text. */
export interface ReadAs {
  text: string;
  lines: Schemas['ReadLine'][];
  /** what was written stays above as a remark */
  keepWords: boolean;
}

export const setReadAs = StateEffect.define<ReadAs>();
const turnTo = StateEffect.define<{ line: number; nth: number }>();
const dismiss = StateEffect.define<number>();

type Line = Schemas['ReadLine'];

class Reads extends WidgetType {
  constructor(
    readonly line: Line,
    readonly nth: number,
  ) {
    super();
  }
  override eq(other: Reads) {
    return other.nth === this.nth && JSON.stringify(other.line) === JSON.stringify(this.line);
  }
  toDOM(view: EditorView) {
    const note = document.createElement('div');
    note.className = 'gp-read-as';
    const { answer } = this.line;
    const reading = answer.readings[this.nth];
    if (!reading) {
      note.textContent = `The language cannot say this: ${answer.cannot}.`;
      return note;
    }
    const word = document.createElement('span');
    word.className = 'gp-read-word';
    word.textContent = answer.asks ? `which of ${answer.readings.length}? ` : 'read as ';
    const take = document.createElement('button');
    take.type = 'button';
    take.tabIndex = -1;
    marked(take, reading.lines, reading.taken);
    take.title = reading.taken.length ? `Taken for granted: ${reading.taken.join(', ')}` : 'Write it so';
    take.onmousedown = (event) => {
      event.preventDefault();
      accept(view, this.line.line, this.nth);
    };
    note.append(word, take);
    if (reading.does) {
      const does = document.createElement('span');
      does.textContent = reading.does;
      note.append(does);
    }
    const keys = document.createElement('span');
    keys.className = 'gp-read-keys';
    keys.textContent = answer.readings.length > 1 ? `Tab · Alt ↓ ${this.nth + 1} of ${answer.readings.length} · Esc` : 'Tab · Esc';
    note.append(keys);
    return note;
  }
  override ignoreEvent() {
    return false;
  }
}

/** The sentences, with what was taken for granted underlined. */
function marked(host: HTMLElement, lines: string[], taken: string[]) {
  const said = lines.map((line) => line.trim()).join(' / ');
  let rest = said;
  for (const words of taken) {
    const at = rest.indexOf(words);
    if (at < 0 || !words) continue;
    const mark = document.createElement('u');
    mark.textContent = words;
    host.append(rest.slice(0, at), mark);
    rest = rest.slice(at + words.length);
  }
  host.append(rest);
}

interface Shown {
  lines: Line[];
  keepWords: boolean;
  nth: Record<number, number>;
  decorations: DecorationSet;
}

function drawn(state: EditorState, lines: Line[], nth: Record<number, number>, keepWords: boolean): Shown {
  const found: Range<Decoration>[] = [];
  for (const line of lines) {
    if (line.line > state.doc.lines) continue;
    found.push(Decoration.widget({ widget: new Reads(line, nth[line.line] ?? 0), block: true, side: 2 }).range(state.doc.line(line.line).to));
  }
  return { lines, keepWords, nth, decorations: Decoration.set(found, true) };
}

export const readAsField = StateField.define<Shown>({
  create: () => ({ lines: [], keepWords: false, nth: {}, decorations: Decoration.none }),
  update(shown, transaction) {
    let now = shown;
    // What was read of another text stays in view until this one is read, but cannot be taken.
    if (transaction.docChanged) now = { lines: [], keepWords: shown.keepWords, nth: {}, decorations: shown.decorations.map(transaction.changes) };
    for (const effect of transaction.effects) {
      if (effect.is(setReadAs) && effect.value.text === transaction.state.doc.toString())
        now = drawn(transaction.state, effect.value.lines, {}, effect.value.keepWords);
      if (effect.is(turnTo)) now = drawn(transaction.state, now.lines, { ...now.nth, [effect.value.line]: effect.value.nth }, now.keepWords);
      if (effect.is(dismiss))
        now = drawn(
          transaction.state,
          now.lines.filter((one) => one.line !== effect.value),
          now.nth,
          now.keepWords,
        );
    }
    return now;
  },
  provide: (field) => EditorView.decorations.from(field, (shown) => shown.decorations),
});

function here(view: EditorView): { line: Line; nth: number } | null {
  const number = view.state.doc.lineAt(view.state.selection.main.head).number;
  const shown = view.state.field(readAsField);
  const line = shown.lines.find((one) => one.line === number);
  return line ? { line, nth: shown.nth[number] ?? 0 } : null;
}

function accept(view: EditorView, number: number, nth: number) {
  const shown = view.state.field(readAsField);
  const reading = shown.lines.find((one) => one.line === number)?.answer.readings[nth];
  if (!reading) return;
  const { from, to, text } = view.state.doc.line(number);
  const margin = /^\s*/.exec(text)?.[0] ?? '';
  const words = shown.keepWords ? [`# ${text.trim()}`] : [];
  const insert = [...words, ...reading.lines].map((line) => margin + line).join('\n');
  view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length }, scrollIntoView: true, userEvent: 'input.complete' });
  view.focus();
}

/** Writes what the line at the cursor was read as. */
export const takeReading: Command = (view) => {
  const found = here(view);
  if (!found?.line.answer.readings.length) return false;
  accept(view, found.line.line, found.nth);
  return true;
};

const turn =
  (by: number): Command =>
  (view) => {
    const found = here(view);
    const many = found?.line.answer.readings.length ?? 0;
    if (!found || many < 2) return false;
    view.dispatch({ effects: turnTo.of({ line: found.line.line, nth: (found.nth + by + many) % many }) });
    return true;
  };
export const nextReading = turn(1);
export const previousReading = turn(-1);

/** Leaves the line as it is. */
export const leaveReading: Command = (view) => {
  const found = here(view);
  if (!found) return false;
  view.dispatch({ effects: dismiss.of(found.line.line) });
  return true;
};
