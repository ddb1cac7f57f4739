// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, useLocation } from 'react-router';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { ApiError, api, type DeskAsks, type DeskReply } from '../../api/client';
import { useDesk } from './useDesk';

const OPENING = { cards: 24, chain: ['Cut in half'] } as unknown as DeskAsks['mix'];

/** The desk's answer is what it was asked, so that one sees which question it belongs to. */
const reply = (asks: DeskAsks['mix'], trouble: DeskReply<'mix'>['trouble'] = null) =>
  ({ answer: trouble ? null : asks, tables: [], picture: null, trouble }) as unknown as DeskReply<'mix'>;

beforeEach(() => {
  vi.spyOn(api, 'desk').mockImplementation(async (_, asks) => reply(asks as DeskAsks['mix']));
  vi.spyOn(api, 'cancel').mockResolvedValue(null);
});
afterEach(() => vi.restoreAllMocks());

function desk(address = '') {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[`/desks/mix${address}`]}>{children}</MemoryRouter>
    </QueryClientProvider>
  );
  return renderHook(() => ({ desk: useDesk('mix', OPENING), where: useLocation().search }), { wrapper }).result;
}

test('a desk opens on its example and answers it', async () => {
  const result = desk();
  await waitFor(() => expect(result.current.desk.answer).toEqual(OPENING));
});

test('what is asked stands in the address, as far as it differs, and is read from it', async () => {
  const result = desk(`?asks=${encodeURIComponent('{"cards":8,"nonsense":1}')}`);
  expect(result.current.desk.asks).toEqual({ ...OPENING, cards: 8 });
  act(() => result.current.desk.set({ chain: ['Cut in half', 'Cut in half'] }));
  await waitFor(() => expect(decodeURIComponent(result.current.where)).toContain('Cut+in+half'));
  await waitFor(() => expect(result.current.desk.answer).toMatchObject({ cards: 8, chain: ['Cut in half', 'Cut in half'] }));
});

test('two changes before the address has followed are both kept', async () => {
  const result = desk();
  act(() => {
    result.current.desk.set({ cards: 10 });
    result.current.desk.set({ chain: [] });
  });
  await waitFor(() => expect(result.current.desk.asks).toMatchObject({ cards: 10, chain: [] }));
});

test('while a question makes no sense the answer before stays, and the trouble stands at its field', async () => {
  const result = desk();
  await waitFor(() => expect(result.current.desk.answer).toEqual(OPENING));
  vi.mocked(api.desk).mockImplementation(async (_, asks) => reply(asks as DeskAsks['mix'], { field: 'cards', message: 'Too many.', remedy: 'Take fewer.' }));
  act(() => result.current.desk.set({ cards: 1000 }));
  await waitFor(() => expect(result.current.desk.troubleOf('cards')).toBe('Too many. Take fewer.'));
  expect(result.current.desk.answer).toEqual(OPENING);
  expect(result.current.desk.old).toBe(true);
});

test('a server that is silent, and a search that was stopped, are told apart', async () => {
  vi.mocked(api.desk).mockRejectedValue(new ApiError(0, {}));
  const silent = desk();
  await waitFor(() => expect(silent.current.desk.stopped).toBe('The server does not answer.'));
  vi.mocked(api.desk).mockRejectedValue(new ApiError(410, { message: 'gone' }));
  const stopped = desk();
  await waitFor(() => expect(stopped.current.desk.stopped).toBe('The search was stopped.'));
});

test('searching on asks the lane for long work, with a change if there is one', async () => {
  const result = desk();
  await waitFor(() => expect(result.current.desk.answer).toEqual(OPENING));
  act(() => result.current.desk.longer({ cards: 12 }));
  await waitFor(() => expect(result.current.desk.answer).toMatchObject({ cards: 12 }));
  expect(vi.mocked(api.desk).mock.calls.at(-1)?.[3]).toBe('long');
});
