import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, type Schemas } from '$lib/api/client';
import { log } from './log';
import { outbox } from './outbox.svelte';
import type { Entry } from './say';

type Sent = { sentAt: string; author: string; entries: Schemas['FloorEntry'][] };
type Told = Schemas['Told']['is'];

const bodies: Sent[] = [];
let respond: (body: Sent) => { status: number; body: unknown };

vi.spyOn(api, 'POST').mockImplementation((async (_: string, { body }: { body: Sent }) => {
  bodies.push(body);
  const { status, body: data } = respond(body);
  const response = { ok: status < 400, status } as Response;
  return status < 400 ? { data, response } : { error: data, response };
}) as unknown as typeof api.POST);

/** An answer to each entry, by its number. */
const told =
  (is: (seq: number) => Told = () => 'stored') =>
  ({ entries }: Sent) => ({
    status: 200,
    body: {
      told: entries.map((e) => ({
        event: e.event.id,
        is: is(e.event.seq),
        code: is(e.event.seq) === 'refused' ? 'offLimits' : null,
      })),
      ended: { s: ['wrist'] },
      doubled: [],
    },
  });

let people = 0;
let author = '';

const entry = (seq: number): Entry => ({
  event: { id: `${author}-${seq}`, seq, at: 1000 * seq, is: 'skipped' },
  facts: [],
});

const keep = async (...seqs: number[]) => {
  for (const seq of seqs) await log.add(author, 's', entry(seq));
};

const numbers = () => bodies.map((b) => b.entries.map((e) => e.event.seq));

beforeEach(() => {
  vi.stubGlobal('localStorage', {});
  author = `coach-${++people}`;
  bodies.length = 0;
  respond = told();
  outbox.open(undefined);
});

describe('the outbox', () => {
  it('sends what waits in its order, once, and says what has ended', async () => {
    await keep(1, 2, 3);
    outbox.open(author);
    await vi.waitFor(() => expect(numbers()).toEqual([[1, 2, 3]]));
    await outbox.send();
    await outbox.send();
    expect(numbers()).toEqual([[1, 2, 3]]);
    expect(outbox.waiting).toBe(0);
    expect(outbox.ended.s).toEqual(['wrist']);
    expect(bodies[0]!.author).toBe(author);
  });

  it('says no longer that the server is lost when another tab has sent the rest', async () => {
    respond = () => ({ status: 503, body: { code: 'unreachable' } });
    await keep(1);
    outbox.open(author);
    await vi.waitFor(() => expect(outbox.lost).toBeDefined());
    for (const kept of await log.waiting(author, 10)) await log.mark(kept, 'sent');
    await outbox.send();
    expect([outbox.lost, outbox.waiting]).toEqual([undefined, 0]);
  });

  it('is not held up by a refused entry, and shows it with its reason', async () => {
    respond = told((seq) => (seq === 2 ? 'refused' : 'stored'));
    await keep(1, 2, 3);
    outbox.open(author);
    await vi.waitFor(() => expect(outbox.refused.map((k) => [k.seq, k.code])).toEqual([[2, 'offLimits']]));
    expect(outbox.waiting).toBe(0);
    expect((await outbox.left()).map((k) => k.seq)).toEqual([2]);
  });

  it('keeps everything while the server cannot be reached, and says so', async () => {
    respond = () => {
      throw new TypeError('no network');
    };
    await keep(1, 2);
    outbox.open(author);
    await vi.waitFor(() => expect(outbox.lost).toBe('unreachable'));
    expect(outbox.waiting).toBe(2);
    respond = told();
    await outbox.send();
    expect([outbox.waiting, outbox.lost]).toEqual([0, undefined]);
  });

  it('finds the one on which the server fails by halves, sends the others, and never gives it up', async () => {
    let well = false;
    respond = (body) =>
      !well && body.entries.some((e) => e.event.seq === 3)
        ? { status: 500, body: { code: 'unexpected' } }
        : told()(body);
    await keep(1, 2, 3, 4);
    outbox.open(author);
    for (let tries = 0; tries < 8; tries++) await outbox.send();
    expect(outbox.refused).toEqual([]);
    expect((await log.waiting(author, 10)).map((k) => k.seq)).toEqual([3]);
    well = true;
    await outbox.send();
    await outbox.send();
    expect(outbox.waiting).toBe(0);
  });

  it('gives nothing up and asks for nothing more while the server is full or overloaded', async () => {
    for (const status of [507, 503, 429]) {
      respond = () => ({ status, body: { code: 'busy' } });
      await keep(...Array.from({ length: 8 }, (_, i) => 10 * status + i));
      outbox.open(author);
      bodies.length = 0;
      for (let tries = 0; tries < 6; tries++) await outbox.send();
      expect(outbox.refused).toEqual([]);
      expect(outbox.waiting).toBeGreaterThanOrEqual(8);
    }
    respond = told();
    await outbox.send();
    expect(outbox.waiting).toBe(0);
  });

  it('halves what is too much for one request', async () => {
    respond = (body) => (body.entries.length > 2 ? { status: 422, body: { code: 'tooMany' } } : told()(body));
    await keep(1, 2, 3, 4, 5);
    outbox.open(author);
    await vi.waitFor(() => expect(outbox.waiting).toBe(0));
    expect(outbox.refused).toEqual([]);
  });

  it('says of every session that another device ran it, whichever was told of last', async () => {
    const sessions = ['a', 'b'];
    respond = (body) => ({ ...told()(body), body: { ...told()(body).body, doubled: [sessions.shift()!] } });
    await keep(1);
    outbox.open(author);
    await vi.waitFor(() => expect(bodies).toHaveLength(1));
    await outbox.send();
    await keep(2);
    await outbox.send();
    expect(outbox.doubled).toEqual(expect.arrayContaining(['a', 'b']));
  });

  it('keeps no pack that comes when its coach has left, and none of anybody else', async () => {
    const pack = (session: string, expiresAt = '2999-01-01T00:00:00Z') =>
      ({ sessionId: session, expiresAt }) as Schemas['PackResponse'];
    outbox.open(author);
    await log.keepPack(author, pack('early'));
    expect(await log.packs(author, Date.now())).toHaveLength(1);
    await outbox.leave();
    await log.keepPack(author, pack('late'));
    outbox.open('another');
    await log.keepPack('another', pack('theirs'));
    await log.keepPack(author, pack('later still'));
    expect(await log.packs(author, Date.now())).toEqual([]);
    expect(await log.packs('another', Date.now())).toHaveLength(1);
    // An account that ended, or a sign-in that did: nothing of it stays or comes.
    outbox.hold(false);
    await vi.waitFor(async () => expect(await log.packs('another', Date.now())).toEqual([]));
    await log.keepPack('another', pack('theirs again'));
    expect(await log.packs('another', Date.now())).toEqual([]);
    outbox.hold(true);
    await log.keepPack('another', pack('once more'));
    expect(await log.packs('another', Date.now())).toHaveLength(1);
  });

  it('clears away a run that ended long ago and is all in the books, and no other', async () => {
    const old = async (seq: number, state: 'sent' | 'waiting', session: string, finished: boolean) => {
      const facts: Entry['facts'] = finished ? [{ id: 'f', at: 1000, kind: 'finished' }] : [];
      await log.add(author, session, {
        event: { id: `${session}${seq}`, seq, at: 1000, is: 'skipped' },
        facts,
      });
      const kept = (await log.waiting(author, 99)).find((k) => k.session === session && k.seq === seq)!;
      await log.mark(kept, state);
    };
    await old(1, 'sent', 'over', true);
    await old(1, 'sent', 'open', false);
    await old(1, 'sent', 'owed', true);
    await old(2, 'waiting', 'owed', false);
    await log.clear(author, Date.now());
    expect(await log.of(author, 'over')).toEqual([]);
    expect(await log.of(author, 'open')).toHaveLength(1);
    expect(await log.of(author, 'owed')).toHaveLength(2);
  });

  it('sends nothing of another’s, and shows nothing of it', async () => {
    await keep(1);
    const first = author;
    author = 'somebody-else';
    outbox.open(author);
    await outbox.send();
    expect(bodies).toEqual([]);
    expect(outbox.waiting).toBe(0);
    expect(await log.of(first, 's')).toHaveLength(1);
  });

  it('erases what is here when its author leaves', async () => {
    respond = told(() => 'refused');
    await keep(1, 2);
    outbox.open(author);
    await vi.waitFor(() => expect(outbox.refused).toHaveLength(2));
    await outbox.leave();
    expect(await log.of(author, 's')).toEqual([]);
  });
});
