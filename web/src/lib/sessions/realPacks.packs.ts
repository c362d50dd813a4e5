import { beforeAll, describe, expect, it } from 'vitest';
import { failedCheck, Packed, type Gate } from './pack';
import { lineOf, reduce, replay } from './reduce';
import { reshape } from './reshape';
import type { LoadTag, Run, SignalKind } from './run';
import { readWritten, sound, Walk, well, where, type Written } from './realPacks.walk';

/**
 * The packs of every stage, as the core's test wrote them, through the runner that the floor runs: whatever a body says, wherever in the
 * session, nothing that is left loads what has ended.
 */
const regions: LoadTag[] = [
  'neck',
  'wrist',
  'shoulder',
  'elbow',
  'low-back',
  'hip-front',
  'hip-deep-flexion',
  'hamstring',
  'adductor',
  'knee-deep-flexion',
  'knee-twist',
  'ankle',
];
let written: Written[] = [];
/** What the walk came through: each check with each outcome, each signal on each kind of line. */
const covered = new Set<string>();

beforeAll(() => {
  written = readWritten();
});

/** At most twelve ways of answering: all well, each check failed alone, nothing seen, and pain at its worst. */
function leaves(gate: Gate): Record<string, number>[] {
  const failing = gate.checks.map((c) => ({
    ...well(gate),
    [c.key]: c.atMost != null ? c.atMost + 1 : (c.atLeast ?? 1) - 1,
  }));
  const worst = gate.checks.filter((c) => c.region != null).map((c) => ({ ...well(gate), [c.key]: 10 }));
  return [well(gate), ...failing, ...worst, {}].slice(0, 12);
}

const signals: { signal: SignalKind; pain: number | null }[] = [
  { signal: 'dullPain', pain: 4 },
  { signal: 'dullPain', pain: 6 },
  { signal: 'sharpPain', pain: null },
  { signal: 'pinch', pain: null },
  { signal: 'pop', pain: null },
  { signal: 'strengthLost', pain: null },
  { signal: 'numbness', pain: null },
  { signal: 'headPressure', pain: null },
  { signal: 'bailed', pain: null },
  { signal: 'fall', pain: null },
  { signal: 'fallWithHeadContact', pain: null },
  { signal: 'breathHeld', pain: null },
  { signal: 'overCeiling', pain: null },
];

/** Everything that a body can say here, and what it must end. */
function everySignal(w: Written, packed: Packed, run: Run, kind: string, places = regions): void {
  for (const { signal, pain } of signals) {
    const stop = packed.metAs(signal, pain);
    for (const region of stop.asksRegion ? places : [null]) {
      const after = reduce(packed, run, {
        id: '',
        seq: run.seq + 1,
        at: 0,
        is: 'signal',
        signal,
        region,
        pain,
      });
      hurtIsOver(packed, run, after, stop.ends, () => `${where(w, run)} after ${signal}`);
      if (after.unknown !== run.unknown) throw new Error(`${where(w, run)}: ${signal} was not taken`);
      sound(packed, after, () => `${where(w, run)} after ${signal} ${region ?? ''}`);
      const must = stop.ends === 'region' ? [region as string] : stop.ends === 'tags' ? stop.loads : [];
      if (!must.every((load) => after.ended.includes(load)))
        throw new Error(`${where(w, run)}: ${signal} ended nothing`);
      if (stop.ends === 'session' && !after.over)
        throw new Error(`${where(w, run)}: ${signal} did not end the session`);
      if (after.since !== null) throw new Error(`${where(w, run)}: the clock runs on after ${signal}`);
      if (
        signal === 'dullPain' &&
        pain === 4 &&
        run.asking === null &&
        lineOf(after) === lineOf(run) &&
        !after.over
      )
        throw new Error(`${where(w, run)}: dull pain left the drill on this side`);
      covered.add(`${signal}/${kind}`);
      // An offer, where there is one, is taken, and obeys what the body says next.
      if (after.offer && region === null) continue;
      if (after.offer) {
        const taken = reduce(packed, after, { id: '', seq: 0, at: 0, is: 'offerTaken' });
        sound(packed, taken, () => `${where(w, run)} with the offer taken`);
        if (kind === 'planned' && region === regions[0]) everyEnding(w, packed, taken);
      }
    }
  }
}

/**
 * The drill in which something was felt never goes on, whatever it loads: on both sides where it has none or where it was sharp. An easier version may
 * be offered after dull pain, and is no line before somebody takes it.
 */
function hurtIsOver(packed: Packed, run: Run, after: Run, ends: string, said: () => string): void {
  if (ends === 'nothing' || after.over) return;
  const hurt = packed.version(lineOf(run)!.version);
  const left = after.lines
    .filter((l) => l.state === 'todo')
    .map((l) => packed.version(l.version))
    .filter((v) => v.drill === hurt.drill);
  const wrong = ends === 'drillSide' && hurt.side ? left.filter((v) => v.side === hurt.side) : left;
  if (wrong.length > 0) throw new Error(`${said()}: ${hurt.drill} goes on`);
}

/** A region that the line loads; the ankle where it loads none. */
function near(packed: Packed, run: Run): LoadTag[] {
  const { loads } = packed.version(lineOf(run)!.version);
  return [regions.find((r) => loads.includes(r)) ?? 'ankle'];
}

/** What ends loads, said on an offer that was taken. */
function everyEnding(w: Written, packed: Packed, run: Run): void {
  for (const { signal, pain } of signals) {
    const stop = packed.metAs(signal, pain);
    const load =
      lineOf(run) &&
      packed.version(lineOf(run)!.version).loads.find((l) => (regions as string[]).includes(l));
    const after = reduce(packed, run, {
      id: '',
      seq: 0,
      at: 0,
      is: 'signal',
      signal,
      region: (load ?? 'wrist') as LoadTag,
      pain,
    });
    sound(packed, after, () => `${where(w, run)} after ${signal} on an offer`);
    if (stop.ends === 'region' && load && after.lines[run.at]?.state === 'todo')
      throw new Error(`${where(w, run)}: ${signal} left an offer`);
    covered.add(`${signal}/offer`);
  }
}

/** Each way a gate can be answered, and everything a body can say while what is done instead is done. */
function everyAnswer(w: Written, packed: Packed, run: Run): void {
  const gate = packed.gate(run.asking!)!;
  for (const answers of leaves(gate)) {
    const after = reduce(packed, run, { id: '', seq: 0, at: 0, is: 'gate', gate: gate.id, answers });
    sound(packed, after, () => `${where(w, run)} after ${gate.gate}`);
    const failed = failedCheck(gate, answers);
    for (const check of gate.checks)
      covered.add(`${gate.gate}/${check.key}/${check.key === failed?.key ? check.otherwise : 'go'}`);
    const needs = new Set(gate.needs.map((n) => n.slot));
    const left = after.lines.filter((l) => needs.has(l.slot) && l.state === 'todo');
    if (failed?.otherwise === 'notToday' && left.length > 0)
      throw new Error(`${where(w, run)}: ${gate.gate} said no, and ${left.length} are left`);
    const put = after.lines.filter((l) => !run.lines.some((b) => b.slot === l.slot));
    // One substitute: two drills at most, each on both sides.
    const drills = new Set(put.map((l) => packed.slot(l.slot).versions[0]!.drill));
    if (drills.size > 2) throw new Error(`${where(w, run)}: ${drills.size} were put in for one gate`);
    const there = lineOf(after);
    if (there && put.includes(there)) everySignal(w, packed, after, 'substitute');
  }
}

function walk(w: Written): void {
  const packed = new Packed(w.pack);
  const walker = new Walk(w, packed);
  walker.say({ is: 'started' });
  for (let steps = 0; !walker.run.over; steps++) {
    if (steps > 2000) throw new Error(`${where(w, walker.run)}: no end`);
    if (walker.run.asking !== null) {
      everyAnswer(w, packed, walker.run);
      everySignal(w, packed, walker.run, 'gate');
      walker.answerWell();
    } else {
      // What a signal ends depends on the line and not on the second: later segments try the line's own region.
      everySignal(
        w,
        packed,
        walker.run,
        'planned',
        walker.run.segment === 0 ? regions : near(packed, walker.run),
      );
      walker.pass();
    }
  }
  // The same events give the same session, from any prefix on.
  const half = Math.floor(walker.events.length / 2);
  const from = walker.events
    .slice(half)
    .reduce((run, e) => reduce(packed, run, e), replay(packed, walker.events.slice(0, half), w.barred));
  expect(from).toEqual(walker.run);
  // One set a round that was done, and the end, once.
  const rounds = w.pack.slots.reduce((n, s) => n + s.versions[0]!.rounds.length, 0);
  const sets = walker.facts.filter((f) => f.kind === 'set');
  expect(sets.length).toBe(rounds);
  expect(walker.facts.filter((f) => f.kind === 'finished').length).toBe(1);
  expect(new Set(walker.facts.map((f) => f.id)).size).toBe(walker.facts.length);
}

describe('the packs of every stage through the runner', () => {
  it('obeys every signal in every region at every state, and every answer of every gate', () => {
    expect(written.length).toBeGreaterThanOrEqual(48 * 5 * 2 + 42 + 2 * 45 + 120);
    for (const w of written) walk(w);
    const gates = new Map(written.flatMap((w) => w.pack.gates).map((g) => [g.gate, g]));
    for (const gate of gates.values())
      for (const check of gate.checks) {
        expect(covered).toContain(`${gate.gate}/${check.key}/go`);
        expect(covered).toContain(`${gate.gate}/${check.key}/${check.otherwise}`);
      }
    for (const { signal } of signals)
      for (const kind of ['planned', 'substitute', 'offer']) expect(covered).toContain(`${signal}/${kind}`);
  });

  it('runs one in a hundred by chance to its end, whatever is said', () => {
    let seed = 7;
    const chance = (n: number) => (seed = (seed * 48271) % 2147483647) % n;
    const pick = <T>(from: readonly T[]): T => from[chance(from.length)]!;
    for (const w of written.filter((_, i) => i % 100 === 0))
      for (let times = 0; times < 40; times++) {
        const packed = new Packed(w.pack);
        const walker = new Walk(w, packed);
        walker.say({ is: 'started' });
        for (let steps = 0; !walker.run.over && steps < 3000; steps++) {
          if (walker.run.asking !== null) {
            const gate = packed.gate(walker.run.asking)!;
            walker.say({ is: 'gate', gate: gate.id, answers: pick(leaves(gate)) });
          } else if (walker.run.offer && chance(2)) walker.say({ is: 'offerTaken' });
          else
            switch (chance(15)) {
              case 14:
                walker.say({
                  is: 'reshaped',
                  versions: reshape(packed, walker.run, 0, chance(1800)).versions,
                });
                break;
              case 0:
                walker.say({ is: 'skipped' });
                break;
              case 1:
                walker.say({ is: 'eased' });
                break;
              case 2: {
                const { signal, pain } = pick(signals.filter((s) => s.signal !== 'fallWithHeadContact'));
                walker.say({
                  is: 'signal',
                  signal,
                  pain,
                  region: packed.metAs(signal, pain).asksRegion ? pick(regions) : null,
                });
                break;
              }
              case 3:
                walker.say({ is: 'barred', loads: chance(8) ? [] : [pick(regions)] });
                break;
              default:
                walker.pass();
            }
        }
        expect(walker.run.over).toBe(true);
        expect(replay(packed, walker.events, w.barred)).toEqual(walker.run);
        expect(walker.facts.filter((f) => f.kind === 'signal').length).toBeGreaterThanOrEqual(
          walker.events.filter((e) => e.is === 'signal').length,
        );
      }
  });
});
