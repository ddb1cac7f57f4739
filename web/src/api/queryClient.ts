import { QueryClient } from '@tanstack/react-query';
import { ApiError } from './client';

/** In a window the newest text wins. Where an older request was overtaken on its way and came last, the one that is wanted is sent again. */
const overtaken = (times: number, error: Error) => error instanceof ApiError && error.status === 409 && times < 5;

// The server is on this machine: an answer to a text never goes stale, and "offline" means nothing.
export const newQueryClient = () =>
  new QueryClient({ defaultOptions: { queries: { networkMode: 'always', retry: overtaken, retryDelay: 100, refetchOnWindowFocus: false } } });
