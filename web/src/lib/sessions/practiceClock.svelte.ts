import type { PracticeSegment } from './practice';
import type { Planned } from './tones';

/** What the clock has of the world around it. */
type Around = { now: () => number; lay: (tones: readonly Planned[]) => void };

/** A device that slept longer than this has not practised. */
const longestGap = 10_000;
/** Tones are laid so far ahead. */
const ahead = 180_000;
/** Back within so long of a segment's start is back to the one before. */
const justBegun = 2_000;

/** Runs a practice: no DOM and no timers, whoever owns it calls `tick`. */
export class PracticeClock {
  segments = $state.raw<readonly PracticeSegment[]>([]);
  /** Milliseconds that had passed when it was last started or stopped. */
  #before = $state(0);
  #since = $state<number>();
  #now = $state(0);
  #laidAt = 0;
  /** The device slept so many seconds, and the clock stood still meanwhile. */
  slept = $state<number>();

  constructor(private readonly around: Around) {
    this.#now = around.now();
  }

  /** @param elapsed Milliseconds that have passed, where one goes on after a reload. */
  set(segments: readonly PracticeSegment[], elapsed = 0): void {
    this.segments = segments;
    this.#since = undefined;
    this.#before = Math.min(elapsed, this.length);
    this.slept = undefined;
    this.#lay();
  }

  get length(): number {
    const last = this.segments.at(-1);
    return last ? (last.startSeconds + last.seconds) * 1000 : 0;
  }

  get running(): boolean {
    return this.#since !== undefined;
  }

  get elapsed(): number {
    const passed = this.#since === undefined ? 0 : Math.max(0, this.#now - this.#since);
    return Math.min(this.length, this.#before + passed);
  }

  get begun(): boolean {
    return this.elapsed > 0 || this.running;
  }

  get over(): boolean {
    return this.segments.length > 0 && this.elapsed >= this.length;
  }

  get index(): number {
    const at = this.elapsed / 1000;
    const found = this.segments.findIndex((s) => at < s.startSeconds + s.seconds);
    return found < 0 ? this.segments.length - 1 : found;
  }

  get segment(): PracticeSegment | undefined {
    return this.segments[this.index];
  }

  get next(): PracticeSegment | undefined {
    return this.segments.slice(this.index + 1).find((s) => s.phase === 'work');
  }

  get #within(): number {
    return this.segment ? this.elapsed / 1000 - this.segment.startSeconds : 0;
  }

  get secondsLeft(): number {
    return this.segment ? Math.max(0, Math.ceil(this.segment.seconds - this.#within)) : 0;
  }

  get effort(): number | undefined {
    return this.#bySecond(this.segment?.effort);
  }

  /** The breath that is under way. */
  get breath(): number | undefined {
    return this.#bySecond(this.segment?.breath);
  }

  tick(): void {
    const now = this.around.now();
    if (this.running && now - this.#now > longestGap) {
      this.slept = Math.round((now - this.#now) / 1000);
      this.#hold();
      this.#now = now;
      this.#lay();
      return;
    }
    this.#now = now;
    if (this.running && this.over) this.#hold();
    else if (this.running && this.elapsed - this.#laidAt > ahead / 3) this.#lay();
  }

  toggle(): void {
    if (!this.segments.length) return;
    this.#now = this.around.now();
    if (this.running) this.#hold();
    else {
      if (this.over) this.#before = 0;
      this.slept = undefined;
      this.#since = this.#now;
    }
    this.#lay();
  }

  forward(): void {
    const segment = this.segment;
    if (segment) this.#go((segment.startSeconds + segment.seconds) * 1000);
  }

  back(): void {
    const segment = this.segment;
    if (!segment) return;
    const toHere = this.over || this.#within * 1000 > justBegun;
    const to = toHere ? segment : (this.segments[this.index - 1] ?? segment);
    this.#go(to.startSeconds * 1000);
  }

  restart(): void {
    this.#hold();
    this.#before = 0;
    this.#lay();
  }

  #bySecond(list: readonly number[] | null | undefined): number | undefined {
    return list?.[Math.min(list.length - 1, Math.floor(this.#within))];
  }

  #hold(): void {
    this.#before = this.elapsed;
    this.#since = undefined;
  }

  #go(to: number): void {
    this.#now = this.around.now();
    const running = this.running;
    this.#before = Math.min(to, this.length);
    this.#since = running && this.#before < this.length ? this.#now : undefined;
    this.#lay();
  }

  /** A tone where each stretch begins, three before it ends, a soft one with each breath. */
  #lay(): void {
    const tones: Planned[] = [];
    const elapsed = (this.#laidAt = this.elapsed);
    const add = (atSeconds: number, moment: Planned['moment']) => {
      const inMs = atSeconds * 1000 - elapsed;
      if (inMs >= -50 && inMs <= ahead) tones.push({ inMs: Math.max(0, inMs), moment });
    };
    if (this.running) {
      for (const s of this.segments) {
        add(s.startSeconds, s.phase === 'work' ? 'work' : 'rest');
        s.breath?.forEach((breath, second) => {
          if (second > 0 && breath !== s.breath![second - 1]) add(s.startSeconds + second, 'tick');
        });
        if (!s.breath)
          for (const second of [3, 2, 1])
            if (s.seconds > second) add(s.startSeconds + s.seconds - second, 'tick');
      }
      add(this.length / 1000, 'end');
    }
    this.around.lay(tones);
  }
}
