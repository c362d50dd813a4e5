import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, type Schemas } from '$lib/api/client';
import { log, type KeptPack } from './log';
import { keepPacks } from './packs';

type Asked = { params: { path: { sessionId: string } } };
const hour = 3_600_000;
const now = Date.parse('2026-12-01T12:00:00Z');
const tomorrow = Date.parse('2026-12-02T00:00:00Z');
const iso = (at: number) => new Date(at).toISOString();

let heads: Schemas['PackHead'][] = [];
let refused: string[] = [];
let asked: string[] = [];

const pack = (session: string, key: string, from = now) =>
  ({
    sessionId: session,
    key,
    goodFrom: iso(from),
    expiresAt: iso(now + 24 * hour),
    pack: { slots: Array.from({ length: 200 }, () => ({ name: 'the same cue again' })) },
  }) as unknown as Schemas['PackResponse'];

vi.spyOn(api, 'GET').mockImplementation((async (path: string, options: Asked) => {
  const good = { ok: true, status: 200 } as Response;
  if (path.endsWith('/packs')) return { data: heads, response: good };
  const { sessionId } = options.params.path;
  asked.push(sessionId);
  if (refused.includes(sessionId)) return { response: { ok: true, status: 204 } as Response };
  const { ahead, key } = heads.find((h) => h.sessionId === sessionId)!;
  return { data: pack(sessionId, key, ahead ? tomorrow : now), response: good };
}) as unknown as typeof api.GET);

let at = now;
const keep = async () => {
  asked = [];
  await keepPacks('una', (at += 2 * hour));
  return asked;
};
const here = async () => [...(await log.packKeys('una'))].map(([session, key]) => `${session}:${key}`);

beforeEach(async () => {
  vi.stubGlobal('navigator', {});
  vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined });
  refused = [];
  heads = [
    { sessionId: 'a', ahead: false, key: '1' },
    { sessionId: 'b', ahead: true, key: '1' },
  ];
  await log.erase('una');
});

describe('packs kept on a device', () => {
  it('come once each, and again when something of them changed', async () => {
    expect(await keep()).toEqual(['a', 'b']);
    expect(await keep()).toEqual([]);
    heads[0]!.key = '2';
    expect(await keep()).toEqual(['a']);
    expect(await here()).toEqual(['a:2', 'b:1']);
  });

  it('are asked for once at a start, however often a page begins', async () => {
    asked = [];
    at += 2 * hour;
    await Promise.all([keepPacks('una', at), keepPacks('una', at)]);
    await keepPacks('una', at + 60_000);
    expect(asked).toEqual(['a', 'b']);
  });

  it('go when they may not be run any more, or their session has gone; that of a run begun here stays', async () => {
    heads.push({ sessionId: 'c', ahead: false, key: '1' });
    await keep();
    await log.add('una', 'c', { event: { id: 'e', seq: 1, at, is: 'skipped' }, facts: [] });
    refused = ['a', 'c'];
    heads = heads.filter((h) => h.sessionId !== 'b').map((h) => ({ ...h, key: '2' }));
    expect(await keep()).toEqual(['a']);
    expect(await here()).toEqual(['c:1']);
  });

  it('lie pressed, and one of tomorrow runs from tomorrow on', async () => {
    await keep();
    const lying = (await (await openDB('tensarch-floor', 1)).getAll('packs')) as KeptPack[];
    const size = JSON.stringify(pack('a', '1')).length;
    expect(lying.every((k) => k.pressed!.byteLength < size / 10)).toBe(true);
    expect((await log.pack('una', 'a', now))?.sessionId).toBe('a');
    expect(await log.pack('una', 'b', now)).toBeUndefined();
    expect((await log.pack('una', 'b', tomorrow))?.key).toBe('1');
    expect(await log.pack('una', 'b', now + 25 * hour)).toBeUndefined();
    expect((await log.packs('una', now)).map((p) => p.sessionId)).toEqual(['a', 'b']);
  });

  it('of before are read as they lie', async () => {
    const response = { sessionId: 'old', expiresAt: iso(now + hour), pack: {} };
    await (await openDB('tensarch-floor', 1)).put('packs', { author: 'una', session: 'old', response });
    expect((await log.pack('una', 'old', now))?.sessionId).toBe('old');
    expect(await log.pack('una', 'old', now + 2 * hour)).toBeUndefined();
    await log.hold('una', now + 2 * hour);
    expect(await log.packKeys('una')).toEqual(new Map());
  });
});
