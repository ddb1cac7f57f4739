import { useCallback, useLayoutEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { ApiError, type DeskAsks, type DeskName, type DeskReply } from '../../api/client';
import { deskQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { useSettled } from '../../ui/useSettled';
import { fromAddress, toAddress } from './asks';

/** Changes closer together than this are one step of the browser's way back. */
const PAUSE = 1200;

export interface DeskState<N extends DeskName> {
  name: N;
  asks: DeskAsks[N];
  set: (change: Partial<DeskAsks[N]>) => void;
  reply: DeskReply<N> | undefined;
  answer: DeskReply<N>['answer'];
  /** what is the matter with a field, for its error line */
  troubleOf: (field: keyof DeskAsks[N]) => string | undefined;
  /** the answer shown is to an older question */
  old: boolean;
  /** how far the search is, in words; null while it is quick */
  progress: string | null;
  stopped: string | null;
  stop: () => void;
  /** search on, for as long as it takes; with a change to what is asked */
  longer: (change?: Partial<DeskAsks[N]>) => void;
  address: string;
}

/** One desk: what is asked stands in the address, the answer follows as one types. */
export function useDesk<N extends DeskName>(name: N, opening: DeskAsks[N]): DeskState<N> {
  const [search, setSearch] = useSearchParams();
  const address = search.get('asks') ?? '{}';
  const asks = fromAddress(address, opening);
  const changed = useRef(0);
  // Two changes can come before the address has followed the first.
  const latest = useRef(asks);
  const underway = useRef<string[]>([]);
  useLayoutEffect(() => {
    const arrived = underway.current.indexOf(address);
    if (arrived >= 0) underway.current = underway.current.slice(arrived + 1);
    else {
      // Someone went back, or followed a link.
      underway.current = [];
      latest.current = fromAddress(address, opening);
    }
  }, [address, opening]);
  const set = useCallback(
    (change: Partial<DeskAsks[N]>) => {
      const replace = Date.now() - changed.current < PAUSE;
      changed.current = Date.now();
      latest.current = { ...latest.current, ...change };
      const asked = toAddress(latest.current, opening);
      underway.current.push(asked);
      setSearch(
        (before) => {
          const next = new URLSearchParams(before);
          next.set('asks', asked);
          return next;
        },
        { replace },
      );
    },
    [setSearch, opening],
  );
  const settled = useSettled(JSON.stringify(asks), 60);
  const [long, setLong] = useState<string | null>(null);
  const lane = long === settled ? 'long' : 'interactive';
  const { data, error, isFetching, isOld, progress, stop } = useSearch(deskQuery(name, JSON.parse(settled) as DeskAsks[N], lane));
  const trouble = data?.trouble ?? null;
  // While a question makes no sense, the answer to the one before stays in view.
  const [last, setLast] = useState<DeskReply<N> | undefined>();
  if (data?.answer && data !== last) setLast(data);
  const reply = data?.answer ? data : last;
  const silent = error instanceof ApiError && error.status === 0;
  return {
    name,
    asks,
    set,
    reply,
    answer: reply?.answer ?? null,
    troubleOf: (field) => (trouble?.field === field ? `${trouble.message} ${trouble.remedy}` : undefined),
    old: isFetching || isOld || trouble !== null || JSON.stringify(asks) !== settled,
    progress: isFetching && progress !== null ? progress || 'Searching…' : null,
    stopped: isFetching
      ? null
      : silent
        ? 'The server does not answer.'
        : error
          ? 'The search was stopped.'
          : trouble && trouble.field === ''
            ? trouble.message
            : null,
    stop,
    longer: (change = {}) => {
      setLong(JSON.stringify({ ...asks, ...change }));
      set(change);
    },
    address,
  };
}
