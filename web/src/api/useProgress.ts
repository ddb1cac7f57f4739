import { useQuery } from '@tanstack/react-query';
import { api } from './client';

const WAITING = { progress: 'waiting' };

/** How far a long proof is, in words; null while there is nothing to say. Short ones are over before the first look. */
export function useProgress(job: string | null): string | null {
  const { data } = useQuery({
    queryKey: ['progress', job],
    queryFn: () => api.progress(job ?? ''),
    enabled: job !== null,
    // A look at once would come before there is anything to see.
    initialData: WAITING,
    staleTime: Infinity,
    refetchInterval: 400,
    gcTime: 0,
  });
  return job !== null && data && data.progress !== 'waiting' ? data.progress : null;
}
