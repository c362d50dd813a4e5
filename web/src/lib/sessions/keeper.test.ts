import { expect, it, vi } from 'vitest';
import { Keeper } from './keeper.svelte';
import { log } from './log';
import { outbox } from './outbox.svelte';
import type { Entry } from './say';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined });

it('counts what was said until it has been tried to be sent', async () => {
  let stored!: () => void;
  let sent!: () => void;
  vi.spyOn(log, 'add').mockReturnValue(new Promise<void>((done) => (stored = done)));
  vi.spyOn(outbox, 'send').mockReturnValue(new Promise<void>((done) => (sent = done)));
  const keeper = new Keeper('a coach', 'a session');
  expect(keeper.pending).toBe(0);

  keeper.keep({} as Entry);
  // At once, while the device has not stored it and the outbox knows nothing of it.
  expect(keeper.pending).toBe(1);
  stored();
  await vi.waitFor(() => expect(outbox.send).toHaveBeenCalledOnce());
  expect(keeper.pending).toBe(1);
  sent();
  await vi.waitFor(() => expect(keeper.pending).toBe(0));
});
