import { type EditorState, type Range, StateEffect, StateField } from '@codemirror/state';
import { Decoration, type DecorationSet, EditorView, GutterMarker, WidgetType, gutter } from '@codemirror/view';
import type { Fault, LedgerEntry, SheetLine } from '../../api/client';

/** What the server said about a text: how each line reads, where their card is after it, what is wrong. */
export interface Dress {
  text: string;
  lines: SheetLine[];
  ledger: LedgerEntry[];
  faults: Fault[];
  /** line the table shows, from 1; 0 for none */
  current: number;
  /** line at which the path on the table fails; 0 for none */
  failing: number;
  /** lines at which something is in sight that must not be */
  shows: { line: number; what: string }[];
  /** lines at which a slip breaks something, and lines at which none does, once slips have been made */
  strict: number[];
  free: number[];
}

export const setDress = StateEffect.define<Dress>();

const EMPTY: Dress = { text: '', lines: [], ledger: [], faults: [], current: 0, failing: 0, shows: [], strict: [], free: [] };

class Knowledge extends WidgetType {
  constructor(readonly kind: 'secret' | 'told') {
    super();
  }
  override eq(other: Knowledge) {
    return other.kind === this.kind;
  }
  toDOM() {
    const mark = document.createElement('span');
    mark.className = `gp-knowledge gp-${this.kind}`;
    mark.title = this.kind === 'secret' ? 'Secret: you do not learn this here' : 'Told: you learn this here';
    mark.setAttribute('role', 'img');
    mark.setAttribute('aria-label', this.kind);
    return mark;
  }
}

class Shows extends WidgetType {
  constructor(readonly what: string) {
    super();
  }
  override eq(other: Shows) {
    return other.what === this.what;
  }
  toDOM() {
    const mark = document.createElement('span');
    mark.className = 'gp-shows';
    mark.textContent = `${this.what} shows`;
    mark.title = `On some path ${this.what} is in sight here`;
    return mark;
  }
}

class Handling extends WidgetType {
  constructor(readonly kind: 'strict' | 'free') {
    super();
  }
  override eq(other: Handling) {
    return other.kind === this.kind;
  }
  toDOM() {
    const mark = document.createElement('span');
    mark.className = `gp-handling gp-${this.kind}`;
    mark.textContent = this.kind;
    mark.title = this.kind === 'strict' ? 'A slip at this line breaks something' : 'No slip at this line does any harm';
    return mark;
  }
}

class FaultNote extends WidgetType {
  constructor(readonly fault: Fault) {
    super();
  }
  override eq(other: FaultNote) {
    return JSON.stringify(other.fault) === JSON.stringify(this.fault);
  }
  toDOM() {
    const note = document.createElement('div');
    note.className = 'gp-fault-note';
    const { message, expected, remedy } = this.fault;
    note.textContent = `${message} Expected ${expected}. ${remedy}`;
    return note;
  }
}

class LedgerMark extends GutterMarker {
  constructor(readonly entry: LedgerEntry) {
    super();
  }
  override eq(other: LedgerMark) {
    return other.entry.text === this.entry.text && other.entry.sure === this.entry.sure;
  }
  override toDOM() {
    const mark = document.createElement('span');
    mark.className = this.entry.sure ? 'gp-at gp-sure' : 'gp-at';
    mark.textContent = this.entry.text;
    return mark;
  }
}

function classes(line: SheetLine, dress: Dress): string {
  const found = ['gp-line', `gp-is-${line.what}`];
  if (line.spectator) found.push('gp-spectator');
  if (line.phase === 'ending') found.push('gp-ending');
  if (line.step === 'title' || line.step === 'note') found.push(`gp-${line.step}`);
  if (line.number === dress.failing) found.push('gp-failing');
  else if (line.number === dress.current) found.push('gp-current');
  return found.join(' ');
}

function decorate(state: EditorState, dress: Dress): DecorationSet {
  const found: Range<Decoration>[] = [];
  for (const line of dress.lines) {
    if (line.number > state.doc.lines) break;
    const { from, to } = state.doc.line(line.number);
    found.push(Decoration.line({ class: classes(line, dress) }).range(from));
    const label = line.step === 'title' || line.step === 'note';
    for (const slot of line.slots) {
      if (label) found.push(Decoration.mark({ class: 'gp-label' }).range(from, from + slot.start));
      else if (slot.end > slot.start) {
        const blank = state.sliceDoc(from + slot.start, from + slot.end).includes('?');
        const kind = blank ? 'gp-slot gp-blank' : 'gp-slot';
        found.push(Decoration.mark({ class: kind }).range(from + slot.start, from + slot.end));
      }
    }
    if (line.knowledge) {
      found.push(Decoration.widget({ widget: new Knowledge(line.knowledge), side: 1 }).range(to));
    }
  }
  for (const shown of dress.shows) {
    if (shown.line < 1 || shown.line > state.doc.lines) continue;
    found.push(Decoration.widget({ widget: new Shows(shown.what), side: 2 }).range(state.doc.line(shown.line).to));
  }
  for (const kind of ['strict', 'free'] as const) {
    for (const line of dress[kind]) {
      if (line < 1 || line > state.doc.lines) continue;
      found.push(Decoration.widget({ widget: new Handling(kind), side: 3 }).range(state.doc.line(line).to));
    }
  }
  for (const fault of dress.faults) {
    if (fault.line > state.doc.lines) continue;
    const { from, to } = state.doc.line(fault.line);
    const start = Math.min(from + fault.column - 1, to);
    const end = Math.min(from + fault.end - 1, to);
    if (end > start) found.push(Decoration.mark({ class: 'gp-fault' }).range(start, end));
    found.push(Decoration.widget({ widget: new FaultNote(fault), block: true, side: 1 }).range(to));
  }
  return Decoration.set(found, true);
}

const dressField = StateField.define<{ dress: Dress; decorations: DecorationSet }>({
  create: () => ({ dress: EMPTY, decorations: Decoration.none }),
  update(worn, transaction) {
    let { dress, decorations } = worn;
    if (transaction.docChanged) decorations = decorations.map(transaction.changes);
    for (const effect of transaction.effects) {
      // An answer about an older text would dress the wrong words.
      if (effect.is(setDress) && effect.value.text === transaction.state.doc.toString()) {
        dress = effect.value;
        decorations = decorate(transaction.state, dress);
      }
    }
    return dress === worn.dress && decorations === worn.decorations ? worn : { dress, decorations };
  },
  provide: (field) => EditorView.decorations.from(field, (worn) => worn.decorations),
});

/** The margin on the right: where the followed card is after each line. In a loop, after its last round. */
const ledgerGutter = gutter({
  class: 'gp-ledger',
  side: 'after',
  lineMarker(view, block) {
    const number = view.state.doc.lineAt(block.from).number;
    const entry = view.state.field(dressField).dress.ledger.findLast((row) => row.line === number);
    return entry ? new LedgerMark(entry) : null;
  },
  lineMarkerChange: (update) => update.startState.field(dressField).dress !== update.state.field(dressField).dress,
});

/** The next gap or value of the sheet behind `position`, round to the first. */
export function nextSlot(state: EditorState, position: number): { from: number; to: number } | null {
  const { lines } = state.field(dressField).dress;
  const slots = lines.flatMap((line) => {
    if (line.number > state.doc.lines) return [];
    const { from } = state.doc.line(line.number);
    return line.slots.map((slot) => ({ from: from + slot.start, to: from + slot.end }));
  });
  return slots.find((slot) => slot.from > position) ?? slots[0] ?? null;
}

export const dressing = [dressField, ledgerGutter];
