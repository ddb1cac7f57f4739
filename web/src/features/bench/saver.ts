import { ApiError, type Routine } from '../../api/client';
import { dropDraft, readDraft, writeDraft, type Draft } from './drafts';

export type SaveState = 'saved' | 'saving' | 'trouble' | 'conflict';

/** Two texts of one routine, and where the one that is not on the shelf comes from. */
export interface Conflict {
  mine: string;
  other: Routine;
  /** 'draft': typed earlier and never saved; 'window': the shelf was changed by another window while typing here */
  from: 'draft' | 'window';
  /** when the draft was typed */
  at: string;
}

export interface Saved {
  state: SaveState;
  /** what keeps the text from being saved, in words */
  trouble: string | null;
  conflict: Conflict | null;
  /** the browser holds a copy of what is not saved yet */
  drafted: boolean;
}

type Save = (id: number, text: string, revision: number) => Promise<Routine>;

export const DELAY = 350;
export const RETRY = 3000;

/**
 * Brings every change of the text to the shelf. It is `saved` only when the shelf has acknowledged exactly this
 * text; until then the browser keeps a draft with the revision it was written on.
 */
export class Saver {
  private wanted: string;
  private acknowledged: string;
  private revision: number;
  private busy = false;
  private told: Saved = { state: 'saved', trouble: null, conflict: null, drafted: true };
  /** what the sheet opens on */
  readonly opening: string;

  constructor(
    private readonly routine: Routine,
    private readonly save: Save,
  ) {
    this.acknowledged = this.wanted = routine.text;
    this.revision = routine.revision;
    const draft = readDraft(routine);
    const differs = draft !== null && draft.text !== routine.text;
    if (draft && !differs) dropDraft(routine);
    if (differs && draft.revision === routine.revision) {
      this.wanted = draft.text; // nobody has saved since: it goes on where it was left
      this.told = { ...this.told, state: 'saving' };
    } else if (differs) {
      this.told = { ...this.told, state: 'conflict', conflict: { mine: draft.text, other: routine, from: 'draft', at: draft.at } };
    }
    this.opening = this.wanted;
  }

  now = () => this.told;

  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Calls back whenever `now` has changed, until the function returned is called. */
  listen = (to: () => void) => {
    this.listeners.add(to);
    return () => {
      this.listeners.delete(to);
    };
  };

  private tell(change: Partial<Saved>) {
    this.told = { ...this.told, ...change };
    for (const listener of this.listeners) listener();
  }

  /** A later call takes the place of an earlier one. */
  private later(delay: number, then: () => void) {
    clearTimeout(this.timer);
    this.timer = setTimeout(then, delay);
  }

  /** The window is left: what is wanted is brought to the shelf at once. */
  end() {
    clearTimeout(this.timer);
    void this.flush();
  }

  /** Goes on with a draft that was left. */
  begin() {
    if (this.wanted !== this.acknowledged) this.later(0, () => void this.flush());
  }

  change(text: string) {
    this.wanted = text;
    if (this.told.conflict?.from === 'draft') {
      // The draft is not decided upon yet: it stays where it is, and what is typed is saved at once.
      this.tell({ state: text === this.acknowledged ? 'conflict' : 'saving', drafted: text === this.acknowledged });
    } else if (text === this.acknowledged && !this.busy) {
      this.settle();
      return;
    } else {
      const drafted = writeDraft(this.routine, this.draft());
      this.tell({ state: this.told.conflict ? 'conflict' : 'saving', drafted });
    }
    this.later(DELAY, () => void this.flush());
  }

  private draft = (): Draft => ({ id: this.routine.id, text: this.wanted, revision: this.revision, at: new Date().toISOString() });

  /** Everything that is wanted is on the shelf. */
  private settle() {
    if (this.told.conflict?.from !== 'draft') dropDraft(this.routine);
    this.tell({ state: this.told.conflict ? 'conflict' : 'saved', trouble: null, drafted: true });
  }

  async flush() {
    if (this.busy || this.told.conflict?.from === 'window') return;
    if (this.wanted === this.acknowledged) {
      this.settle();
      return;
    }
    this.busy = true;
    const text = this.wanted;
    try {
      const kept = await this.save(this.routine.id, text, this.revision);
      this.revision = kept.revision;
      this.acknowledged = text;
      if (this.wanted === text) this.settle();
      else this.later(0, () => void this.flush());
    } catch (error) {
      if (error instanceof ApiError && error.status === 409 && error.told.current) {
        this.meets(error.told.current);
      } else {
        this.tell({ state: 'trouble', trouble: error instanceof ApiError ? error.whole : 'The server does not answer.' });
        this.later(RETRY, () => void this.flush());
      }
    } finally {
      this.busy = false;
    }
  }

  private meets(other: Routine) {
    if (other.text === this.wanted) {
      // The same was saved elsewhere, or an answer was lost on its way.
      this.revision = other.revision;
      this.acknowledged = other.text;
      this.settle();
    } else this.tell({ state: 'conflict', trouble: null, conflict: { mine: this.wanted, other, from: 'window', at: '' } });
  }

  /**
   * What the shelf has, looked up by itself when this window knew the revision `asked`; the text to show where nothing was
   * typed here since. Where this window has saved in between, what comes may be older than that, and is looked up again later.
   */
  heard(other: Routine, asked: number): string | null {
    if (this.busy || asked !== this.revision || other.revision === this.revision || this.told.conflict) return null;
    if (this.wanted !== this.acknowledged) {
      this.meets(other);
      return null;
    }
    this.revision = other.revision;
    if (other.text === this.acknowledged) return null;
    this.acknowledged = this.wanted = other.text;
    return other.text;
  }

  /** The revision this window knows. */
  known = () => this.revision;

  /** Both texts are kept: mine goes on the sheet, the shelf's was made a version. */
  keepMine() {
    const conflict = this.told.conflict;
    if (!conflict) return null;
    this.revision = Math.max(this.revision, conflict.other.revision);
    this.wanted = conflict.from === 'draft' ? conflict.mine : this.wanted;
    this.tell({ state: 'saving', conflict: null, drafted: writeDraft(this.routine, { ...this.draft() }) });
    this.later(0, () => void this.flush());
    return this.wanted;
  }

  /** Both texts are kept: the shelf's stands on the sheet, mine was made a version. */
  takeOther() {
    const conflict = this.told.conflict;
    if (!conflict) return null;
    dropDraft(this.routine);
    if (conflict.from === 'window') {
      this.revision = conflict.other.revision;
      this.acknowledged = this.wanted = conflict.other.text;
    }
    this.tell({ state: this.wanted === this.acknowledged ? 'saved' : 'saving', conflict: null, drafted: true });
    return this.wanted;
  }

  isSaved = () => this.wanted === this.acknowledged && !this.busy;
}
