import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Schemas } from '$lib/api/client';
import type { Entry } from './say';

/** One entry of a run, as it lies on this device. Whose it is stands in its key: nobody else sends or sees it. */
export type Kept = {
  author: string;
  session: string;
  seq: number;
  entry: Entry;
  /** The number of the plan that is run, as the pack had it; none of one from before there were numbers. */
  plan?: number;
  state: 'waiting' | 'sent' | 'refused';
  /** Why the server refused it. */
  code?: string;
  tries: number;
};

export type KeptPack = { author: string; session: string; response: Schemas['PackResponse'] };

interface Floor extends DBSchema {
  entries: {
    key: [string, string, number];
    value: Kept;
    indexes: { byState: [string, string] };
  };
  packs: { key: [string, string]; value: KeptPack };
}

let opened: Promise<IDBPDatabase<Floor>> | undefined;

const db = (): Promise<IDBPDatabase<Floor>> =>
  (opened ??= openDB<Floor>('tensarch-floor', 1, {
    upgrade(fresh) {
      fresh
        .createObjectStore('entries', { keyPath: ['author', 'session', 'seq'] })
        .createIndex('byState', ['author', 'state']);
      fresh.createObjectStore('packs', { keyPath: ['author', 'session'] });
    },
    terminated: () => (opened = undefined),
  }).catch((error: unknown) => {
    opened = undefined;
    throw error;
  }));

/** Whose packs are kept: what comes late for somebody who has left is dropped. Not said yet: whoever's. */
let holder: string | undefined | null = null;

/** What was said on the floor, on this device, until the server has it; and the packs that are still good. */
export const log = {
  /** Whoever is signed in; nobody else's packs stay, nor one that is no longer good. */
  async hold(author: string | undefined, now: number): Promise<void> {
    holder = author;
    const packs = (await db()).transaction('packs', 'readwrite');
    for (let at = await packs.store.openCursor(); at; at = await at.continue())
      if (at.value.author !== author || Date.parse(at.value.response.expiresAt) <= now) await at.delete();
    await packs.done;
  },

  /** Runs that ended before then and that the server has all of are not needed here any more. */
  async clear(author: string, before: number): Promise<void> {
    const all = (await (await db()).getAll('entries', IDBKeyRange.bound([author], [author, []]))) as Kept[];
    for (const session of new Set(all.map((k) => k.session))) {
      const run = all.filter((k) => k.session === session);
      const over = run.some((k) => k.entry.facts.some((f) => f.kind === 'finished'));
      if (!over || run.some((k) => k.state !== 'sent' || k.entry.event.at >= before)) continue;
      await (
        await db()
      ).delete('entries', IDBKeyRange.bound([author, session, 0], [author, session, Infinity]));
      await (await db()).delete('packs', [author, session]);
    }
  },

  /** @throws When the device has no room left, or the place is taken by another tab. */
  async add(author: string, session: string, entry: Entry, plan?: number): Promise<void> {
    await (
      await db()
    ).add('entries', { author, session, seq: entry.event.seq, entry, plan, state: 'waiting', tries: 0 });
  },

  /** All of a run, in its order. */
  async of(author: string, session: string): Promise<Entry[]> {
    const range = IDBKeyRange.bound([author, session, 0], [author, session, Infinity]);
    return (await (await db()).getAll('entries', range)).map((k) => k.entry);
  },

  async waiting(author: string, most: number): Promise<Kept[]> {
    return (await db()).getAllFromIndex(
      'entries',
      'byState',
      [author, 'waiting'],
      Number.isFinite(most) ? most : undefined,
    );
  },

  async refused(author: string): Promise<Kept[]> {
    return (await db()).getAllFromIndex('entries', 'byState', [author, 'refused']);
  },

  async count(author: string): Promise<number> {
    return (await db()).countFromIndex('entries', 'byState', [author, 'waiting']);
  },

  async put(kept: Kept): Promise<void> {
    await (await db()).put('entries', kept);
  },

  async keepPack(author: string, response: Schemas['PackResponse']): Promise<void> {
    const store = await db();
    if (holder === null || holder === author)
      await store.put('packs', { author, session: response.sessionId, response });
  },

  /** The pack of a session, while it is good. */
  async pack(author: string, session: string, now: number): Promise<Schemas['PackResponse'] | undefined> {
    const kept = await (await db()).get('packs', [author, session]);
    return kept && Date.parse(kept.response.expiresAt) > now ? kept.response : undefined;
  },

  /** The packs that are still good. */
  async packs(author: string, now: number): Promise<Schemas['PackResponse'][]> {
    const kept = await (await db()).getAll('packs', IDBKeyRange.bound([author], [author, []]));
    return kept.map((k) => k.response).filter((r) => Date.parse(r.expiresAt) > now);
  },

  /** Erases everything that someone said and kept here. */
  async erase(author: string): Promise<void> {
    const all = IDBKeyRange.bound([author], [author, []]);
    const tx = (await db()).transaction(['entries', 'packs'], 'readwrite');
    await Promise.all([tx.objectStore('entries').delete(all), tx.objectStore('packs').delete(all), tx.done]);
  },
};
