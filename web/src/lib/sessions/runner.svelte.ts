import { tonesAhead } from './ahead';
import type { Gate, Packed, Segment, Stop, Version } from './pack';
import { begin, reduce, segmentOf, versionOf } from './reduce';
import { reshape, secondsToGo, type Reshaped } from './reshape';
import type { Felt, Run, Said } from './run';
import { easedText, takenOut, type TakenOut } from './takenOut';
import { elapsedAt, say, type Entry, type SetFact } from './say';
import type { Planned } from './tones';

/** What the runner has of the world around it. */
export type Around = {
  now: () => number;
  id: () => string;
  /** Keeps what was said, in its order. */
  keep: (entry: Entry) => void;
  /** The tones from now on. */
  lay: (tones: readonly Planned[]) => void;
};

/** A device that slept longer than this asks what was done. */
const longestGap = 10_000;

/**
 * Runs a pack on the floor: what is said and what the clock does become events; all that is shown is what they come to. No DOM and no timers:
 * whoever owns it calls `tick`.
 */
export class Runner {
  run = $state.raw<Run>() as Run;
  /** The moment that is shown. */
  now = $state(0);
  /** The device slept since then, and nobody said yet what was done. */
  slept = $state<{ from: number; to: number }>();
  /** By side and question: a gate that asks what another asked already starts from that answer. */
  // Read when a gate asks, which is state of its own.
  // eslint-disable-next-line svelte/prefer-svelte-reactivity
  readonly #answers = new Map<string, number>();
  /** What backing off came to: an easier version, a shorter one, or the end of the drill. */
  eased = $state.raw<string>();
  /** What the last signal took out, until it was seen. */
  taken = $state.raw<TakenOut>();
  /** The round that was logged last: quality and confirmation are about it. */
  last = $state.raw<SetFact>();
  /** It was confirmed, or its quality said. */
  confirmed = $state(false);
  quality = $state<number>();
  #ticked: number;

  constructor(
    readonly packed: Packed,
    private readonly around: Around,
    ended: readonly string[] = [],
    said: readonly Entry[] = [],
    /** When the page that ran it before was last alive. */
    seen = 0,
  ) {
    this.now = this.#ticked = around.now();
    this.run = said.reduce((run, e) => reduce(packed, run, e.event), begin(packed));
    // After a reload or a crash the clock stands where it was last seen.
    if (this.run.since !== null)
      this.#take({ is: 'paused' }, Math.min(this.now, Math.max(this.run.since, seen)));
    this.bar(ended);
    for (const entry of said) this.#remember(entry);
  }

  get version(): Version {
    return versionOf(this.packed, this.run);
  }

  get segment(): Segment {
    return segmentOf(this.packed, this.run);
  }

  get running(): boolean {
    return this.run.since !== null;
  }

  /** What was done to its end, in the order of the session. */
  get done(): readonly Version[] {
    return this.run.lines.filter((l) => l.state === 'done').map((l) => this.packed.version(l.version));
  }

  get asking(): Gate | undefined {
    return this.run.asking === null ? undefined : this.packed.gate(this.run.asking);
  }

  /** What the gate that asks is asked for, each once. */
  get needed(): readonly { drill: string; text: string }[] {
    const versions = (this.asking?.needs ?? [])
      .map((n) => this.run.lines.find((l) => l.slot === n.slot && l.state === 'todo'))
      .flatMap((l) => (l ? [this.packed.version(l.version)] : []));
    const named = versions.map((v) => ({
      drill: v.drill,
      text: v.variant === 'standard' ? v.name : `${v.name}, ${v.variantName.toLowerCase()}`,
    }));
    return named.filter((n, i) => named.findIndex((o) => o.text === n.text) === i);
  }

  get offered(): Version | undefined {
    return this.run.offer ? this.packed.version(this.run.offer.version) : undefined;
  }

  get elapsed(): number {
    return elapsedAt(this.packed, this.run, this.now);
  }

  get secondsLeft(): number {
    return Math.max(0, Math.ceil(this.segment.seconds - this.elapsed / 1000));
  }

  /** The effort to show now, looked up in the segment's own list. */
  get effort(): number | undefined {
    const at = Math.floor(this.elapsed / 1000);
    return this.segment.effort?.[Math.min(at, this.segment.seconds - 1)];
  }

  /** What is said now: as the segment began, or while it lasts. */
  get cue(): string {
    const at = this.elapsed / 1000;
    return this.segment.later?.findLast((l) => l.at <= at)?.says ?? this.segment.cue ?? '';
  }

  /** The work that comes next, in this version or in a later line. */
  get next(): { version: Version; segment: Segment } | undefined {
    const here = this.version.segments.slice(this.run.segment + 1).find((s) => s.kind === 'work');
    if (here) return { version: this.version, segment: here };
    const line = this.run.lines.find((l, i) => i > this.run.at && l.state === 'todo');
    const version = line && this.packed.version(line.version);
    const segment = version?.segments.find((s) => s.kind === 'work');
    return version && segment ? { version, segment } : undefined;
  }

  /** The clock has moved: on by as many segments as that takes. */
  tick(): void {
    const now = this.around.now();
    const asleep = this.running && now - this.#ticked > longestGap;
    if (asleep) {
      this.slept = { from: this.#ticked, to: now };
      this.#take({ is: 'paused' }, this.#ticked);
    }
    this.#ticked = now;
    while (this.run.since !== null) {
      const left = this.segment.seconds * 1000 - this.run.elapsed;
      const at = this.run.since + left;
      if (at > now) break;
      this.#take({ is: 'passed', heldMs: this.segment.seconds * 1000, whole: true }, at);
    }
    this.now = now;
  }

  toggle(): void {
    if (this.run.over || this.run.asking !== null) return;
    this.#ticked = this.around.now();
    this.seen();
    this.#say({ is: this.running ? 'paused' : this.run.started ? 'resumed' : 'started' });
  }

  pause(): void {
    if (this.running) this.#say({ is: 'paused' });
  }

  /** On to the next segment; what was held so far counts as held. */
  forward(): void {
    if (this.#stands) this.#say({ is: 'passed', heldMs: this.elapsed, whole: false });
  }

  /** To the start of this segment, or of the one before. */
  back(): void {
    if (this.#stands) this.#say({ is: 'back' });
  }

  skip(): void {
    if (this.#stands) this.#say({ is: 'skipped' });
  }

  backOff(): void {
    if (!this.#stands) return;
    const before = this.run;
    this.#say({ is: 'eased' });
    this.eased = easedText(this.packed, before, this.run);
  }

  /** What is still to do takes so many seconds. */
  get secondsToGo(): number {
    return secondsToGo(this.packed, this.run, this.elapsed);
  }

  /** What would be left in so many seconds. */
  reshaped(seconds: number): Reshaped {
    return reshape(this.packed, this.run, this.elapsed, seconds);
  }

  reshape(seconds: number): void {
    if (!this.run.over) this.#say({ is: 'reshaped', versions: this.reshaped(seconds).versions });
  }

  takeOffer(): void {
    if (this.run.offer) this.#say({ is: 'offerTaken' });
  }

  declineOffer(): void {
    if (this.run.offer) this.#say({ is: 'offerDeclined' });
  }

  end(): void {
    if (this.#stands) this.#say({ is: 'ended' });
  }

  /** What the body says; what goes for it, and what comes instead, stands until somebody goes on. */
  signal(stop: Stop, what: Felt): void {
    const before = this.run;
    this.#say({ is: 'signal', signal: stop.signal, ...what });
    this.taken = takenOut(this.packed, before, this.run);
  }

  /** It was seen what goes. */
  seen(): void {
    this.taken = undefined;
    this.eased = undefined;
  }

  answer(answers: Record<string, number>): void {
    if (this.run.asking !== null) this.#say({ is: 'gate', gate: this.run.asking, answers });
  }

  /** Loads that the server bars by now. */
  bar(loads: readonly string[]): void {
    if (loads.some((l) => !this.run.ended.includes(l))) this.#say({ is: 'barred', loads });
  }

  /** What was done while the device slept, in seconds of the segment that was under way. */
  tellGap(doneSeconds: number): void {
    if (!this.slept) return;
    const { from } = this.slept;
    this.slept = undefined;
    if (this.#stands) this.#say({ is: 'gap', from, doneSeconds });
  }

  /** One key: the round that was logged last was done, with its number. */
  confirm(seconds: number | null, reps: number | null): void {
    if (!this.last || this.last.confirmed || this.confirmed) return;
    this.#say({ is: 'confirmed', of: this.last.id, seconds, reps });
    this.confirmed = true;
  }

  rate(value: number): void {
    if (!this.last) return;
    this.#say({ is: 'quality', of: this.last.id, value });
    this.quality = value;
  }

  get #stands(): boolean {
    return !this.run.over && this.run.asking === null;
  }

  #say(said: Said): void {
    this.now = this.around.now();
    this.#take(said, this.now);
  }

  #take(said: Said, at: number): void {
    const told = say(this.packed, this.run, said, { id: this.around.id(), at });
    if (told.run.unknown !== this.run.unknown) return;
    this.run = told.run;
    this.#remember(told.entry);
    this.around.keep(told.entry);
    this.around.lay(tonesAhead(this.packed, this.run, this.around.now()));
  }

  /** What was answered today to a question that this gate asks again. */
  get answered(): Record<string, number> {
    return Object.fromEntries(
      (this.asking?.checks ?? []).flatMap((c) => {
        const said = this.#answers.get(`${this.asking!.side}/${c.asks}`);
        return said === undefined ? [] : [[c.key, said]];
      }),
    );
  }

  #remember({ event, facts }: Entry): void {
    const gate = event.is === 'gate' ? this.packed.gate(event.gate) : undefined;
    for (const check of gate?.checks ?? [])
      if (event.is === 'gate' && event.answers[check.key] !== undefined)
        this.#answers.set(`${gate!.side}/${check.asks}`, event.answers[check.key]!);
    for (const fact of facts)
      if (fact.kind === 'set') {
        this.last = fact;
        this.confirmed = false;
        this.quality = undefined;
      } else if (fact.kind === 'confirmed' && fact.of === this.last?.id) this.confirmed = true;
      else if (fact.kind === 'quality' && fact.of === this.last?.id) this.quality = fact.quality;
  }
}
