import { beforeEach, describe, expect, it, vi } from 'vitest';

const post = vi.fn();
vi.mock('$lib/api/client', async (original) => ({
  ...(await original<typeof import('$lib/api/client')>()),
  api: { POST: (...args: unknown[]) => post(...args) },
}));

const { Outbox } = await import('./outbox.svelte');

const answer = (status: number, body: object) =>
  Promise.resolve(
    status < 300
      ? { data: body, response: new Response(null, { status }) }
      : { error: body, response: new Response(null, { status }) },
  );
const stored = () => answer(200, { stored: 1, sameAgain: 0, clashes: [], nowBarred: [] });

const set = (id: string) => ({
  id,
  drill: 'low-lunge',
  variant: 'deep',
  side: 'left' as const,
  round: 1,
  seconds: 60,
  cleanReps: null,
  quality: null,
  sensation: null,
  at: '2026-03-03T10:00:00Z',
});

const sent = (call: number) =>
  (post.mock.calls[call]![1] as { body: { sets: { id: string }[] } }).body.sets.map((s) => s.id);

beforeEach(() => {
  post.mockReset();
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  });
});

describe('the outbox', () => {
  it('sends at once and forgets what the server has', async () => {
    post.mockImplementation(stored);
    const outbox = new Outbox('s1');
    outbox.add({ sets: [set('a')] });
    await outbox.send();
    expect([outbox.waiting, post.mock.calls.length]).toEqual([0, 1]);
    expect(localStorage.getItem('outbox:s1')).toBeNull();
  });

  it('keeps everything while the server cannot be reached, and sends it under the same ids after a reload', async () => {
    post.mockImplementation(() => Promise.reject(new Error('offline')));
    const outbox = new Outbox('s2');
    outbox.add({ sets: [set('a')] });
    outbox.add({ sets: [set('b')], finishedAt: '2026-03-03T11:00:00Z' });
    await outbox.send();
    expect([outbox.waiting, outbox.lost]).toEqual([3, 'unreachable']);
    post.mockReset();
    post.mockImplementation(stored);
    const again = new Outbox('s2');
    await again.send();
    expect(sent(0)).toEqual(['a', 'b']);
    expect(again.waiting).toBe(0);
  });

  it('sends what came in meanwhile in a second batch', async () => {
    let release = () => {};
    post.mockImplementationOnce(() => new Promise((done) => (release = () => void stored().then(done))));
    post.mockImplementation(stored);
    const outbox = new Outbox('s3');
    outbox.add({ sets: [set('a')] });
    outbox.add({ sets: [set('b')] });
    release();
    await outbox.send();
    expect([sent(0), sent(1), outbox.waiting]).toEqual([['a'], ['b'], 0]);
  });

  it('does not send again what another fact’s id has taken', async () => {
    post.mockImplementation(() => answer(409, { stored: 0, sameAgain: 0, clashes: ['a'], nowBarred: [] }));
    const outbox = new Outbox('s4');
    outbox.add({ sets: [set('a')] });
    await outbox.send();
    expect(outbox.waiting).toBe(0);
  });

  it('says which drills are held by now', async () => {
    post.mockImplementation(() =>
      answer(200, { stored: 1, sameAgain: 0, clashes: [], nowBarred: ['pyramid-fold'] }),
    );
    const outbox = new Outbox('s5');
    outbox.add({ sets: [set('a')] });
    await outbox.send();
    expect(outbox.nowBarred).toEqual(['pyramid-fold']);
  });
});
