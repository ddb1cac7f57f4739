import type { NewEntry } from '../../api/client';

const name = (uid: string) => `entry draft ${uid}`;

/** What was typed of an entry and is not in the book yet; of a new one under the empty uid. */
export function entryDraft(uid: string): NewEntry | null {
  try {
    return JSON.parse(localStorage.getItem(name(uid)) ?? 'null') as NewEntry | null;
  } catch {
    return null;
  }
}

export function keepEntryDraft(uid: string, entry: NewEntry) {
  try {
    localStorage.setItem(name(uid), JSON.stringify(entry));
  } catch {
    // A browser without room keeps no draft; what stands on the screen is still there.
  }
}

export const dropEntryDraft = (uid: string) => localStorage.removeItem(name(uid));
