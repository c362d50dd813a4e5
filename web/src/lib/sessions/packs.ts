import { api, ask } from '$lib/api/client';
import { log } from './log';

/** A device that is left on asks again when it is looked at after so long. */
const askAgain = 3_600_000;

let keeping: Promise<void> | undefined;
let kept: { author: string; at: number } | undefined;

/**
 * Keeps the packs of today's and tomorrow's sessions on this device, so that they run without the server: those that it does not have under their
 * newest key, each once.
 */
export function keepPacks(author: string, now = Date.now()): Promise<void> {
  if (kept?.author === author && now - kept.at < askAgain) return keeping ?? Promise.resolve();
  kept = { author, at: now };
  return (keeping = keep(author)
    .catch(() => (kept = undefined))
    .then(() => (keeping = undefined)));
}

async function keep(author: string): Promise<void> {
  // What is said here must not be cleared away by the browser before the server has it.
  void navigator.storage?.persist?.().catch(() => undefined);
  const heads = await ask(api.GET('/api/v1/sessions/packs'));
  const here = await log.packKeys(author);
  for (const { sessionId, key } of heads) {
    // The pack of a run that was begun here stays the one that it was said to.
    if (here.get(sessionId) !== key && !(await log.begun(author, sessionId))) await renew(author, sessionId);
    here.delete(sessionId);
  }
  for (const gone of here.keys()) if (!(await log.begun(author, gone))) await log.dropPack(author, gone);
}

/** What may not be run is not kept. */
async function renew(author: string, sessionId: string): Promise<void> {
  const params = { path: { sessionId }, query: { keep: true } };
  const pack = await ask(api.GET('/api/v1/sessions/{sessionId}/pack', { params }));
  if (pack) await log.keepPack(author, pack);
  else await log.dropPack(author, sessionId);
}
