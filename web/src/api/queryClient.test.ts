import { notifications } from '@mantine/notifications';
import { afterEach, expect, test, vi } from 'vitest';
import { ApiError, api, type Proof } from './client';
import { deskQuery, proveQuery } from './queries';
import { TOLD_HERE, newQueryClient } from './queryClient';

const PROOF = { verdict: null, faults: [] } as Proof;
const OVERTAKEN = new ApiError(409, { message: 'A newer text took its place.' });

afterEach(() => vi.restoreAllMocks());

test('the verdict comes although an older request reached the server last', async () => {
  const prove = vi.spyOn(api, 'prove').mockRejectedValueOnce(OVERTAKEN).mockRejectedValueOnce(OVERTAKEN).mockResolvedValue(PROOF);
  expect(await newQueryClient().fetchQuery({ ...proveQuery('Pack: 9 cards', 'interactive') })).toBe(PROOF);
  expect(prove).toHaveBeenCalledTimes(3);
});

test('so does the answer of a desk', async () => {
  const desk = vi
    .spyOn(api, 'desk')
    .mockRejectedValueOnce(OVERTAKEN)
    .mockResolvedValue(null as never);
  await newQueryClient().fetchQuery(deskQuery('mix', {} as never, 'interactive'));
  expect(desk).toHaveBeenCalledTimes(2);
});

test('what was stopped, or cannot be, is not asked again', async () => {
  for (const status of [0, 410, 422, 500]) {
    const prove = vi.spyOn(api, 'prove').mockRejectedValue(new ApiError(status, {}));
    prove.mockClear();
    await expect(newQueryClient().fetchQuery({ ...proveQuery('Pack: 9 cards', 'interactive') })).rejects.toThrow();
    expect(prove).toHaveBeenCalledTimes(1);
  }
});

test('one that is never let through ends', async () => {
  const prove = vi.spyOn(api, 'prove').mockRejectedValue(OVERTAKEN);
  await expect(newQueryClient().fetchQuery({ ...proveQuery('Pack: 9 cards', 'interactive') })).rejects.toThrow();
  expect(prove.mock.calls.length).toBeLessThan(10);
});

test('what is refused is said once: by the window, or where it was asked for', async () => {
  const show = vi.spyOn(notifications, 'show').mockReturnValue('1');
  const refused = () => Promise.reject(new ApiError(507, { message: 'The disk is full.', saved: 'Nothing was saved.' }));
  const client = newQueryClient();
  const asked = (more: object) =>
    client
      .getMutationCache()
      .build(client, { mutationFn: refused, ...more })
      .execute(undefined);
  await expect(asked({})).rejects.toThrow();
  expect(show).toHaveBeenCalledExactlyOnceWith({ color: 'red', title: 'Nothing was changed', message: 'The disk is full. Nothing was saved.' });
  await expect(asked(TOLD_HERE)).rejects.toThrow();
  expect(show).toHaveBeenCalledTimes(1);
});
