import { api, ask, type Refusal, type Schemas } from '$lib/api/client';
import { log } from './log';
import { outbox } from './outbox.svelte';
import type { RunEvent } from './run';
import type { Entry } from './say';

/** A session that is about to be run, with what was said in it before. */
export type Opened = { response: Schemas['PackResponse']; said: Entry[] };

type Pack = Schemas['PackResponse'];

/** So long a run that can begin from this device waits for what the server has to say. */
export const longestWait = 2000;

/**
 * Where a session stands: what this device said; what another one said, when this one said nothing; and the pack that it was said to, as long as
 * it is good. With a pack that is kept here nobody waits for the server longer than two seconds: what it says later still ends what is barred.
 */
export async function openRun(author: string, session: string): Promise<Opened> {
  const mine = await log.of(author, session).catch((): Entry[] => []);
  const kept = await log.pack(author, session, Date.now()).catch(() => undefined);
  const asked = fetchPack(session).catch((error: unknown) => error as Refusal);
  const fresh = kept ? await soon(asked, longestWait) : await asked;
  if (kept && (fresh === undefined || !('pack' in fresh))) {
    if (fresh === undefined) void asked.then((late) => 'pack' in late && outbox.hear(session, late.ended));
    else if (mine.length === 0 && fresh.code !== 'unreachable') throw fresh;
    return { response: kept, said: mine };
  }
  if (!fresh || !('pack' in fresh)) throw fresh as Refusal;
  if (mine.length > 0 && kept) {
    const there = (await soon(elsewhere(session), longestWait)) ?? [];
    return { response: { ...kept, ended: fresh.ended }, said: furthest(mine, there) };
  }
  // A device that keeps nothing runs all the same.
  await log.keepPack(author, fresh).catch(() => undefined);
  return { response: fresh, said: mine.length > 0 ? mine : await elsewhere(session) };
}

/** What is known within so many milliseconds; nothing when it takes longer. */
const soon = <T>(coming: Promise<T>, milliseconds: number): Promise<T | undefined> => {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<undefined>((done) => (timer = setTimeout(() => done(undefined), milliseconds)));
  return Promise.race([coming, late]).finally(() => clearTimeout(timer));
};

/** What another device said after it had heard all of this one goes on here. */
function furthest(mine: Entry[], there: Entry[]): Entry[] {
  const heard = new Set(there.map((e) => e.event.id));
  return there.length > mine.length && mine.every((e) => heard.has(e.event.id)) ? there : mine;
}

const fetchPack = (sessionId: string): Promise<Pack> =>
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
