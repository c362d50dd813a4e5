import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, type Schemas } from '$lib/api/client';
import { log } from './log';
import { longestWait, openRun } from './openRun';
import { outbox } from './outbox.svelte';

type Answer = { data?: unknown; error?: unknown; response: Response };

const good = (data: unknown): Answer => ({ data, response: { ok: true, status: 200 } as Response });
const refused = (code: string): Answer => ({
  error: { code },
  response: { ok: false, status: 409 } as Response,
});

let pack: () => Promise<Answer>;
let events: () => Promise<Answer>;
vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
  path.endsWith('/pack') ? pack() : events()) as unknown as typeof api.GET);

const never = () => new Promise<Answer>(() => undefined);
const later = (answer: Answer, ms: number) =>
  new Promise<Answer>((done) => setTimeout(() => done(answer), ms));

let n = 0;
let session = '';
const response = (madeAt: string, ended: string[] = []) =>
  ({
    sessionId: session,
    madeAt,
    ended,
    pack: {},
    expiresAt: '2999-01-01T00:00:00Z',
  }) as unknown as Schemas['PackResponse'];
const entry = (seq: number) => ({
  event: { id: `e${seq}`, seq, at: seq, is: 'skipped' as const },
  facts: [],
});

beforeEach(() => {
  session = `session-${++n}`;
  pack = never;
  events = never;
});

describe('opening a run', () => {
  it('does not wait for a dead network when there is a pack, and late news still ends what is barred', async () => {
    await log.keepPack('una', response('kept'));
    pack = () => later(good(response('fresh', ['wrist'])), longestWait + 300);
    const opened = await openRun('una', session);
    expect(opened.response.madeAt).toBe('kept');
    expect(outbox.ended[session]).toBeUndefined();
    await vi.waitFor(() => expect(outbox.ended[session]).toEqual(['wrist']), { timeout: 3000 });
  });

  it('goes on with what was said here, however long others take to say what they have', async () => {
    await log.keepPack('una', response('kept'));
    await log.add('una', session, entry(1));
    pack = () => Promise.resolve(good(response('fresh', ['neck'])));
    const opened = await openRun('una', session);
    expect([opened.response.madeAt, opened.response.ended, opened.said.length]).toEqual([
      'kept',
      ['neck'],
      1,
    ]);
  });

  it('takes the news that is there in time: a fresh pack, or that it is not to be run', async () => {
    await log.keepPack('una', response('kept'));
    events = () => Promise.resolve(good([]));
    pack = () => Promise.resolve(good(response('fresh')));
    expect((await openRun('una', session)).response.madeAt).toBe('fresh');
    pack = () => Promise.resolve(refused('planBarred'));
    await expect(openRun('una', session)).rejects.toMatchObject({ code: 'planBarred' });
  });

  it('without a pack waits for the server, and leaves out what another device said and nobody can read', async () => {
    pack = () => later(good(response('fresh')), 50);
    events = () =>
      Promise.resolve(
        good([
          { id: 'a', session, seq: 1, at: '2026-12-01T10:00:00Z', said: 'no JSON' },
          { id: 'b', session, seq: 2, at: '2026-12-01T10:00:01Z', said: '{"is":"skipped"}' },
        ]),
      );
    const opened = await openRun('una', session);
    expect(opened.said.map((e) => [e.event.id, e.event.is])).toEqual([['b', 'skipped']]);
  });
});
