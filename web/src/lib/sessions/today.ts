import { api, ask } from '$lib/api/client';
import { log } from './log';

/**
 * Keeps the packs of today's sessions on this device, so that they run without the server. What cannot be packed or kept is left out: the runner
 * asks for it when it is opened.
 */
export async function keepToday(author: string): Promise<void> {
  const sessions = await ask(api.GET('/api/v1/sessions/today')).catch(() => []);
  for (const { id } of sessions) {
    // The pack of a run that was begun here stays the one that it was said to.
    if ((await log.of(author, id)).length > 0) continue;
    const pack = await ask(
      api.GET('/api/v1/sessions/{sessionId}/pack', { params: { path: { sessionId: id } } }),
    ).catch(() => undefined);
    if (pack) await log.keepPack(author, pack);
  }
}
