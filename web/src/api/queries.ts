import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api } from './client';

/** What is computed from a text is the same for ever, so it is kept by its text. */
const FOR_EVER = { staleTime: Infinity, gcTime: 10 * 60_000 };

export const routinesQuery = () => queryOptions({ queryKey: ['routines'], queryFn: api.routines });

export const routineQuery = (id: number) =>
  // The bench holds the text while it is open; only opening it asks the shelf.
  queryOptions({ queryKey: ['routine', id], queryFn: () => api.routine(id), staleTime: Infinity, gcTime: 0 });

export const languageQuery = () => queryOptions({ queryKey: ['language'], queryFn: api.language, ...FOR_EVER });

export const readQuery = (text: string) =>
  queryOptions({
    queryKey: ['read', text],
    queryFn: ({ signal }) => api.read(text, signal),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

export const proveQuery = (text: string, lane: 'interactive' | 'long', job?: string) =>
  queryOptions({
    queryKey: ['prove', lane, text],
    queryFn: ({ signal }) => api.prove(text, lane, job, signal),
    placeholderData: lane === 'interactive' ? keepPreviousData : undefined,
    ...FOR_EVER,
  });

export const ledgerQuery = (text: string) =>
  queryOptions({
    queryKey: ['ledger', text],
    queryFn: ({ signal }) => api.ledger(text, signal),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

export const strandsQuery = (text: string) =>
  queryOptions({
    queryKey: ['strands', text],
    queryFn: ({ signal }) => api.strands(text, signal),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

export const notesQuery = (text: string) =>
  queryOptions({ queryKey: ['notes', text], queryFn: ({ signal }) => api.notes(text, signal), ...FOR_EVER });

export const oddsQuery = (text: string) =>
  queryOptions({ queryKey: ['odds', text], queryFn: ({ signal }) => api.odds(text, signal), ...FOR_EVER });

export const familiesQuery = () => queryOptions({ queryKey: ['families'], queryFn: api.families, ...FOR_EVER });

export const versionsQuery = (id: number) => queryOptions({ queryKey: ['versions', id], queryFn: () => api.versions(id) });

export interface Asked {
  choices: Record<string, number>;
  seed: number | null;
  worst: boolean;
}

export const playQuery = (text: string, asked: Asked) =>
  queryOptions({
    queryKey: ['play', text, asked],
    queryFn: ({ signal }) => api.play({ text, ...asked }, signal),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });
