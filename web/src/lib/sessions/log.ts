import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Schemas } from '$lib/api/client';
import type { Entry } from './say';
import { packOfBefore } from './ofBefore';
import { keys, seal, unseal, type Sealed } from './seal';

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
  /** When it was said, in milliseconds. */
  at?: number;
};

/** As it lies there: sealed, but for what it is found by. One from before, or from when there was no key, lies open until there is one. */
type Lying = Omit<Kept, 'entry'> & { entry?: Entry; sealed?: Sealed };

/** How much lies here of somebody who is not signed in. */
export type Left = { waiting: number; oldest?: number; dropped: number };

/** What waits here for somebody who does not come is dropped after so long. */
const longestKept = 30 * 86_400_000;
const droppedKey = 'dropped';

type Pack = Schemas['PackResponse'];

/** A pack as it lies there: pressed, but for what it is found by. One from before, or where nothing presses, lies as it came. */
export type KeptPack = {
  author: string;
  session: string;
  key?: string;
  /** In milliseconds. */
  until?: number;
  pressed?: ArrayBuffer;
  response?: Pack;
};

const untilOf = (kept: KeptPack) => kept.until ?? Date.parse(kept.response!.expiresAt);

async function press(response: Pack): Promise<Pick<KeptPack, 'pressed' | 'response'>> {
  if (typeof CompressionStream === 'undefined') return { response };
  const text = new Blob([JSON.stringify(response)]).stream().pipeThrough(new CompressionStream('gzip'));
  return { pressed: await new Response(text).arrayBuffer() };
}

async function unpress({ pressed, response }: KeptPack): Promise<Pack> {
  if (!pressed) return packOfBefore(response!);
  const text = new Blob([pressed]).stream().pipeThrough(new DecompressionStream('gzip'));
  return (await new Response(text).json()) as Pack;
}

/** Also one from before packs said from when on they are good. */
const isGood = (pack: Pack, now: number) =>
  Date.parse(pack.expiresAt) > now && !(Date.parse(pack.goodFrom) > now);

interface Floor extends DBSchema {
  entries: {
    key: [string, string, number];
    value: Lying;
    indexes: { byState: [string, string] };
  };
  packs: { key: [string, string]; value: KeptPack };
}

let connected: Promise<IDBPDatabase<Floor>> | undefined;

const db = (): Promise<IDBPDatabase<Floor>> =>
  (connected ??= openDB<Floor>('tensarch-floor', 1, {
    upgrade(fresh) {
      fresh
        .createObjectStore('entries', { keyPath: ['author', 'session', 'seq'] })
        .createIndex('byState', ['author', 'state']);
      fresh.createObjectStore('packs', { keyPath: ['author', 'session'] });
    },
    terminated: () => (connected = undefined),
  }).catch((error: unknown) => {
    connected = undefined;
    throw error;
  }));

/** Whose packs are kept: what comes late for somebody who has left is dropped. Not said yet: whoever's. */
let holder: string | undefined | null = null;

/** What was dropped here in all, by author: counted without end, so that it may be told twice. */
const dropped = {
  read(): Record<string, number> {
    try {
      return JSON.parse(localStorage.getItem(droppedKey) ?? '{}') as Record<string, number>;
    } catch {
      return {};
    }
  },
  add(author: string, n: number): void {
    const all = this.read();
    localStorage.setItem(droppedKey, JSON.stringify({ ...all, [author]: (all[author] ?? 0) + n }));
  },
};

/** Opened with its author's key; one that this key does not open is not there. */
async function opened(all: Lying[]): Promise<Kept[]> {
  const kept = await Promise.all(
    all.map(async ({ sealed, entry, ...rest }): Promise<Kept[]> => {
      const open = sealed ? await unseal(await keys.of(rest.author), sealed) : entry;
      return open ? [{ ...rest, entry: open }] : [];
    }),
  );
  return kept.flat();
}

async function closed(kept: Kept): Promise<Lying> {
  const { entry, ...rest } = kept;
  const key = await keys.of(kept.author);
  return { ...rest, at: entry.event.at, ...(key ? { sealed: await seal(key, entry) } : { entry }) };
}

/** What was said on the floor, on this device, until the server has it; and the packs that are still good. */
export const log = {
  /** Whoever is signed in; nobody else's packs stay, nor one that is no longer good. */
  async hold(author: string | undefined, now: number): Promise<void> {
    holder = author;
    const packs = (await db()).transaction('packs', 'readwrite');
    for (let at = await packs.store.openCursor(); at; at = await at.continue())
      if (at.value.author !== author || untilOf(at.value) <= now) await at.delete();
    await packs.done;
    await keys.keepOnly(author);
  },

  /** What lies here of others, and what of it has waited for too long: that is dropped. */
  async others(author: string | undefined, now: number): Promise<Map<string, Left>> {
    const left = new Map<string, Left>();
    const entries = (await db()).transaction('entries', 'readwrite');
    for (let at = await entries.store.openCursor(); at; at = await at.continue()) {
      const { author: whose, state, entry, at: said = entry?.event.at ?? now } = at.value;
      if (whose === author) continue;
      if (said < now - longestKept) {
        if (state !== 'sent') dropped.add(whose, 1);
        await at.delete();
      } else if (state !== 'sent') {
        const of = left.get(whose) ?? { waiting: 0, dropped: 0 };
        left.set(whose, { ...of, waiting: of.waiting + 1, oldest: Math.min(of.oldest ?? said, said) });
      }
    }
    await entries.done;
    for (const [whose, n] of Object.entries(dropped.read()))
      left.set(whose, { ...(left.get(whose) ?? { waiting: 0 }), dropped: n });
    return left;
  },

  /** What lies open from before there was a key is sealed. */
  async sealAll(author: string): Promise<void> {
    if (!(await keys.of(author))) return;
    const store = await db();
    for (const at of await store.getAll('entries', IDBKeyRange.bound([author], [author, []]))) {
      if (at.sealed || !at.entry) continue;
      const sealed = await closed({ ...at, entry: at.entry });
      // Meanwhile it may have been sent.
      const tx = store.transaction('entries', 'readwrite');
      const now = await tx.store.get([at.author, at.session, at.seq]);
      if (now && !now.sealed) await tx.store.put({ ...sealed, state: now.state, code: now.code });
      await tx.done;
    }
  },

  /** Runs that ended before then and that the server has all of are not needed here any more. */
  async clear(author: string, before: number): Promise<void> {
    const all = await opened(await (await db()).getAll('entries', IDBKeyRange.bound([author], [author, []])));
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
    const kept = await closed({
      author,
      session,
      seq: entry.event.seq,
      entry,
      plan,
      state: 'waiting',
    });
    await (await db()).add('entries', kept);
  },

  /** All of a run, in its order. */
  async of(author: string, session: string): Promise<Entry[]> {
    const range = IDBKeyRange.bound([author, session, 0], [author, session, Infinity]);
    return (await opened(await (await db()).getAll('entries', range))).map((k) => k.entry);
  },

  async waiting(author: string, most: number): Promise<Kept[]> {
    return opened(
      await (
        await db()
      ).getAllFromIndex('entries', 'byState', [author, 'waiting'], Number.isFinite(most) ? most : undefined),
    );
  },

  async refused(author: string): Promise<Kept[]> {
    return opened(await (await db()).getAllFromIndex('entries', 'byState', [author, 'refused']));
  },

  async count(author: string): Promise<number> {
    return (await db()).countFromIndex('entries', 'byState', [author, 'waiting']);
  },

  /** What became of it; one that was erased meanwhile does not come back. */
  async mark({ author, session, seq }: Kept, state: Kept['state'], code?: string): Promise<void> {
    const tx = (await db()).transaction('entries', 'readwrite');
    const now = await tx.store.get([author, session, seq]);
    if (now) await tx.store.put({ ...now, state, code });
    await tx.done;
  },

  async keepPack(author: string, response: Pack): Promise<void> {
    const [store, pressed] = [await db(), await press(response)];
    const { sessionId: session, key, expiresAt } = response;
    if (holder === null || holder === author)
      await store.put('packs', { author, session, key, until: Date.parse(expiresAt), ...pressed });
  },

  async dropPack(author: string, session: string): Promise<void> {
    await (await db()).delete('packs', [author, session]);
  },

  /** By session, the key under which its pack was made; of one from before there were keys, none. */
  async packKeys(author: string): Promise<Map<string, string | undefined>> {
    const kept = await (await db()).getAll('packs', IDBKeyRange.bound([author], [author, []]));
    return new Map(kept.map((k) => [k.session, k.key]));
  },

  /** Something was said of it here. */
  async begun(author: string, session: string): Promise<boolean> {
    const range = IDBKeyRange.bound([author, session, 0], [author, session, Infinity]);
    return (await (await db()).count('entries', range)) > 0;
  },

  /** The pack of a session, while it is good. */
  async pack(author: string, session: string, now: number): Promise<Pack | undefined> {
    const kept = await (await db()).get('packs', [author, session]);
    const pack = kept && untilOf(kept) > now ? await unpress(kept) : undefined;
    return pack && isGood(pack, now) ? pack : undefined;
  },

  /** The packs that are not over: those of tomorrow are good from when that begins. */
  async packs(author: string, now: number): Promise<Pack[]> {
    const kept = await (await db()).getAll('packs', IDBKeyRange.bound([author], [author, []]));
    return Promise.all(kept.filter((k) => untilOf(k) > now).map(unpress));
  },

  /** Erases everything that someone said and kept here. */
  async erase(author: string): Promise<void> {
    const all = IDBKeyRange.bound([author], [author, []]);
    const tx = (await db()).transaction(['entries', 'packs'], 'readwrite');
    await Promise.all([tx.objectStore('entries').delete(all), tx.objectStore('packs').delete(all), tx.done]);
    await keys.drop(author);
  },
};
