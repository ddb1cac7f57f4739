import type { Routine } from '../../api/client';

/** A text that was typed and not yet acknowledged by the shelf, as the browser keeps it. */
export interface Draft {
  id: number;
  text: string;
  /** the shelf's revision that it was written on */
  revision: number;
  /** when it was typed, ISO 8601; '' where that is not known */
  at: string;
}

type Stands = Pick<Routine, 'id' | 'uid' | 'shelf'>;

const key = (of: Stands) => `draft ${of.shelf} ${of.uid}`;

function stored(name: string): Draft | null {
  try {
    const found = JSON.parse(localStorage.getItem(name) ?? 'null') as Partial<Draft> | null;
    return found && typeof found.text === 'string' ? { id: found.id ?? 0, text: found.text, revision: found.revision ?? -1, at: found.at ?? '' } : null;
  } catch {
    return null;
  }
}

export const readDraft = (of: Stands): Draft | null => stored(key(of));

/** Whether the browser keeps it; full or forbidden storage keeps nothing. */
export function writeDraft(of: Stands, draft: Draft): boolean {
  try {
    localStorage.setItem(key(of), JSON.stringify(draft));
    return true;
  } catch {
    // What was kept before is older than what was typed: better none than a wrong one.
    dropDraft(of);
    return false;
  }
}

export function dropDraft(of: Stands) {
  try {
    localStorage.removeItem(key(of));
  } catch {
    // Nothing can be kept, so there is nothing to drop.
  }
}

/** The draft of a routine that is no longer on this shelf. */
export function draftOfMissing(shelf: string, id: number): Draft | null {
  try {
    return (
      Object.keys(localStorage)
        .filter((name) => name.startsWith(`draft ${shelf} `))
        .map(stored)
        .find((draft) => draft?.id === id) ?? null
    );
  } catch {
    return null;
  }
}

export function dropDraftOfMissing(shelf: string, id: number) {
  for (const name of Object.keys(localStorage)) if (name.startsWith(`draft ${shelf} `) && stored(name)?.id === id) localStorage.removeItem(name);
}
