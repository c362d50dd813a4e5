import { api, ask, type Refusal, type Schemas } from '$lib/api/client';
import { log } from './log';
import type { RunEvent } from './run';
import type { Entry } from './say';

/** A session that is about to be run, with what was said in it before. */
export type Opened = { response: Schemas['PackResponse']; said: Entry[] };

/**
 * Where a session stands: what this device said; what another one said, when this one said nothing; and the pack that it was said to, as long as
 * it is good, so that a reload does not need the server.
 */
export async function openRun(author: string, session: string): Promise<Opened> {
  const mine = await log.of(author, session).catch((): Entry[] => []);
  const kept = await log.pack(author, session, Date.now()).catch(() => undefined);
  const fresh = await fetchPack(session).catch((error: unknown) => error as Refusal);
  if (!('pack' in fresh)) {
    if (kept && (mine.length > 0 || fresh.code === 'unreachable')) return { response: kept, said: mine };
    throw fresh;
  }
  if (mine.length > 0 && kept)
    return { response: { ...kept, ended: fresh.ended }, said: furthest(mine, await elsewhere(session)) };
  // A device that keeps nothing runs all the same.
  await log.keepPack(author, fresh).catch(() => undefined);
  return { response: fresh, said: mine.length > 0 ? mine : await elsewhere(session) };
}

/** What another device said after it had heard all of this one goes on here. */
function furthest(mine: Entry[], there: Entry[]): Entry[] {
  const heard = new Set(there.map((e) => e.event.id));
  return there.length > mine.length && mine.every((e) => heard.has(e.event.id)) ? there : mine;
}

const fetchPack = (sessionId: string) =>
  ask(api.GET('/api/v1/sessions/{sessionId}/pack', { params: { path: { sessionId } } }));

/** What another device said, as it told the server. */
async function elsewhere(sessionId: string): Promise<Entry[]> {
  const events = await ask(
    api.GET('/api/v1/sessions/{sessionId}/events', { params: { path: { sessionId } } }),
  ).catch((): Schemas['FloorEvent'][] => []);
  return events.flatMap(({ id, seq, at, said }) => {
    try {
      return [
        {
          event: { id, seq, at: Date.parse(at), ...(JSON.parse(said) as object) } as RunEvent,
          facts: [],
        },
      ];
    } catch {
      // One that cannot be read takes nothing else with it.
      return [];
    }
  });
}
