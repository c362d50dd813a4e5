import { api, ask, Refusal, type FieldProblem, type Schemas } from '$lib/api/client';
import { iso } from '$lib/parts/instant';
import { parseNumber } from '$lib/students/body';
import {
  captured,
  countOf,
  isWhole,
  mostAttempts,
  mostTrials,
  readTrial,
  requestOf,
  type Entry,
  type Place,
} from './entry';
import { lookAt, type Live } from './look';
import { Sitting } from './sitting.svelte';

/** A sitting at the bench: what is captured is kept here and on the server until it is a reading. */
export class Bench extends Sitting {
  live = $state<Record<string, Live>>({});
  problems = $state<Record<string, FieldProblem[]>>({});
  saved = $state('');
  busy = $state(false);
  /** A trial is taken at its decimal, without Enter. */
  quick = $state(localStorage.getItem('bench:quick') !== 'no');
  #justTaken = '';

  override lookAll(): void {
    for (const place of this.places) void this.look(place);
  }

  change(place: Place, change: Partial<Entry>): void {
    this.drafts.change(place, this.entry(place), change);
  }

  /** What is typed, as it changes; a trial with its decimal is taken at once. */
  type(place: Place, typed: string): void {
    this.change(place, { typed });
    this.#justTaken = '';
    const entry = this.entry(place);
    if (
      this.quick &&
      this.editing?.slot !== place.slot &&
      this.measure.kind === 'range' &&
      this.measure.resolution < 1 &&
      isWhole(typed, entry.trials.at(-1))
    ) {
      if (this.#takeTyped(place)) this.#justTaken = place.slot;
    }
  }

  /** Enter: takes what stands in the field; an empty field goes on to the other side, then saves. */
  async enter(place: Place): Promise<void> {
    const entry = this.entry(place);
    if (entry.typed.trim() !== '') {
      this.#takeTyped(place);
      return;
    }
    if (this.#justTaken === place.slot) {
      this.#justTaken = '';
      return;
    }
    if (!captured(entry)) return;
    if (place.side === 'left') this.choose('right');
    else await this.save();
  }

  #takeTyped(place: Place): boolean {
    const entry = this.entry(place);
    return this.capture(place, readTrial(entry.typed, entry.trials.at(-1)));
  }

  /** Takes a trial; says what is wrong with it at the field, and keeps what was typed. */
  capture(place: Place, value: number | null, timed = false): boolean {
    const entry = this.entry(place);
    const edited = this.editing?.slot === place.slot ? this.editing.index : undefined;
    const problem = this.#problemOf(value, edited === undefined ? entry.trials.length : 0);
    this.problems[place.slot] = problem ? [problem] : [];
    if (problem) return false;
    const began = timed ? iso(Date.now() - value! * 1000) : '';
    const put = <T>(all: readonly T[], one: T) =>
      edited === undefined ? [...all, one] : all.map((old, i) => (i === edited ? one : old));
    this.editing = undefined;
    this.change(place, {
      trials: put(entry.trials, value!),
      began: put(entry.began ?? [], began),
      typed: '',
    });
    this.#goOn(place);
    void this.look(place);
    return true;
  }

  #problemOf(value: number | null, taken: number): FieldProblem | undefined {
    if (value === null || Number.isNaN(value)) return { code: 'notANumber', field: 'trials' };
    if (taken >= mostTrials) return { code: 'trialsCount', field: 'trials' };
    if (value < this.measure.min || value > this.measure.max)
      return {
        code: 'outOfRange',
        field: 'trials',
        numbers: { min: this.measure.min, max: this.measure.max },
      };
    return undefined;
  }

  /** With as many trials as are asked, the other side is next; with both, saving. */
  #goOn(place: Place): void {
    const full = (p: Place) => countOf(this.entry(p)) >= this.item.asks;
    if (!full(place)) return;
    const other = this.places.find((p) => p !== place);
    if (other && !full(other) && !other.taken) this.choose(other.side!);
    else this.complete++;
  }

  addStack(place: Place, stack: Schemas['StackedBlock'][]): void {
    const entry = this.entry(place);
    if (entry.stacks.length >= mostTrials) {
      this.problems[place.slot] = [{ code: 'trialsCount', field: 'trials' }];
      return;
    }
    this.change(place, { stacks: [...entry.stacks, stack] });
    void this.look(place);
  }

  addHit(place: Place, held: boolean): void {
    const entry = this.entry(place);
    if (entry.hits.length >= mostAttempts) return;
    this.change(place, { hits: [...entry.hits, held] });
    void this.look(place);
  }

  addMark(place: Place, id: string): void {
    const entry = this.entry(place);
    this.change(place, { marks: [...entry.marks, id].slice(-mostTrials) });
    void this.look(place);
  }

  /** A trial is typed anew: what stands there until then stays. */
  edit(place: Place, index: number): void {
    if (place.side) this.choose(place.side);
    this.complete = 0;
    this.editing = { slot: place.slot, index };
    this.drafts.change(place, this.entry(place), { typed: String(this.entry(place).trials[index]) });
  }

  leaveEdit(place: Place): void {
    this.editing = undefined;
    this.drafts.change(place, this.entry(place), { typed: '' });
  }

  drop(place: Place): void {
    this.remove(place, countOf(this.entry(place)) - 1);
  }

  /** One trial, stack, attempt or placement is taken out. */
  remove(place: Place, index: number): void {
    const without = <T>(all: readonly T[] | undefined): T[] => (all ?? []).filter((_, i) => i !== index);
    const { trials, began, hits, stacks, marks } = this.entry(place);
    this.complete = 0;
    this.editing = undefined;
    this.change(place, {
      trials: without(trials),
      began: without(began),
      hits: without(hits),
      stacks: without(stacks),
      marks: without(marks),
    });
    this.problems[place.slot] = [];
    void this.look(place);
  }

  /** Takes another instrument, for the other side too when nothing is captured there. */
  use(place: Place, instrument: Schemas['Instrument']): void {
    for (const p of this.places)
      if (p === place || !captured(this.entry(p))) {
        this.change(p, { instrument, trials: [], began: [], stacks: [], marks: [] });
        void this.look(p);
      }
  }

  tick(place: Place, key: string): void {
    const seen = this.entry(place).compensations;
    this.change(place, {
      compensations: seen.includes(key) ? seen.filter((c) => c !== key) : [...seen, key],
    });
    void this.look(place);
  }

  rate(place: Place, quality: number): void {
    this.change(place, { quality: String(quality) });
  }

  #body(place: Place, confirmed = false): Schemas['ReadingRequest'] {
    const entry = $state.snapshot(this.entry(place)) as Entry;
    return {
      ...requestOf(entry, this.measure, place),
      standard: this.standard,
      sittingId: this.sittingId,
      confirmed,
    };
  }

  /** Asks the core what the captured trials say. */
  async look(place: Place): Promise<void> {
    const entry = this.entry(place);
    if (!captured(entry)) {
      delete this.live[place.slot];
      return;
    }
    try {
      const across = this.places.find((p) => p !== place);
      const live = await lookAt(this.studentId, this.view!, this.measure, place, this.#body(place), () =>
        across && captured(this.entry(across)) ? this.live[across.slot]?.preview : undefined,
      );
      if (countOf(this.entry(place)) !== countOf(entry)) return;
      const changed = live.preview?.value !== this.live[place.slot]?.preview?.value;
      this.live[place.slot] = live;
      // The other side is compared with what stands here now.
      if (changed && across && captured(this.entry(across))) void this.look(across);
    } catch (error) {
      this.problems[place.slot] =
        error instanceof Refusal && error.problems.length
          ? error.problems
          : [{ code: error instanceof Refusal ? error.code : 'unreachable', field: 'trials' }];
    }
  }

  /** Sends the sides that have something; what the server refuses stays on the screen. */
  async save(confirmed = false): Promise<void> {
    const places = this.places.filter((p) => captured(this.entry(p)));
    if (!places.length || this.busy) return;
    const left = this.places.filter((p) => this.entry(p).typed.trim() !== '');
    for (const place of left) this.problems[place.slot] = [{ code: 'notCaptured', field: 'trials' }];
    if (left.length) return;
    this.busy = true;
    let refused = false;
    for (const place of places) refused = !(await this.#take(place, confirmed)) || refused;
    this.busy = false;
    this.complete = 0;
    if (refused) {
      this.saved = 'Not saved: see what is marked above.';
      return;
    }
    const sides = places.map((p) => p.side).filter((s) => s != null);
    this.saved = `${this.measure.name} is saved${sides.length ? `, ${sides.join(' and ')}` : ''}.`;
    await this.load();
    if (this.isDone(this.item)) this.next();
  }

  async #take(place: Place, confirmed: boolean, again = false): Promise<boolean> {
    const { slot } = place;
    const entry = this.entry(place);
    const wrong = (['pain', 'sensation'] as const).filter((field) => Number.isNaN(parseNumber(entry[field])));
    if (wrong.length) {
      this.problems[slot] = wrong.map((field) => ({ code: 'notANumber', field }));
      return false;
    }
    try {
      await this.drafts.kept(slot);
      await ask(
        api.POST('/api/v1/students/{studentId}/readings', {
          params: { path: { studentId: this.studentId } },
          body: this.#body(place, confirmed),
        }),
      );
      this.drafts.forget(slot);
      delete this.live[slot];
      this.problems[slot] = [];
      return true;
    } catch (error) {
      const refusal = error as Refusal;
      // Its id is that of a reading which was voided meanwhile: it is another reading.
      if (refusal.code === 'idTaken' && !again) {
        this.drafts.renew(slot);
        return this.#take(place, confirmed, true);
      }
      this.problems[slot] = refusal.problems.length
        ? refusal.problems
        : [{ code: refusal.code, field: 'trials' }];
      return false;
    }
  }

  /** Whether the server asks "yes, really" of a side at hand. */
  get unlikely(): boolean {
    return this.places.some((p) =>
      this.problems[p.slot]?.some((problem) => ['unlikely', 'oddTrial'].includes(problem.code)),
    );
  }

  setQuick(quick: boolean): void {
    this.quick = quick;
    localStorage.setItem('bench:quick', quick ? 'yes' : 'no');
  }
}
