import type { Schemas } from '$lib/api/client';
import { Packed, type Pack, type Segment, type Version } from './pack';
import { Runner } from './runner.svelte';
import type { Entry, Fact } from './say';
import type { Planned } from './tones';

const segment = (kind: Segment['kind'], seconds: number, round = 0, reps: number | null = null): Segment => ({
  part: 'p',
  drill: 'd',
  variant: 'v',
  side: null,
  kind,
  phase: kind === 'work' ? 'hold' : 'none',
  startSeconds: 0,
  seconds,
  round,
  rounds: 2,
  effort: null,
  reps,
  label: null,
  cue: null,
});

const version = (id: string, more: Partial<Version> = {}): Version => ({
  id,
  drill: id.split('/')[0]!,
  name: id,
  variant: id,
  variantName: id,
  side: null,
  skill: 's',
  stage: 1,
  loads: [],
  easier: null,
  offer: null,
  evidence: false,
  props: null,
  checks: [],
  stopSigns: [],
  seconds: 75,
  segments: [segment('setUp', 10), segment('work', 30, 1), segment('rest', 5, 1), segment('work', 30, 2)],
  rounds: [
    { round: 1, holdSeconds: 30, reps: null },
    { round: 2, holdSeconds: 30, reps: null },
  ],
  ...more,
});

const stop = (
  signal: Schemas['SignalKind'],
  ends: Schemas['Ends'],
  more: Partial<Schemas['PackStop']> = {},
): Schemas['PackStop'] => ({
  signal,
  name: signal,
  advice: '',
  asksRegion: ends === 'region',
  asksPain: false,
  ends,
  loads: [],
  easierBy: 0,
  worseFrom: null,
  worse: null,
  shorterFirst: false,
  ...more,
});

export const pack: Pack = {
  format: 2,
  slots: [
    {
      id: 'fold',
      versions: [
        version('fold/hard', {
          loads: ['hamstring'],
          easier: 'fold/easy',
          offer: 'fold/easy',
          evidence: true,
          shorter: 'fold/short',
        }),
        version('fold/short', { loads: ['hamstring'], easier: 'fold/easy' }),
        version('fold/easy', { loads: ['hamstring'] }),
      ],
      group: 'fold',
      keep: 6,
      fewer: [],
      for: [],
    },
    {
      id: 'lean',
      versions: [version('lean/only', { loads: ['wrist'] })],
      group: 'lean',
      keep: 1,
      fewer: [],
      for: [],
    },
    { id: 'rest', versions: [version('rest/only')], group: 'rest', keep: null, fewer: [], for: [] },
  ],
  gates: [],
  stops: [
    stop('dullPain', 'drillSide', { asksRegion: true, worseFrom: 6, worse: 'sharpPain' }),
    stop('sharpPain', 'region'),
    stop('breathHeld', 'nothing', { easierBy: 1 }),
    stop('overCeiling', 'nothing', { easierBy: 1, shorterFirst: true }),
    stop('fallWithHeadContact', 'session'),
  ],
  totalSeconds: 225,
  sensationCeiling: 7,
};

/** A pack as it is made now: positions are left in stretches of their own, and things are said while a stretch lasts. */
export const packOfPositions: Pack = {
  ...pack,
  format: 3,
  slots: pack.slots.map((slot) => ({
    ...slot,
    versions: slot.versions.map((v) => ({
      ...v,
      segments: [
        segment('setUp', 10),
        { ...segment('work', 30, 1), cue: 'Hips back', later: [{ at: 15, says: 'Neck long' }] },
        { ...segment('out', 8, 1), cue: 'Hands first' },
        segment('rest', 5, 1),
        segment('work', 30, 2),
        { ...segment('out', 8, 2), cue: 'Hands first' },
      ],
    })),
  })),
};

/** A floor with a clock in its hand. */
export class Floor {
  now = 1_000_000;
  readonly entries: Entry[] = [];
  tones: readonly Planned[] = [];
  readonly runner: Runner;
  #ids = 0;

  constructor(
    said: readonly Entry[] = [],
    seen = 0,
    ended: readonly string[] = [],
    now = 1_000_000,
    of = pack,
  ) {
    this.now = now;
    this.runner = new Runner(
      new Packed(of),
      {
        now: () => this.now,
        id: () => `00000000-0000-4000-8000-${String(++this.#ids + said.length).padStart(12, '0')}`,
        keep: (entry) => this.entries.push(entry),
        lay: (tones) => (this.tones = tones),
      },
      ended,
      said,
      seen,
    );
  }

  /** Seconds by the clock, a tick ten times a second. */
  pass(seconds: number): void {
    for (let i = 0; i < seconds * 10; i++) {
      this.now += 100;
      this.runner.tick();
    }
  }

  get facts(): Fact[] {
    return this.entries.flatMap((e) => e.facts);
  }

  sets = () => this.facts.flatMap((f) => (f.kind === 'set' ? [f] : []));
}
