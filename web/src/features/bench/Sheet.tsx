import { isolateHistory } from '@codemirror/commands';
import { EditorState } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { useEffect, useImperativeHandle, useLayoutEffect, useRef, type Ref } from 'react';
import { insertStep, sheetExtensions } from './sheetEditor';
import { setReadAs, type ReadAs } from './readAs';
import { setDress, type Dress } from './sheetDress';
import './sheet.css';

export interface SheetHandle {
  insertStep: (sentence: string) => void;
  /** Replace the whole text as one change that undo takes back. */
  replace: (text: string) => void;
  focus: () => void;
  /** put the cursor on a line, from 1 */
  goToLine: (line: number) => void;
}

interface SheetProps {
  /** text to begin with; later texts come from the editor itself */
  initial: string;
  dress: Dress;
  readAs: ReadAs | null;
  onText: (text: string) => void;
  /** line of the cursor, from 1 */
  onLine: (line: number) => void;
  ref: Ref<SheetHandle>;
}

/** The routine as a page: one text document, dressed by what the server says about it. */
export function Sheet({ initial, dress, readAs, onText, onLine, ref }: SheetProps) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const events = useRef({ onText, onLine });
  useLayoutEffect(() => {
    events.current = { onText, onLine };
  });
  const first = useRef(initial);

  useEffect(() => {
    if (!host.current) return;
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: first.current,
        extensions: sheetExtensions({
          onText: (text) => events.current.onText(text),
          onLine: (line) => events.current.onLine(line),
        }),
      }),
    });
    view.current = editor;
    return () => {
      first.current = editor.state.doc.toString();
      editor.destroy();
    };
  }, []);

  useEffect(() => {
    view.current?.dispatch({ effects: setDress.of(dress) });
  }, [dress]);

  useEffect(() => {
    if (readAs) view.current?.dispatch({ effects: setReadAs.of(readAs) });
  }, [readAs]);

  useImperativeHandle(ref, () => ({
    insertStep: (sentence) => view.current && insertStep(view.current, sentence),
    // However soon after typing it comes, undo takes back this change alone.
    replace: (text) =>
      view.current?.dispatch({
        changes: { from: 0, to: view.current.state.doc.length, insert: text },
        annotations: isolateHistory.of('full'),
      }),
    focus: () => view.current?.focus(),
    goToLine: (line) => {
      const editor = view.current;
      if (!editor) return;
      const at = editor.state.doc.line(Math.min(Math.max(line, 1), editor.state.doc.lines)).from;
      editor.dispatch({ selection: { anchor: at }, scrollIntoView: true });
      editor.focus();
    },
  }));

  return <div ref={host} className="sheet" />;
}
