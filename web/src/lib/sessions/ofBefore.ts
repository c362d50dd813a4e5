import { v5 } from 'uuid';
import type { Schemas } from '$lib/api/client';
import type { RunEvent } from './run';
import type { Entry, Fact } from './say';

/** Where the runner of before kept what it had not sent, by session. */
export const ofBefore = 'outbox:';

/** What the runner of before wrote down: rounds and signals, with nothing of what was said. */
type Before = {
  sets?: ({ id: string; at: string; quality?: number | null } & Omit<
    Extract<Fact, { kind: 'set' }>,
    'id' | 'at' | 'kind'
  >)[];
  signals?: ({ id: string; at: string; kind: string } & Omit<
    Extract<Fact, { kind: 'signal' }>,
    'id' | 'at' | 'kind' | 'signal'
  >)[];
  finishedAt?: string | null;
};

/** One entry a fact, in the order in which they were; what cannot be read is left out. Their ids are the same at every try. */
export function entriesOfBefore(text: string, session: string): Entry[] {
  let kept: Before | null;
  try {
    kept = JSON.parse(text) as Before | null;
  } catch {
    return [];
  }
  const facts: Fact[] = [
    ...(kept?.sets ?? []).map((s): Fact => ({
      kind: 'set',
      id: s.id,
      at: Date.parse(s.at),
      drill: s.drill,
      variant: s.variant,
      side: s.side ?? null,
      round: s.round,
      seconds: s.seconds ?? null,
      cleanReps: s.cleanReps ?? null,
      // Nobody confirmed single rounds then: a coach still can.
      confirmed: false,
    })),
    ...(kept?.signals ?? []).map((s): Fact => ({
      kind: 'signal',
      id: s.id,
      at: Date.parse(s.at),
      drill: s.drill ?? null,
      signal: s.kind as Extract<Fact, { kind: 'signal' }>['signal'],
      region: s.region ?? null,
      place: null,
      side: s.side ?? null,
      pain: s.pain ?? null,
    })),
    ...(kept?.finishedAt
      ? [{ kind: 'finished' as const, id: v5('finished', session), at: Date.parse(kept.finishedAt) }]
      : []),
  ];
  return facts
    .filter((f) => !Number.isNaN(f.at))
    .sort((a, b) => a.at - b.at)
    .map((fact, seq) => ({
      event: { id: v5('ofBefore', fact.id), seq, at: fact.at, is: 'ofBefore' } as unknown as RunEvent,
      facts: [fact],
    }));
}

type Check = Schemas['PackCheck'];

/** A pack that was kept here before packs said which answers of a day gate can be given, which are good, and which are a signal. */
export const packOfBefore = (response: Schemas['PackResponse']): Schemas['PackResponse'] => ({
  ...response,
  pack: {
    ...response.pack,
    gates: (response.pack.gates ?? []).map((gate) => ({ ...gate, checks: gate.checks.map(said) })),
  },
});

function said(check: Check): Check {
  if (check.felt) return check;
  const meant = check.offered ? check : answersOf(check);
  const pain = check.region != null;
  return { ...meant, felt: pain ? meant.offered.filter((n) => n > 0) : [], signal: pain ? 'dullPain' : null };
}

function answersOf(check: Check): Check {
  const [least, most] = [check.atLeast ?? undefined, check.atMost ?? undefined];
  if (least === undefined && most === undefined) return { ...check, offered: [0, 1], good: [1] };
  const last = check.region != null ? 10 : Math.max(least ?? 0, most ?? 0) + 3;
  const offered = Array.from({ length: last + 1 }, (_, n) => n);
  return { ...check, offered, good: offered.filter((n) => n >= (least ?? 0) && n <= (most ?? last)) };
}
