import { MutationCache, QueryClient } from '@tanstack/react-query';
import { refused } from '../ui/refused';
import { ApiError } from './client';

/** In a window the newest text wins. Where an older request was overtaken on its way and came last, the one that is wanted is sent again. */
const overtaken = (times: number, error: Error) => error instanceof ApiError && error.status === 409 && times < 5;

/** For what says itself, where it was asked for, why it was refused. */
export const TOLD_HERE = { meta: { toldHere: true } };

// The server is on this machine: an answer to a text never goes stale, and "offline" means nothing.
export const newQueryClient = () =>
  new QueryClient({
    defaultOptions: {
      queries: { networkMode: 'always', retry: overtaken, retryDelay: 100, refetchOnWindowFocus: false },
      mutations: { networkMode: 'always' },
    },
    mutationCache: new MutationCache({ onError: (error, _asked, _context, mutation) => void (mutation.meta?.toldHere || refused(error)) }),
  });
