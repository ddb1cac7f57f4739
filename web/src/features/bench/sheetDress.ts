import { type EditorState, type Range, RangeSet, type RangeValue, StateEffect, StateField, type Text } from '@codemirror/state';
import { Decoration, EditorView, GutterMarker, WidgetType, gutter } from '@codemirror/view';
import type { Fault, LedgerEntry, SheetLine } from '../../api/client';

/** What the server said about a text, piece by piece. What is not known yet is null: the sheet keeps what it wore of it, which moves along. */
export interface Dress {
  text: string;
  /** how each line reads */
  lines: SheetLine[] | null;
  /** where their card is after it */
  ledger: LedgerEntry[] | null;
  faults: Fault[] | null;
  shown: {
    /** line the table shows, from 1; 0 for none */
    current: number;
    /** line at which the path on the table fails; 0 for none */
    failing: number;
  } | null;
  /** lines at which something is in sight that must not be */
  shows: { line: number; what: string }[] | null;
  /** lines at which a slip breaks something, and lines at which none does, once slips have been made */
  slips: { strict: number[]; free: number[] } | null;
}

export const setDress = StateEffect.define<Dress>();

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

function classes(line: SheetLine): string {
  const found = ['gp-line', `gp-is-${line.what}`];
  if (line.spectator) found.push('gp-spectator');
  if (line.phase === 'ending') found.push('gp-ending');
  if (line.step === 'title' || line.step === 'note') found.push(`gp-${line.step}`);
  return found.join(' ');
}

const LABEL = Decoration.mark({ class: 'gp-label' });
/** A value of the sheet; behind a label it is not underlined. */
const SLOT = Decoration.mark({ class: 'gp-slot', slot: true });
const GAP = Decoration.mark({ class: 'gp-slot gp-blank', slot: true });
const PLAIN = Decoration.mark({ slot: true });

const beside = (widget: WidgetType, side: number) => Decoration.widget({ widget, side });

/** One piece as it is worn: what was known of it moves along with the text until it is known of the text that stands there. */
function worn<Piece extends Exclude<keyof Dress, 'text'>, Mark extends RangeValue>(
  piece: Piece,
  draw: (doc: Text, known: NonNullable<Dress[Piece]>) => Iterable<Range<Mark>>,
) {
  return StateField.define<RangeSet<Mark>>({
    create: () => RangeSet.empty,
    update(marks, { changes, effects, state: { doc } }) {
      let now = marks.map(changes);
      for (const effect of effects) {
        // An answer about an older text would dress the wrong words.
        if (!effect.is(setDress) || effect.value.text !== doc.toString()) continue;
        const known = effect.value[piece];
        if (known) now = RangeSet.of([...draw(doc, known)], true);
      }
      return now;
    },
  });
}

const lines = worn('lines', function* (doc, read) {
  for (const line of read) {
    const { from, to } = doc.line(line.number);
    yield Decoration.line({ class: classes(line) }).range(from);
    const label = line.step === 'title' || line.step === 'note';
    for (const slot of line.slots) {
      const [start, end] = [from + slot.start, from + slot.end];
      if (label) yield LABEL.range(from, start);
      if (end > start) yield (label ? PLAIN : doc.sliceString(start, end).includes('?') ? GAP : SLOT).range(start, end);
    }
    if (line.knowledge) yield beside(new Knowledge(line.knowledge), 1).range(to);
  }
});

const shown = worn('shown', function* (doc, { current, failing }) {
  if (failing) yield Decoration.line({ class: 'gp-failing' }).range(doc.line(failing).from);
  else if (current) yield Decoration.line({ class: 'gp-current' }).range(doc.line(current).from);
});

const shows = worn('shows', function* (doc, seen) {
  for (const { line, what } of seen) if (line) yield beside(new Shows(what), 2).range(doc.line(line).to);
});

const slips = worn('slips', function* (doc, harm) {
  for (const kind of ['strict', 'free'] as const) for (const line of harm[kind]) yield beside(new Handling(kind), 3).range(doc.line(line).to);
});

const faults = worn('faults', function* (doc, found) {
  for (const fault of found) {
    const { from, to } = doc.line(fault.line);
    const start = Math.min(from + fault.column - 1, to);
    const end = Math.min(from + fault.end - 1, to);
    if (end > start) yield Decoration.mark({ class: 'gp-fault' }).range(start, end);
    yield Decoration.widget({ widget: new FaultNote(fault), block: true, side: 1 }).range(to);
  }
});

/** The margin on the right: where the followed card is after each line. In a loop, after its last round. */
const ledger = worn('ledger', function* (doc, entries) {
  for (const entry of new Map(entries.map((row) => [row.line, row])).values()) yield new LedgerMark(entry).range(doc.line(entry.line).from);
});

/** The next gap or value of the sheet behind `position`, round to the first. */
export function nextSlot(state: EditorState, position: number): { from: number; to: number } | null {
  const slots: { from: number; to: number }[] = [];
  state.field(lines).between(0, state.doc.length, (from, to, { spec }) => {
    if ((spec as { slot?: boolean }).slot) slots.push({ from, to });
  });
  return slots.find((slot) => slot.from > position) ?? slots[0] ?? null;
}

export const dressing = [
  ...[lines, shown, shows, slips, faults].map((field) => [field, EditorView.decorations.from(field)]),
  ledger,
  gutter({ class: 'gp-ledger', side: 'after', markers: (view) => view.state.field(ledger) }),
];
