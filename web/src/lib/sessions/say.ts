import { v5 } from 'uuid';
import type { Packed } from './pack';
import { endsRound, lineOf, reduce, segmentOf, versionOf } from './reduce';
import type { LoadTag, Run, RunEvent, Said, Side, SignalKind } from './run';

/** What the floor tells the rest of the house. Made once, when it is said, and never derived again. */
export type Fact = { id: string; at: number } & (
  | {
      kind: 'set';
      drill: string;
      variant: string;
      side: Side | null;
      round: number;
      seconds: number | null;
      cleanReps: number | null;
      /** What a gate reads as evidence is confirmed by a hand: running out of time is practice, not proof. */
      confirmed: boolean;
    }
  | {
      kind: 'signal';
      drill: string | null;
      signal: SignalKind;
      region: LoadTag | null;
      side: Side | null;
      pain: number | null;
      place: string | null;
    }
  | { kind: 'gate'; gate: string; side: Side | null; answers: Record<string, number> }
  | { kind: 'confirmed'; of: string; seconds: number | null; cleanReps: number | null }
  | { kind: 'quality'; of: string; quality: number }
  | { kind: 'finished' }
);

type Bare = Fact extends infer F ? (F extends Fact ? Omit<F, 'id'> : never) : never;

export type SetFact = Extract<Fact, { kind: 'set' }>;

export type Entry = { event: RunEvent; facts: Fact[] };

/** The only maker of events: what is said, with the facts that it makes, and where the session stands afterwards. */
export function say(
  packed: Packed,
  run: Run,
  said: Said,
  ctx: { id: string; at: number },
): { entry: Entry; run: Run } {
  const event: RunEvent = { id: ctx.id, seq: run.seq + 1, at: ctx.at, ...said };
  const after = reduce(packed, run, event);
  const bare = after.unknown === run.unknown ? factsOf(packed, run, after, event) : [];
  return {
    entry: { event, facts: bare.map((f, n) => ({ ...f, id: v5(String(n), event.id) }) as Fact) },
    run: after,
  };
}

function factsOf(packed: Packed, run: Run, after: Run, event: RunEvent): Bare[] {
  return [
    ...closedRound(packed, run, after, event),
    ...spoken(packed, run, event),
    ...(after.over && !run.over ? [{ kind: 'finished' as const, at: event.at }] : []),
  ];
}

function spoken(packed: Packed, run: Run, event: RunEvent): Bare[] {
  const { at } = event;
  switch (event.is) {
    case 'signal': {
      const line = lineOf(run);
      const version = line && packed.version(line.version);
      return [
        {
          kind: 'signal',
          at,
          drill: version?.drill ?? null,
          signal: event.signal,
          region: event.region,
          side: event.side === undefined ? (version?.side ?? null) : event.side,
          pain: event.pain,
          place: event.place ?? null,
        },
      ];
    }
    case 'gate': {
      const gate = packed.gate(event.gate)!;
      const felt = gate.checks.flatMap((c): Bare[] => {
        const pain = event.answers[c.key];
        return pain !== undefined && c.signal != null && c.felt.includes(pain)
          ? [
              {
                kind: 'signal',
                at,
                drill: null,
                signal: c.signal,
                region: c.region,
                side: gate.side,
                pain,
                place: null,
              },
            ]
          : [];
      });
      return [{ kind: 'gate', at, gate: gate.gate, side: gate.side, answers: event.answers }, ...felt];
    }
    case 'confirmed':
      return [{ kind: 'confirmed', at, of: event.of, seconds: event.seconds, cleanReps: event.reps }];
    case 'quality':
      return [{ kind: 'quality', at, of: event.of, quality: event.value }];
    default:
      return [];
  }
}

/** Held by the clock; counted only when it was done to its end. */
function closedRound(packed: Packed, run: Run, after: Run, event: RunEvent): Bare[] {
  const line = lineOf(run);
  if (!line || run.asking !== null || event.is === 'back') return [];
  const segment = segmentOf(packed, run);
  if (segment.kind !== 'work') return [];
  const there = after.lines[after.at];
  const same =
    after.at === run.at &&
    there?.slot === line.slot &&
    there.version === line.version &&
    there.state === 'todo';
  if (same && (after.segment === run.segment || after.round.number === segment.round)) return [];

  const whole = event.is === 'passed' && event.whole && endsRound(packed, run);
  const now = event.is === 'passed' ? event.heldMs : elapsedAt(packed, run, event.at);
  const before = run.round.number === segment.round ? run.round : { ms: 0, from: event.at - now };
  const ms = before.ms + now;
  const version = versionOf(packed, run);
  const meant = version.rounds.find((r) => r.round === segment.round);
  const counted = meant?.reps != null;
  if (ms < 1000 || (counted && !whole)) return [];
  return [
    {
      kind: 'set',
      at: before.from,
      drill: version.drill,
      variant: version.variant,
      side: version.side,
      round: segment.round,
      seconds: counted ? null : Math.round(ms / 100) / 10,
      cleanReps: counted ? meant.reps : null,
      confirmed: !version.evidence,
    },
  ];
}

/** Milliseconds of the segment that have passed: between events only the clock moves. */
export const elapsedAt = (packed: Packed, run: Run, now: number): number =>
  run.over || run.asking !== null
    ? 0
    : Math.min(
        segmentOf(packed, run).seconds * 1000,
        run.elapsed + (run.since === null ? 0 : Math.max(0, now - run.since)),
      );
