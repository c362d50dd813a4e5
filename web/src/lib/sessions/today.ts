import { api, ask } from '$lib/api/client';
import { log } from './log';

/** Keeps the packs of today's sessions on this device, so that they run without the server. */
export async function keepToday(author: string): Promise<void> {
  // What is said here must not be cleared away by the browser before the server has it.
  void navigator.storage?.persist?.().catch(() => undefined);
  for (const pack of await ask(api.GET('/api/v1/sessions/today')))
    // The pack of a run that was begun here stays the one that it was said to.
    if ((await log.of(author, pack.sessionId)).length === 0) await log.keepPack(author, pack);
}
