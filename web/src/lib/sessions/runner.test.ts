import { beforeEach, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { Runner, type RunnerEvents } from './runner.svelte';

type Segment = Schemas['Segment'];

const segment = (
  part: string,
  kind: Segment['kind'],
  seconds: number,
  round = 0,
  more: Partial<Segment> = {},
): Segment => ({
  part,
  drill: part.split('-')[0]!,
  variant: 'v',
  side: part.endsWith('left') ? 'left' : 'right',
  kind,
  phase: kind === 'work' ? 'hold' : 'none',
  startSeconds: 0,
  seconds,
  round,
  rounds: 2,
  effort: null,
  reps: null,
  label: null,
  cue: null,
  ...more,
});

const version = (
  part: string,
  variant: string,
  hold: number,
  easier: number | null,
  offer: number | null,
): Schemas['PackVersion'] => ({
  variant,
  name: variant,
  seconds: 10 + 2 * hold + 5,
  easier,
  offer,
  segments: [
    segment(part, 'setUp', 10),
    segment(part, 'work', hold, 1, { effort: Array.from({ length: hold }, (_, i) => i) }),
    segment(part, 'rest', 5, 1),
    segment(part, 'work', hold, 2),
  ],
  rounds: [
    { round: 1, holdSeconds: hold, reps: null },
    { round: 2, holdSeconds: hold, reps: null },
  ],
});

const part = (id: string): Schemas['PackPart'] => ({
  id,
  drill: id.split('-')[0]!,
  name: id,
  kind: 'end-range',
  side: id.endsWith('left') ? 'left' : 'right',
  stage: 4,
  props: null,
  checks: [],
  stopSigns: [],
  versions: [
    version(id, 'hard', 30, 1, 2),
    version(id, 'middle', 20, 2, 2),
    version(id, 'easy', 15, null, null),
  ],
});

const stop = (
  signal: Schemas['SignalKind'],
  ends: Schemas['Ends'],
  removes: Record<string, string[]>,
  easierBy = 0,
): Schemas['PackStop'] => ({
  signal,
  name: signal,
  advice: '',
  asksRegion: ends === 'region' || ends === 'drillSide',
  asksPain: false,
  ends,
  easierBy,
  removes,
});

const pack: Schemas['SessionPack'] = {
  parts: [
    part('lunge-left'),
    part('lunge-right'),
    part('check-left'),
    part('attempt-left'),
    part('rest-left'),
  ],
  stops: [],
  dayGates: [
    {
      gate: 'end',
      test: 'check-left',
      needing: ['attempt-left'],
      easier: 1,
      substitute: part('support-left'),
    },
  ],
  totalSeconds: 375,
  sensationCeiling: 7,
};

let clock = 0;
let sets: Schemas['SetFact'][] = [];
let signals: Schemas['SignalFact'][] = [];
let ended = 0;

const events: RunnerEvents = {
  sets: (s) => sets.push(...s),
  signal: (s) => signals.push(s),
  finished: () => ended++,
  sound: () => {},
};

function start(): Runner {
  const runner = new Runner(structuredClone(pack), events, () => clock);
  runner.toggle();
  return runner;
}

function pass(runner: Runner, seconds: number) {
  clock += seconds * 1000;
  runner.tick();
}

beforeEach(() => {
  [clock, sets, signals, ended] = [1_000_000, [], [], 0];
});

describe('the runner', () => {
  it('counts down to the second and goes on by itself', () => {
    const runner = start();
    expect(runner.secondsLeft).toBe(10);
    pass(runner, 9.5);
    expect(runner.secondsLeft).toBe(1);
    pass(runner, 1.5);
    expect([runner.segment.kind, runner.secondsLeft, runner.effort]).toEqual(['work', 29, 1]);
  });

  it('catches up over many segments after the tab slept', () => {
    const runner = start();
    pass(runner, 10 + 30 + 5 + 30 + 4);
    expect([runner.line.part.id, runner.segment.kind, runner.secondsLeft]).toEqual([
      'lunge-right',
      'setUp',
      6,
    ]);
  });

  it('does not count while it is paused', () => {
    const runner = start();
    pass(runner, 4);
    runner.toggle();
    pass(runner, 100);
    runner.toggle();
    pass(runner, 1);
    expect(runner.secondsLeft).toBe(5);
  });

  it('hands a part over when the next one works, each round with its start and length', () => {
    const runner = start();
    pass(runner, 75);
    expect(sets).toHaveLength(0);
    pass(runner, 11);
    expect(sets.map((s) => [s.drill, s.side, s.round, s.seconds])).toEqual([
      ['lunge', 'left', 1, 30],
      ['lunge', 'left', 2, 30],
    ]);
    expect(Date.parse(sets[1]!.at) - Date.parse(sets[0]!.at)).toBe(35_000);
  });

  it('gives the quality to the part that was just done', () => {
    const runner = start();
    pass(runner, 76);
    runner.quality(4);
    pass(runner, 12);
    expect(sets.map((s) => s.quality)).toEqual([4, 4]);
  });

  it('writes down what was really held when a segment is left early', () => {
    const runner = start();
    pass(runner, 10 + 12.3);
    runner.forward();
    expect(runner.segment.kind).toBe('rest');
    runner.skip();
    pass(runner, 11);
    expect(sets.map((s) => s.seconds)).toEqual([12.3]);
  });

  it('goes on one level easier in the same round, and ends the part below the easiest', () => {
    const runner = start();
    pass(runner, 10 + 30 + 5 + 3);
    runner.backOff();
    expect([runner.version.variant, runner.segment.round, runner.secondsLeft]).toEqual(['middle', 2, 20]);
    runner.backOff();
    expect(runner.version.variant).toBe('easy');
    runner.backOff();
    expect(runner.line.part.id).toBe('lunge-right');
  });

  it('ends every part with the region at once and sends the signal', () => {
    const runner = start();
    pass(runner, 15);
    runner.signal(
      stop('sharpPain', 'region', { hamstring: ['lunge-left', 'lunge-right', 'check-left'] }),
      'hamstring',
      7,
    );
    expect(signals.map((s) => [s.kind, s.region, s.side, s.pain])).toEqual([
      ['sharpPain', 'hamstring', 'left', 7],
    ]);
    expect(runner.lines.filter((l) => l.state === 'todo').map((l) => l.part.id)).toEqual(['rest-left']);
    expect([runner.line.part.id, runner.running]).toEqual(['rest-left', false]);
  });

  it('ends the side after a dull pain and offers two levels easier', () => {
    const runner = start();
    pass(runner, 15);
    runner.signal(stop('dullPain', 'drillSide', { '': [] }, 2), 'hamstring', 4);
    expect([runner.line.part.id, runner.offered?.part.id]).toEqual(['lunge-right', 'lunge-left']);
    runner.takeOffer();
    expect([runner.line.part.id, runner.version.variant]).toEqual(['lunge-left', 'easy']);
  });

  it('ends the session after a fall', () => {
    const runner = start();
    pass(runner, 15);
    runner.signal(stop('fall', 'session', { '': pack.parts.map((p) => p.id) }), null, null);
    expect([runner.finished, ended]).toEqual([true, 1]);
    expect(sets.map((s) => s.seconds)).toEqual([5]);
  });

  it('stops for the result of a day gate, and replaces what needs it when it says not today', () => {
    const runner = start();
    runner.skip();
    runner.skip();
    pass(runner, 75);
    expect([runner.asking?.gate, runner.running]).toEqual(['end', false]);
    runner.answer('notToday');
    expect(runner.line.part.id).toBe('support-left');
  });

  it('takes a skipped day gate as not today', () => {
    const runner = start();
    runner.skip();
    runner.skip();
    runner.skip();
    expect(runner.line.part.id).toBe('support-left');
  });

  it('goes on where it was after a reload', () => {
    const runner = start();
    pass(runner, 80);
    const again = new Runner(
      structuredClone(pack),
      events,
      () => clock,
      JSON.parse(JSON.stringify(runner.kept)),
    );
    expect([again.line.part.id, again.lines[0]!.state]).toEqual(['lunge-right', 'done']);
  });
});
