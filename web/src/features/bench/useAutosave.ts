import { notifications } from '@mantine/notifications';
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { ApiError, api, type Routine } from '../../api/client';
import { Saver } from './saver';

const LISTEN = 2000;

/**
 * Saves every change of the text by itself, and looks now and then whether another window has changed the routine.
 * `replace` puts a text on the sheet as one change that undo takes back.
 */
export function useAutosave(opened: Routine, replace: (text: string) => void) {
  const [saver] = useState(() => new Saver(opened, api.save));
  const now = useSyncExternalStore(saver.listen, saver.now);
  const [gone, setGone] = useState(false);

  useEffect(() => {
    saver.begin();
    return () => saver.end();
  }, [saver]);

  useEffect(() => {
    // A text that neither the shelf nor the browser holds is lost with the window.
    const ask = (event: BeforeUnloadEvent) => {
      if (!saver.isSaved() && !saver.now().drafted) event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [saver]);

  useEffect(() => {
    const listen = async () => {
      if (document.hidden) return;
      try {
        const asked = saver.known();
        const { revision } = await api.revision(opened.id);
        setGone(false);
        if (revision === saver.known()) return;
        const text = saver.heard(await api.routine(opened.id), asked);
        if (text === null) return;
        replace(text);
        notifications.show({ message: 'Changed in another window. Undo brings back what stood here.' });
      } catch (error) {
        setGone(error instanceof ApiError && error.status === 404);
      }
    };
    const every = window.setInterval(() => void listen(), LISTEN);
    return () => window.clearInterval(every);
  }, [saver, opened.id, replace]);

  /** Resolves once the shelf has acknowledged what stands on the sheet; rejects while it does not answer. */
  const saved = useCallback(async () => {
    for (let tries = 0; tries < 20 && !saver.isSaved(); tries++) {
      await saver.flush();
      await new Promise((done) => setTimeout(done, 50));
    }
    if (!saver.isSaved()) throw new Error('The shelf has not saved the text yet.');
  }, [saver]);

  /** Mine goes on; what the shelf has stays as a version. */
  const keepMine = useCallback(async () => {
    const conflict = saver.now().conflict;
    if (!conflict) return;
    if (conflict.from === 'draft') {
      await saved();
      await api.keepVersion(opened.id, 'before the draft was taken');
    } else await api.keepVersion(opened.id, 'from the other window', '', conflict.other.text);
    const text = saver.keepMine();
    if (conflict.from === 'draft' && text !== null) replace(text);
    notifications.show({ message: 'Yours is kept. The other text is a version of this routine.' });
  }, [saver, saved, opened.id, replace]);

  /** The shelf's goes on; mine stays as a version. */
  const takeOther = useCallback(async () => {
    const conflict = saver.now().conflict;
    if (!conflict) return;
    await api.keepVersion(opened.id, conflict.from === 'draft' ? 'a draft that was not saved' : 'from this window', '', conflict.mine);
    const text = saver.takeOther();
    if (conflict.from === 'window' && text !== null) replace(text);
    notifications.show({ message: 'The text of the shelf is kept. Yours is a version of this routine.' });
  }, [saver, opened.id, replace]);

  const change = useCallback((text: string) => saver.change(text), [saver]);
  return { now, gone, opening: saver.opening, change, keepMine, takeOther, saved };
}
