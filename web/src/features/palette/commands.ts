import { useEffect, useSyncExternalStore } from 'react';

/** Something the open room can do. Rooms offer their commands while they are open. */
export interface Command {
  id: string;
  label: string;
  group: string;
  /** keys as shown, e.g. "Alt W" */
  keys?: string;
  /** more words to find it by */
  description?: string;
  /** other words to find it by, which are not shown */
  also?: string;
  run: () => void;
}

const offered = new Map<string, Command[]>();
const listeners = new Set<() => void>();
let all: Command[] = [];

function tell() {
  all = [...offered.values()].flat();
  listeners.forEach((listener) => listener());
}

/** Offer these commands while the calling component is shown. `commands` must be stable between renders. */
export function useCommands(room: string, commands: Command[]) {
  useEffect(() => {
    offered.set(room, commands);
    tell();
    return () => {
      offered.delete(room);
      tell();
    };
  }, [room, commands]);
}

export function useAllCommands(): Command[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => all,
  );
}
