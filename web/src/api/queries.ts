import { keepPreviousData, queryOptions, type QueryKey } from '@tanstack/react-query';
import { WINDOW, api, type DeskAsks, type DeskName, type DrillsOf, type Habit, type Routine, type Schemas, type SheetKind, type Told } from './client';

/** What is computed from a text is the same for ever, so it is kept by its text. */
const FOR_EVER = { staleTime: Infinity, gcTime: 10 * 60_000 };

type Ask<T> = (job: string, signal: AbortSignal) => Promise<T>;

/** A question to the workers. The server ends the work by itself when the connection closes; a word may be quicker. */
function asking<T>(queryKey: QueryKey, ask: Ask<T>, job: () => string = () => crypto.randomUUID()) {
  return queryOptions({
    queryKey,
    queryFn: ({ signal }) => {
      const name = job();
      signal.addEventListener('abort', () => void api.cancel(name));
      return ask(name, signal);
    },
    ...FOR_EVER,
  });
}

/** One that takes its time: it goes by a name, the same for the same question in one window. */
function searching<T>(kind: string, question: unknown, ask: Ask<T>) {
  const asked = `${kind} ${JSON.stringify(question)}`;
  let hash = 5381;
  for (const letter of asked) hash = (hash * 33 + (letter.codePointAt(0) ?? 0)) >>> 0;
  const job = `${kind} ${hash} ${WINDOW}`;
  return { ...asking([kind, question], ask, () => job), job };
}

export type Search<T> = ReturnType<typeof searching<T>>;

/** What was found for the question before stays in view. */
const KEEPING = { placeholderData: keepPreviousData };

export const routinesQuery = () =>
  // Another window may have changed the shelf.
  queryOptions({ queryKey: ['routines'], queryFn: api.routines, refetchOnWindowFocus: 'always' });

export const routineQuery = (id: number) =>
  // The bench holds the text while it is open; only opening it asks the shelf.
  queryOptions({ queryKey: ['routine', id], queryFn: () => api.routine(id), staleTime: Infinity, gcTime: 0 });

/** What the shelf has now, for what is printed from it. */
export const savedRoutineQuery = (id: number) => queryOptions({ queryKey: ['saved routine', id], queryFn: () => api.routine(id), gcTime: 0 });

export const languageQuery = () => queryOptions({ queryKey: ['language'], queryFn: api.language, ...FOR_EVER });

export const readQuery = (text: string) => ({ ...asking(['read', text], (_, signal) => api.read(text, signal)), ...KEEPING });

/** A page of notes, sentence by sentence. */
export const notesPageQuery = (text: string, chosen: Record<string, number>) => ({
  ...asking(['notes page', text, chosen], (job, signal) => api.notesPage(text, chosen, job, signal)),
  ...KEEPING,
});

/** How lines in everyday words can be read. */
export const readAsQuery = (text: string, keepWords: boolean) =>
  asking(['read as', text, keepWords], (job, signal) => api.readAs(text, keepWords, job, signal));

export const proveQuery = (text: string, lane: 'interactive' | 'long', job?: string) =>
  queryOptions({
    queryKey: ['prove', lane, text],
    queryFn: ({ signal }) => api.prove(text, lane, job, signal),
    placeholderData: lane === 'interactive' ? keepPreviousData : undefined,
    ...FOR_EVER,
  });

/** What the shelf says of a text. */
export const findQuery = (text: string) => queryOptions({ queryKey: ['find', text], queryFn: ({ signal }) => api.find(text, signal), ...FOR_EVER });

/** The ways of its card, small. */
export const glimpseQuery = (routine: Routine) =>
  queryOptions({ queryKey: ['glimpse', routine.text], queryFn: ({ signal }) => api.glimpse(routine.id, signal), retry: false, ...FOR_EVER });

export const ledgerQuery = (text: string, card: string | null) => ({
  ...asking(['ledger', text, card], (job, signal) => api.ledger(text, card, job, signal)),
  ...KEEPING,
});

/** What was told of a text, held against the same routine played by hand. */
export const byHandQuery = (told: Told | null) => ({
  ...asking(['by hand', told && [told.text, told.ledger?.card, Boolean(told.odds)]], (job, signal) =>
    told ? api.byHand(told, job, signal) : Promise.reject(new Error('nothing is told yet')),
  ),
  enabled: told !== null,
  retry: false,
});

export const strandsQuery = (text: string) => ({ ...asking(['strands', text], (job, signal) => api.strands(text, job, signal)), ...KEEPING });

export const notesQuery = (text: string) => ({ ...asking(['notes', text], (job, signal) => api.notes(text, job, signal)), ...KEEPING });

export const oddsQuery = (text: string) => ({ ...searching('odds', text, (job, signal) => api.odds(text, job, signal)), ...KEEPING });

export const principlesQuery = () => queryOptions({ queryKey: ['principles'], queryFn: api.principles, ...FOR_EVER });

/** The routine of a principle with these numbers in it. */
export const principleTextQuery = (name: string, values: Record<string, number>) =>
  queryOptions({
    queryKey: ['principle text', name, values],
    queryFn: ({ signal }) => api.principleText(name, values, signal),
    ...KEEPING,
    ...FOR_EVER,
  });

export const versionsQuery = (id: number) => queryOptions({ queryKey: ['versions', id], queryFn: () => api.versions(id) });

/** The answer to what is asked now, not one to what was asked before. */
export function known<T>({ data, isPlaceholderData }: { data: T | undefined; isPlaceholderData: boolean }): T | undefined {
  return isPlaceholderData ? undefined : data;
}

export interface Asked {
  choices: Record<string, number>;
  seed: number | null;
  worst: boolean;
}

export const playQuery = (text: string, asked: Asked) => ({
  ...asking(['play', text, asked], (_, signal) => api.play({ text, ...asked }, signal)),
  ...KEEPING,
});

export const explainQuery = (text: string) => asking(['explain', text], (job, signal) => api.explain(text, job, signal));

export const holdsQuery = (text: string) => asking(['holds', text], (job, signal) => api.holds(text, job, signal));

export const desksQuery = () => queryOptions({ queryKey: ['desks'], queryFn: api.desks, ...FOR_EVER, retry: 3 });

export const slipsQuery = (text: string) => searching('slips', text, (job, signal) => api.slips(text, job, signal));

export const solveQuery = (text: string, domains: Record<string, string>) =>
  searching('solve', [text, domains], (job, signal) => api.solve(text, domains, job, signal));

export interface SweepAsked {
  text: string;
  varies: { line: number; start: number }[];
  domains: Record<string, string>;
}

export const sweepQuery = (asked: SweepAsked) => searching('sweep', asked, (job, signal) => api.sweep(asked, job, signal));

export const deskQuery = <N extends DeskName>(name: N, asks: DeskAsks[N], lane: 'interactive' | 'long') => ({
  ...searching('desk', [name, lane, asks], (job, signal) => api.desk(name, asks, job, lane, signal)),
  ...KEEPING,
});

export const bookQuery = () => queryOptions({ queryKey: ['book'], queryFn: api.book });

export const picksQuery = (id: number) => queryOptions({ queryKey: ['book picks', id], queryFn: () => api.picks(id) });
export const questionsQuery = (id: number) => queryOptions({ queryKey: ['book questions', id], queryFn: () => api.questions(id) });

export const slipsOfQuery = (id: number) => queryOptions({ queryKey: ['book', 'slips', id], queryFn: () => api.slipsOf(id) });

export const spectatorsQuery = (id: number) => queryOptions({ queryKey: ['book', 'spectators', id], queryFn: ({ signal }) => api.spectators(id, signal) });

export const programmesQuery = () => queryOptions({ queryKey: ['programmes'], queryFn: api.programmes });

/** Of a programme as it was saved at this revision. */
export const runningOrderQuery = (uid: string, revision: number) => ({
  ...searching('running order', [uid, revision], (job, signal) => api.runningOrder(uid, job, signal)),
  ...KEEPING,
});

export const bestOrderQuery = (uid: string, revision: number) => searching('best order', [uid, revision], (job, signal) => api.bestOrder(uid, job, signal));

export const practisedQuery = () => queryOptions({ queryKey: ['practised'], queryFn: api.practised });

export const drillsQuery = (of: DrillsOf) => queryOptions({ queryKey: ['drills', of], queryFn: ({ signal }) => api.drills(of, signal), gcTime: 0 });

export const deskDrillsQuery = () => queryOptions({ queryKey: ['desk drills'], queryFn: api.deskDrills });

export const rehearsalQuery = (id: number, habit: Habit, seed: number) =>
  queryOptions({ queryKey: ['rehearsal', id, habit, seed], queryFn: ({ signal }) => api.rehearse(id, habit, seed, signal), ...FOR_EVER });

export const timesQuery = (id: number) => queryOptions({ queryKey: ['times', id], queryFn: () => api.times(id), gcTime: 0 });

export const keepQuery = () => queryOptions({ queryKey: ['keep'], queryFn: api.keep });

export const removedQuery = () => queryOptions({ queryKey: ['removed'], queryFn: api.removed });

export const workplaceQuery = () => queryOptions({ queryKey: ['workplace'], queryFn: api.workplace });

export const settingsQuery = () => queryOptions({ queryKey: ['settings'], queryFn: api.settings });

/** Sheets and costs go by the paces in the settings, so they are kept by these as well. */
export const sheetQuery = (text: string, kind: SheetKind, paces: unknown) =>
  searching('sheet', [kind, text, paces], (job, signal) => api.sheet(text, kind, job, signal));

export const costsQuery = (asked: Omit<Schemas['CostsIn'], 'job'>, paces: unknown) => ({
  ...searching('costs', [asked, paces], (job, signal) => api.costs(asked, job, signal)),
  ...KEEPING,
});

export const compareQuery = (text: string, other: string, paces: unknown) =>
  searching('compare', [text, other, paces], (job, signal) => api.compare(text, other, job, signal));

export const schoolsQuery = (text: string) => searching('schools', text, (job, signal) => api.schools(text, job, signal));
