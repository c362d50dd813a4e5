import { describe, expect, it } from 'vitest';
import { entriesOfBefore, packOfBefore } from './ofBefore';

const session = '0190a2b4-0000-7000-8000-000000000001';
const kept = JSON.stringify({
  sets: [
    {
      id: '0190a2b4-0000-7000-8000-000000000002',
      drill: 'low-lunge',
      variant: 'deep',
      side: 'left',
      round: 1,
      seconds: 60,
      cleanReps: null,
      at: '2026-11-20T10:02:00Z',
    },
  ],
  signals: [
    {
      id: '0190a2b4-0000-7000-8000-000000000003',
      drill: 'low-lunge',
      kind: 'sharpPain',
      region: 'knee',
      side: 'left',
      pain: 7,
      at: '2026-11-20T10:01:00Z',
    },
  ],
  finishedAt: '2026-11-20T10:30:00Z',
});

it('makes entries of what the runner of before kept, in their order and the same at every try', () => {
  const entries = entriesOfBefore(kept, session);
  expect(entries.map((e) => e.facts[0]!.kind)).toEqual(['signal', 'set', 'finished']);
  expect(entries.map((e) => e.event.seq)).toEqual([0, 1, 2]);
  expect(entries[0]!.facts[0]).toMatchObject({ signal: 'sharpPain', region: 'knee', pain: 7 });
  // Nobody said of single rounds then that they were seen.
  expect(entries[1]!.facts[0]).toMatchObject({ drill: 'low-lunge', confirmed: false });
  expect(entriesOfBefore(kept, session)).toEqual(entries);
});

it('takes nothing from what cannot be read', () => {
  expect(entriesOfBefore('{', session)).toEqual([]);
  expect(entriesOfBefore('null', session)).toEqual([]);
});

describe('a pack of before', () => {
  it('is told which answers of a day gate can be given, and which are good', () => {
    const check = (atMost: number | null, atLeast: number | null, region: string | null = null) =>
      ({ key: 'k', asks: '', otherwise: 'easier', atMost, atLeast, region }) as never;
    const checks = [check(null, null), check(1, null), check(null, 3), check(2, null, 'wrist')];
    const old = { pack: { gates: [{ checks }] } } as never;
    const said = packOfBefore(old).pack.gates[0]!.checks.map((c) => [c.offered.length, c.good]);
    expect(said).toEqual([
      [2, [1]],
      [5, [0, 1]],
      [7, [3, 4, 5, 6]],
      [11, [0, 1, 2]],
    ]);
    expect(packOfBefore(packOfBefore(old))).toEqual(packOfBefore(old));
    const felt = (of: never) => packOfBefore(of).pack.gates[0]!.checks.map((c) => [c.felt.length, c.signal]);
    const means = [
      [0, null],
      [0, null],
      [0, null],
      [10, 'dullPain'],
    ];
    expect(felt(old)).toEqual(means);
    // One that said its answers, and not yet what is felt.
    const later = structuredClone(packOfBefore(old));
    for (const c of later.pack.gates[0]!.checks) delete (c as Partial<typeof c>).felt;
    expect(felt(later as never)).toEqual(means);
  });
});
