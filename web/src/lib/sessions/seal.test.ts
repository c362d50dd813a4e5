import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '$lib/api/client';
import { log } from './log';
import { outbox } from './outbox.svelte';
import type { Entry } from './say';
import { keys } from './seal';

const day = 86_400_000;
const now = Date.parse('2026-12-01T12:00:00Z');
let here: string | undefined;
let reports: { of: { author: string; waiting: number; dropped: number }[] }[] = [];

/** The server gives whoever is signed in their own key. */
vi.spyOn(api, 'GET').mockImplementation((async () => {
  const response = { ok: here !== undefined, status: here ? 200 : 401 } as Response;
  const key = btoa((here ?? '').padEnd(32, '.').slice(0, 32));
  return here ? { data: { of: here, key }, response } : { error: { code: 'signedOut' }, response };
}) as unknown as typeof api.GET);
vi.spyOn(api, 'POST').mockImplementation((async (path: string, { body }: { body: never }) => {
  if (path.endsWith('/unsent')) reports.push(body);
  const response = { ok: path.endsWith('/unsent'), status: 204 } as Response;
  return response.ok ? { data: {}, response } : { error: { code: 'unreachable' }, response };
}) as unknown as typeof api.POST);

const entry = (seq: number, at = now): Entry => ({
  event: { id: `e-${seq}`, seq, at, is: 'skipped' },
  facts: [{ id: `f-${seq}`, at, kind: 'signal', signal: 'sharpPain', region: 'wrist' } as never],
});

const raw = async () => JSON.stringify(await (await openDB('tensarch-floor', 1)).getAll('entries'));

let people = 0;
const somebody = () => `coach-${++people}-${'x'.repeat(20)}`;

beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
    removeItem: (k: string) => kept.delete(k),
  });
  reports = [];
  outbox.open(undefined);
});

describe('what is said on a device', () => {
  it('lies there sealed, and only its author reads it', async () => {
    const author = (here = somebody());
    await log.add(author, 's', entry(1));
    expect(await raw()).not.toContain('wrist');
    expect(await log.of(author, 's')).toEqual([entry(1)]);

    // The sign-in ends, and somebody else's begins on the same device.
    here = undefined;
    keys.hold(undefined);
    await log.hold(undefined, now);
    expect(await log.of(author, 's')).toEqual([]);
    here = somebody();
    await log.hold(here, now);
    expect(await log.of(author, 's')).toEqual([]);
    expect(await log.waiting(author, 10)).toEqual([]);

    // Its author is back.
    here = author;
    await log.hold(author, now);
    expect((await log.waiting(author, 10)).map((k) => k.entry)).toEqual([entry(1)]);
  });

  it('is found after a reload without the server, while the sign-in stands', async () => {
    const author = (here = somebody());
    await log.add(author, 's', entry(1));
    keys.hold(undefined);
    here = undefined;
    expect(await log.of(author, 's')).toEqual([entry(1)]);
  });

  it('is kept open where no key can be had, and sealed when there is one', async () => {
    const author = somebody();
    here = undefined;
    await log.add(author, 'open', entry(7));
    expect(await raw()).toContain('f-7');
    here = author;
    await log.sealAll(author);
    expect(await raw()).not.toContain('f-7');
    expect(await log.of(author, 'open')).toEqual([entry(7)]);
  });

  it('is dropped after thirty days without its author, and the owner hears how much', async () => {
    const author = (here = somebody());
    await log.add(author, 's', entry(1, Date.now() - 31 * day));
    await log.add(author, 's', entry(2, Date.now() - 29 * day));
    const other = (here = somebody());
    outbox.open(other);
    await vi.waitFor(() => expect(reports).toHaveLength(1));
    const of = () => reports.at(-1)!.of.find((u) => u.author === author);
    expect(of()).toMatchObject({ waiting: 1, dropped: 1 });
    // What the server knows is not told again.
    outbox.open(undefined);
    outbox.open(other);
    await outbox.send();
    await new Promise((done) => setTimeout(done, 50));
    expect(reports).toHaveLength(1);
    // Their author comes, and still cannot send it: it is theirs, however old it gets.
    here = author;
    outbox.open(author);
    await vi.waitFor(() => expect(reports).toHaveLength(1));
    expect((await log.of(author, 's')).map((e) => e.event.seq)).toEqual([2]);
    // It is in the books: nothing waits any more.
    for (const kept of await log.waiting(author, 9)) await log.mark(kept, 'sent');
    outbox.open(undefined);
    outbox.open(author);
    await vi.waitFor(() => expect(reports).toHaveLength(2));
    expect(of()).toMatchObject({ waiting: 0, dropped: 1 });
  });

  it('does not come back when its author has left while it was being sent', async () => {
    const author = (here = somebody());
    await log.add(author, 's', entry(1));
    const [kept] = await log.waiting(author, 1);
    await log.erase(author);
    await log.mark(kept!, 'sent');
    expect(await raw()).not.toContain(author);
  });
});
