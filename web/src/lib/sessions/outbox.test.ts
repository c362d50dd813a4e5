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
    for (const kept of await log.waiting(author, 10)) await log.put({ ...kept, state: 'sent' });
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

  it('finds the one on which the server fails by halves, and puts it aside after five tries', async () => {
    respond = (body) =>
      body.entries.some((e) => e.event.seq === 3)
        ? { status: 500, body: { code: 'unexpected' } }
        : told()(body);
    await keep(1, 2, 3, 4);
    outbox.open(author);
    for (let tries = 0; tries < 8; tries++) await outbox.send();
    expect(outbox.refused.map((k) => k.seq)).toEqual([3]);
    expect(outbox.waiting).toBe(0);
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
