import { useQuery } from '@tanstack/react-query';
import { useProgress } from './useProgress';
import { api } from './client';
import type { Search } from './queries';

/** A search that goes by a name: its answer, how far it is, and how to stop it and go on. */
export function useSearch<T>(query: Search<T>, enabled = true) {
  const { data, error, isFetching, isPlaceholderData, refetch } = useQuery({ ...query, enabled });
  return {
    data,
    /** why it ended without an answer; null while it goes on */
    error: isFetching ? null : error,
    isFetching,
    /** the answer is to what was asked before */
    isOld: isPlaceholderData,
    /** in words; null while it is quick */
    progress: useProgress(isFetching ? query.job : null),
    stop: () => void api.cancel(query.job),
    again: () => void refetch(),
  };
}

/** What is shown of a search while one waits for it. */
export type Underway = Omit<ReturnType<typeof useSearch>, 'data'>;
