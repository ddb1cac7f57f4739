import { useCallback, useEffect, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { ApiError, api, type Occasion, type Programme } from '../../api/client';
import { programmesQuery } from '../../api/queries';

/**
 * A programme that is being edited: every change is saved by itself, one after the other, and can be taken back. What the
 * shelf does not take stays on the screen, with what is the matter.
 */
export function useProgramme(opened: Programme) {
  const client = useQueryClient();
  const [occasion, setOccasion] = useState(opened.occasion);
  const [revision, setRevision] = useState(opened.revision);
  const [trouble, setTrouble] = useState<ApiError | null>(null);
  const [past, setPast] = useState<Occasion[]>([]);
  const wanted = useRef<Occasion | null>(null);
  const saving = useRef<Promise<ApiError | null> | null>(null);
  const known = useRef(opened.revision);

  const saveAll = useCallback(async (): Promise<ApiError | null> => {
    for (let next = wanted.current; next; next = wanted.current) {
      wanted.current = null;
      try {
        const kept = await api.saveProgramme(opened.uid, next, known.current);
        known.current = kept.revision;
        setRevision(kept.revision);
        setTrouble(null);
        client.setQueryData(programmesQuery().queryKey, (all) => all?.map((one) => (one.uid === kept.uid ? kept : one)));
      } catch (error) {
        wanted.current ??= next;
        const refused = error instanceof ApiError ? error : new ApiError(0, {});
        setTrouble(refused);
        return refused;
      }
    }
    return null;
  }, [opened.uid, client]);

  const flush = useCallback(() => {
    saving.current ??= saveAll().finally(() => (saving.current = null));
    return saving.current;
  }, [saveAll]);

  /** Once the shelf has what stands here; throws what it refused. */
  const saved = useCallback(async () => {
    const refused = await flush();
    if (refused) throw refused;
  }, [flush]);

  const change = useCallback(
    (what: Partial<Occasion>) => {
      setPast((before) => [...before.slice(-99), occasion]);
      const next = { ...occasion, ...what };
      setOccasion(next);
      wanted.current = next;
      void flush();
    },
    [occasion, flush],
  );

  const undo = useCallback(() => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    setOccasion(before);
    wanted.current = before;
    void flush();
  }, [past, flush]);

  useEffect(() => {
    // A server that was gone is asked again; a text that it refuses waits for another.
    if (trouble?.status !== 0) return;
    const again = window.setInterval(() => void flush(), 3000);
    return () => window.clearInterval(again);
  }, [trouble, flush]);

  return { occasion, revision, trouble, change, saved, undo: past.length > 0 ? undo : null };
}
