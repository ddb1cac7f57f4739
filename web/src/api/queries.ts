import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { WINDOW, api, type DeskAsks, type DeskName, type Schemas, type SheetKind } from './client';

/** What is computed from a text is the same for ever, so it is kept by its text. */
const FOR_EVER = { staleTime: Infinity, gcTime: 10 * 60_000 };

/** A search that nobody waits for any more is stopped. */
function stopping<T>(job: string, signal: AbortSignal, asked: Promise<T>): Promise<T> {
  // The server ends it by itself when the connection closes; a word may be quicker.
  signal.addEventListener('abort', () => void api.cancel(job));
  return asked;
}

/** The same for work that goes by no name of its own. */
function unlessGone<T>(signal: AbortSignal, ask: (job: string) => Promise<T>): Promise<T> {
  const job = crypto.randomUUID();
  return stopping(job, signal, ask(job));
}

export const routinesQuery = () =>
  // Another window may have changed the shelf.
  queryOptions({ queryKey: ['routines'], queryFn: api.routines, refetchOnWindowFocus: 'always' });

export const routineQuery = (id: number) =>
  // The bench holds the text while it is open; only opening it asks the shelf.
  queryOptions({ queryKey: ['routine', id], queryFn: () => api.routine(id), staleTime: Infinity, gcTime: 0 });

/** What the shelf has now, for what is printed from it. */
export const savedRoutineQuery = (id: number) => queryOptions({ queryKey: ['saved routine', id], queryFn: () => api.routine(id), gcTime: 0 });

export const languageQuery = () => queryOptions({ queryKey: ['language'], queryFn: api.language, ...FOR_EVER });

export const readQuery = (text: string) =>
  queryOptions({
    queryKey: ['read', text],
    queryFn: ({ signal }) => api.read(text, signal),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

/** A page of notes, sentence by sentence. */
export const notesPageQuery = (text: string, chosen: Record<string, number>) =>
  queryOptions({
    queryKey: ['notes page', text, chosen],
    queryFn: ({ signal }) => unlessGone(signal, (job) => api.notesPage(text, chosen, job, signal)),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

/** How lines in everyday words can be read. */
export const readAsQuery = (text: string, keepWords: boolean) =>
  queryOptions({ queryKey: ['read as', text, keepWords], queryFn: ({ signal }) => unlessGone(signal, (job) => api.readAs(text, keepWords, job, signal)), ...FOR_EVER });

export const proveQuery = (text: string, lane: 'interactive' | 'long', job?: string) =>
  queryOptions({
    queryKey: ['prove', lane, text],
    queryFn: ({ signal }) => api.prove(text, lane, job, signal),
    placeholderData: lane === 'interactive' ? keepPreviousData : undefined,
    ...FOR_EVER,
  });

export const ledgerQuery = (text: string, card: string | null) =>
  queryOptions({
    queryKey: ['ledger', text, card],
    queryFn: ({ signal }) => unlessGone(signal, (job) => api.ledger(text, card, job, signal)),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

export const strandsQuery = (text: string) =>
  queryOptions({
    queryKey: ['strands', text],
    queryFn: ({ signal }) => unlessGone(signal, (job) => api.strands(text, job, signal)),
    placeholderData: keepPreviousData,
    ...FOR_EVER,
  });

export const notesQuery = (text: string) =>
  queryOptions({ queryKey: ['notes', text], queryFn: ({ signal }) => unlessGone(signal, (job) => api.notes(text, job, signal)), ...FOR_EVER });

export const oddsQuery = (text: string) =>
  queryOptions({ queryKey: ['odds', text], queryFn: ({ signal }) => unlessGone(signal, (job) => api.odds(text, job, signal)), ...FOR_EVER });

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

export const explainQuery = (text: string) =>
  queryOptions({ queryKey: ['explain', text], queryFn: ({ signal }) => unlessGone(signal, (job) => api.explain(text, job, signal)), ...FOR_EVER });

export const holdsQuery = (text: string) =>
  queryOptions({ queryKey: ['holds', text], queryFn: ({ signal }) => unlessGone(signal, (job) => api.holds(text, job, signal)), ...FOR_EVER });

export const desksQuery = () => queryOptions({ queryKey: ['desks'], queryFn: api.desks, ...FOR_EVER, retry: 3 });

/** The name of a long search, the same for the same question in one window. */
function jobOf(...question: string[]): string {
  let hash = 5381;
  for (const letter of question.join(' ')) hash = (hash * 33 + (letter.codePointAt(0) ?? 0)) >>> 0;
  return `${question[0]} ${hash} ${WINDOW}`;
}

const ONCE = { ...FOR_EVER, retry: false };

export const slipsQuery = (text: string) => {
  const job = jobOf('slips', text);
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.slips(text, job, signal));
  return { ...queryOptions({ queryKey: ['slips', text], queryFn, ...ONCE }), job };
};

export const solveQuery = (text: string, domains: Record<string, string[]>) => {
  const job = jobOf('solve', text, JSON.stringify(domains));
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.solve(text, domains, job, signal));
  return { ...queryOptions({ queryKey: ['solve', text, domains], queryFn, ...ONCE }), job };
};

export interface SweepAsked {
  text: string;
  domains: Record<string, string[]>;
}

export const sweepQuery = ({ text, domains }: SweepAsked) => {
  const job = jobOf('sweep', text, JSON.stringify(domains));
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.sweep(text, domains, job, signal));
  return { ...queryOptions({ queryKey: ['sweep', text, domains], queryFn, ...ONCE }), job };
};

export const deskQuery = <N extends DeskName>(name: N, asks: DeskAsks[N], lane: 'interactive' | 'long') => {
  const job = jobOf('desk', name, lane, JSON.stringify(asks));
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.desk(name, asks, job, lane, signal));
  return { ...queryOptions({ queryKey: ['desk', name, lane, asks], queryFn, placeholderData: keepPreviousData, ...ONCE }), job };
};

export const keepQuery = () => queryOptions({ queryKey: ['keep'], queryFn: api.keep });

export const removedQuery = () => queryOptions({ queryKey: ['removed'], queryFn: api.removed });

export const settingsQuery = () => queryOptions({ queryKey: ['settings'], queryFn: api.settings });

/** Sheets and costs go by the paces in the settings, so they are kept by these as well. */
export const sheetQuery = (text: string, kind: SheetKind, paces: unknown) => {
  const job = jobOf('sheet', kind, text, JSON.stringify(paces));
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.sheet(text, kind, job, signal));
  return { ...queryOptions({ queryKey: ['sheet', kind, text, paces], queryFn, ...ONCE }), job };
};

export const costsQuery = (asked: Omit<Schemas['CostsIn'], 'job'>, paces: unknown) => {
  const job = jobOf('costs', JSON.stringify([asked, paces]));
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.costs(asked, job, signal));
  return { ...queryOptions({ queryKey: ['costs', asked, paces], queryFn, placeholderData: keepPreviousData, ...ONCE }), job };
};

export const compareQuery = (text: string, other: string, paces: unknown) => {
  const job = jobOf('compare', JSON.stringify([text, other, paces]));
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.compare(text, other, job, signal));
  return { ...queryOptions({ queryKey: ['compare', text, other, paces], queryFn, ...ONCE }), job };
};

export const schoolsQuery = (text: string) => {
  const job = jobOf('schools', text);
  const queryFn = ({ signal }: { signal: AbortSignal }) => stopping(job, signal, api.schools(text, job, signal));
  return { ...queryOptions({ queryKey: ['schools', text], queryFn, ...ONCE }), job };
};
