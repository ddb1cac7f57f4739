import { notifications } from '@mantine/notifications';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiError, api, type Routine } from '../../api/client';

export type SaveState = 'saved' | 'saving' | 'offline' | 'conflict';

const DELAY = 350;
const RETRY = 3000;
const draftKey = (id: number) => `draft ${id}`;

interface Draft {
  text: string;
  /** the shelf's revision that the draft was written on */
  revision: number;
}

/** A draft that was typed but never acknowledged by the shelf. */
export function readDraft(id: number): Draft | null {
  try {
    return JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as Draft | null;
  } catch {
    return null;
  }
}

/**
 * Saves every change of the text by itself. Until the shelf has acknowledged it, the text is also kept as a
 * draft in the browser, so that neither a closed window nor a stopped server loses a word.
 */
export function useAutosave(opened: Routine) {
  const [state, setState] = useState<SaveState>('saved');
  const [other, setOther] = useState<Routine | null>(null);
  const revision = useRef(opened.revision);
  const savedText = useRef(opened.text);
  const wanted = useRef(opened.text);
  const timer = useRef<number>(undefined);
  const busy = useRef(false);
  const flush = useRef<() => Promise<void>>(async () => {});

  const later = useCallback((delay: number) => {
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => void flush.current(), delay);
  }, []);

  useEffect(() => {
    flush.current = async () => {
      if (busy.current) return;
      if (wanted.current === savedText.current) {
        // Typed, and undone again before it was saved.
        localStorage.removeItem(draftKey(opened.id));
        setState((now) => (now === 'conflict' ? now : 'saved'));
        return;
      }
      busy.current = true;
      const text = wanted.current;
      try {
        const kept = await api.save(opened.id, text, revision.current);
        revision.current = kept.revision;
        savedText.current = text;
        later(0);
      } catch (error) {
        if (error instanceof ApiError && error.status === 409 && error.told.current) {
          setOther(error.told.current);
          setState('conflict');
        } else {
          setState('offline');
          later(RETRY);
        }
      } finally {
        busy.current = false;
      }
    };
  }, [opened.id, later]);

  useEffect(() => () => {
    window.clearTimeout(timer.current);
    void flush.current();
  }, []);

  const change = useCallback(
    (text: string) => {
      wanted.current = text;
      localStorage.setItem(draftKey(opened.id), JSON.stringify({ text, revision: revision.current } satisfies Draft));
      setState((now) => (now === 'conflict' ? now : 'saving'));
      later(DELAY);
    },
    [opened.id, later],
  );

  /** Keep this window's text; the other one stays as a version. */
  const keepMine = useCallback(async () => {
    if (!other) return;
    await api.keepVersion(other.id, 'from the other window');
    revision.current = other.revision;
    setOther(null);
    setState('saving');
    later(0);
    notifications.show({ message: 'Yours is kept. The other text is a version of this routine.' });
  }, [other, later]);

  /** Take the other window's text; undo on the sheet brings this one's back. */
  const takeOther = useCallback(() => {
    if (!other) return null;
    revision.current = other.revision;
    savedText.current = other.text;
    wanted.current = other.text;
    localStorage.removeItem(draftKey(opened.id));
    setOther(null);
    setState('saved');
    return other.text;
  }, [other, opened.id]);

  /** Resolves once the shelf has acknowledged what stands on the sheet; rejects while it does not answer. */
  const saved = useCallback(async () => {
    for (let tries = 0; tries < 20 && savedText.current !== wanted.current; tries++) {
      await flush.current();
      await new Promise((done) => setTimeout(done, 50));
    }
    if (savedText.current !== wanted.current) throw new Error('The shelf has not saved the text yet.');
  }, []);

  return { state, other, change, keepMine, takeOther, saved };
}
