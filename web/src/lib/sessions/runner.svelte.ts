import { newId, type Schemas } from '$lib/api/client';
import { iso } from '$lib/parts/instant';

type Pack = Schemas['SessionPack'];
type Part = Schemas['PackPart'];
type Segment = Schemas['Segment'];
type SetFact = Schemas['SetFact'];
type SignalFact = Schemas['SignalFact'];
type State = 'todo' | 'done' | 'ended';

export type Line = { part: Part; version: number; state: State };
export type DayResult = 'go' | 'easier' | 'notToday';

/** What the runner tells the world: facts to keep, and moments to sound. */
export type RunnerEvents = {
  sets: (sets: SetFact[]) => void;
  signal: (signal: SignalFact) => void;
  finished: () => void;
  sound: (moment: 'work' | 'rest' | 'tick' | 'end') => void;
};

type Kept = { index: number; segment: number; lines: { part: Part; version: number; state: State }[] };

/**
 * Runs a session pack against a clock that is handed in. It looks up and splices what the core made ready; it derives nothing.
 * No DOM, no timers: whoever owns it calls `tick`.
 */
export class Runner {
  lines = $state<Line[]>([]);
  index = $state(0);
  segmentIndex = $state(0);
  elapsedMs = $state(0);
  running = $state(false);
  finished = $state(false);
  /** The day gate whose test is over and waits for its result. */
  asking = $state<Schemas['PackDayGate']>();
  /** The easier version offered after a dull pain. */
  offered = $state<Line>();
  #last = 0;
  #round = { number: 0, ms: 0, startedAt: 0 };
  #pending: SetFact[] = [];

  constructor(
    readonly pack: Pack,
    private readonly events: RunnerEvents,
    private readonly now: () => number,
    kept?: Kept,
  ) {
    this.lines = kept?.lines ?? pack.parts.map((part) => ({ part, version: 0, state: 'todo' as const }));
    this.index = kept?.index ?? 0;
    this.segmentIndex = kept?.segment ?? 0;
  }

  get line(): Line {
    return this.lines[this.index]!;
  }

  get version(): Schemas['PackVersion'] {
    return this.line.part.versions[this.line.version]!;
  }

  get segment(): Segment {
    return this.version.segments[this.segmentIndex]!;
  }

  get secondsLeft(): number {
    return Math.max(0, Math.ceil(this.segment.seconds - this.elapsedMs / 1000));
  }

  /** The effort to show now, looked up in the segment's own list. */
  get effort(): number | undefined {
    const at = Math.floor(this.elapsedMs / 1000);
    return this.segment.effort?.[Math.min(at, this.segment.seconds - 1)];
  }

  /** The work that comes next, in this part or a later one. */
  get next(): { line: Line; segment: Segment } | undefined {
    const here = this.version.segments.slice(this.segmentIndex + 1).find((s) => s.kind === 'work');
    if (here) return { line: this.line, segment: here };
    const line = this.lines[this.#following()];
    const segment = line?.part.versions[line.version]!.segments.find((s) => s.kind === 'work');
    return line && segment ? { line, segment } : undefined;
  }

  get kept(): Kept {
    return { index: this.index, segment: this.segmentIndex, lines: $state.snapshot(this.lines) as Line[] };
  }

  toggle(): void {
    if (this.finished || this.asking) return;
    this.running = !this.running;
    this.#last = this.now();
    if (this.running && this.elapsedMs === 0) this.#sound();
  }

  /** Moves on by what has passed since the last tick, over as many segments as that takes. */
  tick(): void {
    const now = this.now();
    let passed = this.running ? now - this.#last : 0;
    this.#last = now;
    while (passed > 0 && this.running && !this.finished) {
      const rest = this.segment.seconds * 1000 - this.elapsedMs;
      const step = Math.min(passed, rest);
      this.#count(step, now - passed);
      const before = this.secondsLeft;
      this.elapsedMs += step;
      passed -= step;
      if (step === rest) this.#advance(true, now - passed);
      else if (this.secondsLeft !== before && this.secondsLeft <= 3) this.events.sound('tick');
    }
  }

  /** On to the next segment; what was held so far counts as held. */
  forward(): void {
    if (!this.finished && !this.asking) this.#advance(false, this.now());
  }

  /** To the start of this segment, or of the one before. */
  back(): void {
    if (this.finished) return;
    if (this.elapsedMs < 2000 && this.segmentIndex > 0) this.segmentIndex--;
    this.elapsedMs = 0;
    this.#round.ms = 0;
  }

  /** Ends this part and goes on with the next. */
  skip(): void {
    if (this.finished || this.asking) return;
    this.#closeRound(false);
    this.#leave('ended', this.now());
  }

  /** The rest of this part one level easier, or its end when this is the easiest. */
  backOff(): void {
    if (this.finished) return;
    const easier = this.version.easier;
    if (easier == null) this.skip();
    else this.#goOnAs(easier);
  }

  takeOffer(): void {
    const line = this.offered;
    this.offered = undefined;
    const offer = line?.part.versions[line.version]!.offer;
    if (!line || offer == null) return;
    this.lines.splice(this.index, 0, { part: line.part, version: offer, state: 'todo' });
    this.#begin();
  }

  /** What a body says: the fact goes out at once, and the pack says which parts end. */
  signal(stop: Schemas['PackStop'], region: Schemas['LoadTag'] | null, pain: number | null): void {
    this.running = false;
    this.events.signal({
      id: newId(),
      drill: this.line.part.drill,
      kind: stop.signal,
      region,
      side: this.line.part.side,
      pain,
      note: null,
      at: iso(this.now()),
    });
    const line = this.line;
    this.#end(stop.removes[stop.asksRegion ? (region ?? '') : ''] ?? []);
    if (this.finished) return;
    if (stop.ends === 'drillSide') {
      this.offered = line.part.versions[line.version]!.offer == null ? undefined : line;
      this.skip();
    } else if (stop.ends === 'nothing' && stop.easierBy > 0) this.backOff();
  }

  /** Drills that a caution set meanwhile bars. */
  bar(drills: string[]): void {
    const barred = this.lines
      .filter((l) => l.state === 'todo' && drills.includes(l.part.drill))
      .map((l) => l.part.id);
    if (barred.length) this.#end(barred);
  }

  quality(value: number): void {
    for (const set of this.#pending) set.quality = value;
  }

  answer(result: DayResult): void {
    const gate = this.asking;
    if (!gate) return;
    this.asking = undefined;
    this.#apply(gate, result);
    this.#enter();
  }

  #apply(gate: Schemas['PackDayGate'], result: DayResult): void {
    if (result === 'go') return;
    const needing = this.lines.filter((l) => gate.needing.includes(l.part.id) && l.state === 'todo');
    for (const line of needing) {
      if (result === 'easier' && gate.easier != null) line.version = gate.easier;
      else if (gate.substitute)
        this.lines.splice(this.lines.indexOf(line), 1, { part: gate.substitute, version: 0, state: 'todo' });
      else line.state = 'ended';
    }
  }

  #count(step: number, at: number): void {
    if (this.segment.kind !== 'work') return;
    if (this.#round.number !== this.segment.round)
      this.#round = { number: this.segment.round, ms: 0, startedAt: at };
    this.#round.ms += step;
  }

  #advance(whole: boolean, at: number): void {
    const segments = this.version.segments;
    const next = segments[this.segmentIndex + 1];
    if (this.segment.kind === 'work' && (!next || next.kind !== 'work' || next.round !== this.segment.round))
      this.#closeRound(whole);
    if (next) {
      this.segmentIndex++;
      this.elapsedMs = 0;
      if (next.kind === 'work') this.#release();
      this.#sound();
    } else this.#leave('done', at);
  }

  /** Writes the round down: what was held by the clock, what was counted only when it was done to its end. */
  #closeRound(whole: boolean): void {
    const round = this.#round;
    this.#round = { number: 0, ms: 0, startedAt: 0 };
    if (round.number === 0 || round.ms < 1000) return;
    const meant = this.version.rounds.find((r) => r.round === round.number);
    const counted = meant?.reps != null;
    if (counted && !whole) return;
    this.#pending.push({
      id: newId(),
      drill: this.line.part.drill,
      variant: this.version.variant,
      side: this.line.part.side,
      round: round.number,
      seconds: counted ? null : Math.round(round.ms / 100) / 10,
      cleanReps: counted ? meant!.reps! : null,
      quality: null,
      sensation: null,
      at: iso(round.startedAt),
    });
  }

  #release(): void {
    const done = this.#pending.filter(
      (s) => s.drill !== this.line.part.drill || s.side !== this.line.part.side,
    );
    if (!done.length) return;
    this.#pending = this.#pending.filter((s) => !done.includes(s));
    this.events.sets(done);
  }

  #leave(state: State, at: number): void {
    const line = this.line;
    line.state = state;
    const gate = this.pack.dayGates.find((g) => g.test === line.part.id);
    if (gate && state === 'done') {
      this.running = false;
      this.asking = gate;
      return;
    }
    if (gate) this.#apply(gate, 'notToday');
    this.#enter(at);
  }

  #following(): number {
    const after = this.lines.findIndex((l, i) => i > this.index && l.state === 'todo');
    return after === -1 ? this.lines.length : after;
  }

  #enter(at = this.now()): void {
    const next = this.lines.findIndex((l, i) => i >= this.index && l.state === 'todo');
    if (next === -1) return this.#finish();
    this.index = next;
    this.#begin();
    this.#last = Math.max(this.#last, at);
  }

  #begin(): void {
    this.segmentIndex = 0;
    this.elapsedMs = 0;
    this.#round = { number: 0, ms: 0, startedAt: 0 };
    this.#sound();
  }

  #goOnAs(version: number): void {
    const round = this.segment.round;
    this.#closeRound(false);
    this.line.version = version;
    const from = this.version.segments.findIndex((s) => s.kind === 'work' && s.round >= round);
    this.segmentIndex = round === 0 ? 0 : Math.max(0, from);
    this.elapsedMs = 0;
  }

  #end(parts: string[]): void {
    const dependent = this.pack.dayGates.filter((g) => parts.includes(g.test)).flatMap((g) => g.needing);
    const gone = [...parts, ...dependent];
    const here = gone.includes(this.line.part.id);
    for (const line of this.lines)
      if (gone.includes(line.part.id) && line.state === 'todo' && line !== this.line) line.state = 'ended';
    if (here) {
      this.#closeRound(false);
      this.line.state = 'ended';
      this.#enter();
    }
  }

  #finish(): void {
    this.finished = true;
    this.running = false;
    if (this.#pending.length) this.events.sets(this.#pending);
    this.#pending = [];
    this.events.sound('end');
    this.events.finished();
  }

  #sound(): void {
    this.events.sound(this.segment.kind === 'work' ? 'work' : 'rest');
  }
}
