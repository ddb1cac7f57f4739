import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Routine = Schemas['RoutineOut'];
export type Sheet = Schemas['SheetOut'];
export type SheetLine = Schemas['SheetLine'];
export type NumberInText = Schemas['NumberInText'];
export type Fault = Omit<Schemas['Fault'], 'is_limit'>;
export type Proof = Schemas['ProofOut'];
export type Verdict = Schemas['VerdictReport'];
export type Notes = Schemas['Notes'];
export type Opinion = Schemas['Opinion'];
export type Told = Omit<Schemas['SecondOpinionIn'], 'job'>;
export type Odds = Schemas['OddsReport'];
export type LedgerEntry = Schemas['EntryReport'];
export type Play = Schemas['PlayOnTable'];
export type Frame = Schemas['TableMoment'];
export type Found = Schemas['FoundOut'];
export type Standing = Schemas['StandingIn'];
export type Decision = Schemas['Decision'];
export type ChoicesOfLine = Schemas['ChoicesOfLine'];
export type Strands = Schemas['StrandsReport'];
export type Version = Schemas['VersionOut'];
export type Sweep = Schemas['Sweep'];
export type Slips = Schemas['SlipsReport'];
export type StepKind = Schemas['StepKindOut'];
export type Keep = Schemas['KeepOut'];
export type Coming = Schemas['ComingOut'];
export type Suggestion = Schemas['SuggestionOut'];

export type SheetDocument = Schemas['Document'];
export type SheetKind = Schemas['SheetIn']['kind'];
export type Costs = Schemas['Costs'];
export type Comparison = Schemas['Comparison'];
export type Settings = Schemas['Settings'];
export type Performance = Schemas['Performance'];
export type NewEntry = Schemas['EntryIn'];
export type BookRecord = Schemas['Record'];
export type DeskDrill = Schemas['DeskDrill-Output'];
/** What is drilled: a routine, by its number, or what is learned from a desk, by its uid. */
export type DrillsOf = number | string;
export type BookPick = Schemas['PickRecord'];
export type BookRow = Schemas['TableRow'];
export type Send = Schemas['Send'];
export type Occasion = Schemas['Occasion'];
export type Programme = Schemas['Programme'];
export type RunningOrder = Schemas['RunningOrder'];
export type Wish = Schemas['Wish'];
export type Due = Schemas['Due'];
export type Practised = Schemas['PractisedOut'];
export type BeatDone = Schemas['BeatDone-Output'];
export type Habit = Schemas['RehearseIn']['habit'];

/** What each desk is asked, and what it tells. */
export interface DeskAsks {
  spell: Schemas['SpellingAsks'];
  pickup: Schemas['PickupAsks'];
  stack: Schemas['StackAsks'];
  mix: Schemas['MixAsks'];
  narrow: Schemas['NarrowingAsks'];
  odds: Schemas['OddsAsks'];
}
export interface DeskAnswers {
  spell: Schemas['SpellingAnswers'];
  pickup: Schemas['PickupAnswers'];
  stack: Schemas['StackAnswers'];
  mix: Schemas['MixAnswers'];
  narrow: Schemas['NarrowingAnswers'];
  odds: Schemas['OddsAnswers'];
}
export type DeskName = keyof DeskAsks;
export interface DeskReply<N extends DeskName> {
  answer: DeskAnswers[N] | null;
  tables: Schemas['TableOut'][];
  picture: string | null;
  trouble: Schemas['TroubleOut'] | null;
}

/** Which window this is: each proves for itself. */
export const WINDOW = crypto.randomUUID();

const client = createClient<paths>({ baseUrl: '/', headers: { 'x-window': WINDOW }, fetch: inTurn });

/** A browser opens six connections to one place. Searches that wait leave some of them for what must not wait. */
const MOST_SEARCHES = 4;
const SMALL =
  /^\/api\/(routines|settings|read(-as)?|suggest|jobs|health|keep|removed|language|principles|patter|desks\/send)|^\/api\/desks$|^\/api\/practice(\/desks)?(\/[0-9a-f]+\/(answers|rehearsals))?$|^\/api\/programmes(\/[0-9a-f]+)?$/;
let searching = 0;
const queue: (() => void)[] = [];

async function inTurn(request: Request): Promise<Response> {
  if (SMALL.test(new URL(request.url).pathname)) return fetch(request);
  if (searching >= MOST_SEARCHES) {
    await new Promise<void>((turn, stop) => {
      queue.push(turn);
      request.signal.addEventListener('abort', () => {
        const at = queue.indexOf(turn);
        if (at >= 0) {
          queue.splice(at, 1);
          stop(request.signal.reason as Error);
        }
      });
    });
  } else searching += 1;
  try {
    return await fetch(request);
  } finally {
    const next = queue.shift();
    if (next) next();
    else searching -= 1;
  }
}

/** An error the server told us about, or its silence (status 0). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly told: Partial<Schemas['ErrorOut']>,
  ) {
    super(told.message ?? 'The server does not answer.');
  }

  /** What is the matter, what was saved, and what to do. */
  get whole() {
    return [this.message, this.told.saved, this.told.remedy].filter(Boolean).join(' ');
  }
}

type Reply<T> = { data?: T; error?: unknown; response: Response };

async function value<T>(reply: Promise<Reply<T>>): Promise<T> {
  let answered: Reply<T>;
  try {
    answered = await reply;
  } catch (silence) {
    if (silence instanceof DOMException && silence.name === 'AbortError') throw silence;
    throw new ApiError(0, {});
  }
  if (answered.data === undefined) throw new ApiError(answered.response.status, answered.error ?? {});
  return answered.data;
}

const newJob = () => crypto.randomUUID();

export const api = {
  routines: () => value(client.GET('/api/routines')),
  routine: (id: number) => value(client.GET('/api/routines/{routine_id}', { params: { path: { routine_id: id } } })),
  add: (text: string) => value(client.POST('/api/routines', { body: { text } })),
  save: (id: number, text: string, revision: number) =>
    value(client.PUT('/api/routines/{routine_id}', { params: { path: { routine_id: id } }, body: { text, revision } })),
  remove: (id: number) => value(client.DELETE('/api/routines/{routine_id}', { params: { path: { routine_id: id } } })),
  changeStanding: (id: number, change: Standing) =>
    value(client.PUT('/api/routines/{routine_id}/standing', { params: { path: { routine_id: id } }, body: change })),
  glimpse: (id: number, signal?: AbortSignal) => value(client.GET('/api/glimpses/{routine_id}', { params: { path: { routine_id: id } }, signal })),
  bringBack: (id: number) => value(client.POST('/api/routines/{routine_id}/bring-back', { params: { path: { routine_id: id } } })),
  revision: (id: number) => value(client.GET('/api/routines/{routine_id}/revision', { params: { path: { routine_id: id } } })),
  keepVersion: (id: number, name: string, reason = '', text: string | null = null) =>
    value(client.POST('/api/routines/{routine_id}/versions', { params: { path: { routine_id: id } }, body: { name, reason, text } })),
  principles: () => value(client.GET('/api/principles')),
  principleText: (name: string, values: Record<string, number>, signal?: AbortSignal) =>
    value(client.POST('/api/principles/text', { body: { name, values }, signal })),
  versions: (id: number) => value(client.GET('/api/routines/{routine_id}/versions', { params: { path: { routine_id: id } } })),
  language: () => value(client.GET('/api/language')),
  read: (text: string, signal?: AbortSignal) => value(client.POST('/api/read', { body: { text }, signal })),
  notesPage: (text: string, chosen: Record<string, number>, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/notes-page', { body: { text, chosen, job }, signal })),
  readAs: (text: string, keep_words: boolean, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/read-as', { body: { text, keep_words, job }, signal })),
  suggest: (text: string, line: number, column: number) => value(client.POST('/api/suggest', { body: { text, line, column } })),
  addDemo: () => value(client.POST('/api/routines/demo')),
  find: (text: string, signal?: AbortSignal) => value(client.POST('/api/find', { body: { text, job: newJob() }, signal })),
  prove: (text: string, lane: 'interactive' | 'long', job: string = newJob(), signal?: AbortSignal) =>
    value(client.POST('/api/prove', { body: { text, job, lane }, signal })),
  play: (asked: { text: string; choices: Record<string, number>; seed: number | null; worst: boolean }, signal?: AbortSignal) =>
    value(client.POST('/api/play', { body: { ...asked, job: newJob() }, signal })) as Promise<Play>,
  notes: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/notes', { body: { text, job }, signal })),
  odds: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/odds', { body: { text, job }, signal })),
  ledger: (text: string, card: string | null, job: string, signal?: AbortSignal) => value(client.POST('/api/ledger', { body: { text, card, job }, signal })),
  byHand: (told: Told, job: string, signal?: AbortSignal) => value(client.POST('/api/by-hand', { body: { ...told, job }, signal })),
  strands: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/strands', { body: { text, job }, signal })),
  explain: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/explain', { body: { text, job }, signal })),
  holds: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/holds', { body: { text, job }, signal })),
  slips: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/slips', { body: { text, job }, signal })),
  solve: (text: string, domains: Record<string, string>, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/solve', { body: { text, domains, job }, signal })),
  sweep: (asked: Omit<Schemas['SweepIn'], 'job'>, job: string, signal?: AbortSignal) => value(client.POST('/api/sweep', { body: { ...asked, job }, signal })),
  sheet: (text: string, kind: SheetKind, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/sheet', { body: { text, kind, job }, signal })) as Promise<SheetDocument>,
  costs: (asked: Omit<Schemas['CostsIn'], 'job'>, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/costs', { body: { ...asked, job }, signal })) as Promise<Schemas['CostsOut']>,
  compare: (text: string, other: string, job: string, signal?: AbortSignal) => value(client.POST('/api/compare', { body: { text, other, job }, signal })),
  patter: (text: string) => value(client.POST('/api/patter', { body: { text } })),
  schools: (text: string, job: string, signal?: AbortSignal) => value(client.POST('/api/schools', { body: { text, job }, signal })),
  settings: () => value(client.GET('/api/settings')),
  changeSettings: (settings: Schemas['Settings']) => value(client.PUT('/api/settings', { body: settings })),
  health: () => value(client.GET('/api/health')),
  keep: () => value(client.GET('/api/keep')),
  makeBackup: () => value(client.POST('/api/keep/backups')),
  restoreBackup: (name: string) => value(client.POST('/api/keep/backups/{name}/restore', { params: { path: { name } } })),
  putBack: () => value(client.POST('/api/keep/put-back')),
  workplace: () => value(client.GET('/api/workplace')),
  removed: () => value(client.GET('/api/removed')),
  throwAwayRemoved: () => value(client.DELETE('/api/removed')),
  lookAtArchive: async (archive: Blob): Promise<Coming> => {
    const reply = await fetch('/api/keep/coming/archive', {
      method: 'POST',
      body: archive,
      headers: { 'content-type': 'application/zip', 'x-window': WINDOW },
    }).catch(() => null);
    if (!reply) throw new ApiError(0, {});
    const told = (await reply.json()) as Coming;
    if (!reply.ok) throw new ApiError(reply.status, told as unknown as Schemas['ErrorOut']);
    return told;
  },
  lookAtFiles: (files: { name: string; text: string }[]) => value(client.POST('/api/keep/coming', { body: { files } })),
  takeIn: (token: string, how: Schemas['TakeIn']) => value(client.POST('/api/keep/coming/{token}/take-in', { params: { path: { token } }, body: how })),
  book: () => value(client.GET('/api/book')),
  writeEntry: (entry: NewEntry) => value(client.POST('/api/book', { body: entry })),
  changeEntry: (uid: string, entry: NewEntry) => value(client.PUT('/api/book/{uid}', { params: { path: { uid } }, body: entry })),
  strikeEntry: (uid: string) => value(client.DELETE('/api/book/{uid}', { params: { path: { uid } } })),
  putBackEntry: (entry: Performance) => value(client.POST('/api/book/put-back', { body: entry })),
  picks: (id: number) => value(client.GET('/api/book/picks/{routine_id}', { params: { path: { routine_id: id } } })),
  questions: (id: number) => value(client.GET('/api/book/questions/{routine_id}', { params: { path: { routine_id: id } } })),
  slipsOf: (id: number) => value(client.GET('/api/book/slips/{routine_id}', { params: { path: { routine_id: id } } })),
  spectators: (id: number, signal?: AbortSignal) => value(client.GET('/api/book/spectators/{routine_id}', { params: { path: { routine_id: id } }, signal })),
  lookAtTable: (text: string) => value(client.POST('/api/book/coming', { body: { text } })),
  takeTableIn: (entries: Performance[]) => value(client.POST('/api/book/take-in', { body: entries })),
  programmes: () => value(client.GET('/api/programmes')),
  addProgramme: (occasion: Occasion) => value(client.POST('/api/programmes', { body: occasion })),
  saveProgramme: (uid: string, occasion: Occasion, revision: number) =>
    value(client.PUT('/api/programmes/{uid}', { params: { path: { uid } }, body: { occasion, revision } })),
  strikeProgramme: (uid: string) => value(client.DELETE('/api/programmes/{uid}', { params: { path: { uid } } })),
  putBackProgramme: (gone: Programme) => value(client.POST('/api/programmes/put-back', { body: gone })),
  runningOrder: (uid: string, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/programmes/{uid}/running-order', { params: { path: { uid } }, body: { job }, signal })),
  bestOrder: (uid: string, job: string, signal?: AbortSignal) =>
    value(client.POST('/api/programmes/{uid}/best-order', { params: { path: { uid } }, body: { job }, signal })),
  writePlayed: (uid: string, how: Schemas['PlayedIn']) => value(client.POST('/api/programmes/{uid}/played', { params: { path: { uid } }, body: how })),
  deskDrills: () => value(client.GET('/api/practice/desks')),
  learnFromDesk: (desk: string, title: string, asks: Record<string, unknown>) => value(client.POST('/api/practice/desks', { body: { desk, title, asks } })),
  dropDeskDrill: (uid: string) => value(client.DELETE('/api/practice/desks/{uid}', { params: { path: { uid } } })),
  putBackDeskDrill: (gone: DeskDrill) => value(client.POST('/api/practice/desks/put-back', { body: gone })),
  practised: () => value(client.GET('/api/practice')),
  drills: (of: DrillsOf, signal?: AbortSignal) =>
    typeof of === 'number'
      ? value(client.GET('/api/practice/{routine_id}/drills', { params: { path: { routine_id: of } }, signal }))
      : value(client.GET('/api/practice/desks/{uid}/drills', { params: { path: { uid: of } }, signal })),
  answer: (of: DrillsOf, answer: Schemas['AnswerIn']) =>
    typeof of === 'number'
      ? value(client.POST('/api/practice/{routine_id}/answers', { params: { path: { routine_id: of } }, body: answer }))
      : value(client.POST('/api/practice/desks/{uid}/answers', { params: { path: { uid: of } }, body: answer })),
  rehearse: (id: number, habit: Habit, seed: number, signal?: AbortSignal) =>
    value(client.POST('/api/practice/{routine_id}/rehearse', { params: { path: { routine_id: id } }, body: { habit, seed, job: newJob() }, signal })),
  writeRehearsal: (id: number, told: Schemas['RehearsedIn']) =>
    value(client.PUT('/api/practice/{routine_id}/rehearsals', { params: { path: { routine_id: id } }, body: told })),
  times: (id: number) => value(client.GET('/api/practice/{routine_id}/times', { params: { path: { routine_id: id } } })),
  desks: () => value(client.GET('/api/desks')),
  /** All desks have one shape of request and reply; which asks and answers go together, their names say. */
  desk: <N extends DeskName>(name: N, asks: DeskAsks[N], job: string, lane: 'interactive' | 'long', signal?: AbortSignal) =>
    value(client.POST(`/api/desks/${name}` as '/api/desks/spell', { body: { asks: asks as never, job, lane }, signal })) as unknown as Promise<DeskReply<N>>,
  send: (text: string, send: Send) => value(client.POST('/api/desks/send', { body: { text, send } })),
  progress: (name: string) => value(client.GET('/api/jobs/{name}', { params: { path: { name } } })),
  /** A search that has ended, or a server that is gone, needs no stopping. */
  cancel: (name: string) => value(client.POST('/api/jobs/{name}/cancel', { params: { path: { name } } })).catch(() => null),
};
