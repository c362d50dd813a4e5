import { api, ask, newId, Refusal, type FieldProblem, type Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { iso } from '$lib/parts/instant';
import { parseNumber } from '$lib/students/body';
import {
  blankEntry,
  draftOf,
  captured,
  countOf,
  isWhole,
  merge,
  mostAttempts,
  mostTrials,
  readTrial,
  requestOf,
  type Entry,
  type Place,
} from './entry';
import { lookAt, type Live } from './look';

type Side = Schemas['Side'];

/** A sitting at the bench: what is captured is kept here and on the server until it is a reading. */
export class Bench {
  view = $state<Schemas['SittingView']>();
  index = $state(0);
  side = $state<Side>('left');
  warmth = $state<Schemas['Warmth']>('warm');
  level = $state<string | null>(null);
  entries = $state<Record<string, Entry>>({});
  live = $state<Record<string, Live>>({});
  problems = $state<Record<string, FieldProblem[]>>({});
  failed = $state<string>();
  saved = $state('');
  notice = $state('');
  busy = $state(false);
  /** A trial is taken at its decimal, without Enter. */
  quick = $state(localStorage.getItem('bench:quick') !== 'no');
  /** Both sides have what is asked: the next thing is to save. */
  complete = $state(0);

  #keeping: Record<string, Promise<void>> = {};
  #justTaken = '';

  constructor(
    readonly studentId: string,
    readonly sittingId: string,
  ) {
    const kept = localStorage.getItem(this.#key);
    if (kept) this.entries = JSON.parse(kept) as Record<string, Entry>;
  }

  get #key(): string {
    return `bench:${this.sittingId}`;
  }

  get #path() {
    return { studentId: this.studentId, sittingId: this.sittingId };
  }

  async load(): Promise<void> {
    try {
      const first = !this.view;
      this.view = await ask(
        api.GET('/api/v1/students/{studentId}/sittings/{sittingId}', { params: { path: this.#path } }),
      );
      for (const place of this.view.items.flatMap((i) => i.sides)) this.#resume(place);
      if (first) this.go(this.#nextOpen(0));
    } catch (error) {
      this.failed = error instanceof Refusal ? error.code : 'unexpected';
    }
  }

  /** What another device, or this one before, has captured. */
  #resume(place: Place): void {
    const mine = this.entries[place.slot];
    if (place.taken) delete this.entries[place.slot];
    else if (place.draft && mine && captured(mine))
      this.entries[place.slot] = merge(mine, place.draft.draft, place.draft.version);
    else if (place.draft)
      this.entries[place.slot] = {
        ...place.draft.draft,
        typed: mine?.typed ?? '',
        version: place.draft.version,
        began: [],
      };
  }

  get item(): Schemas['SittingPart'] {
    return this.view!.items[this.index]!;
  }

  get measure(): Schemas['Measure'] {
    return catalogue.measure(this.item.measure);
  }

  get standard(): string | null {
    return this.measure.standards.length ? this.view!.standard : null;
  }

  get mayBeCold(): boolean {
    return this.measure.kind === 'range';
  }

  /** The sides of the item at hand, at the level and warmth chosen. */
  get places(): Place[] {
    return this.item.sides.filter((s) => s.level === this.level && s.warmth === this.warmth);
  }

  place(side: Side | null): Place {
    return this.places.find((p) => p.side === side)!;
  }

  entry(place: Place): Entry {
    return this.entries[place.slot] ?? blankEntry('', this.measure.instruments[0]!);
  }

  /** Items of which every side is read. */
  isDone(item: Schemas['SittingPart']): boolean {
    return item.sides.every(({ side }) =>
      item.sides.some((s) => s.side === side && s.warmth === item.warmth && s.taken),
    );
  }

  isPending(item: Schemas['SittingPart']): boolean {
    return item.sides.some((s) => {
      const entry = this.entries[s.slot];
      return entry && (captured(entry) || entry.typed !== '');
    });
  }

  get readCount(): number {
    return this.view?.items.filter((i) => this.isDone(i)).length ?? 0;
  }

  change(place: Place, change: Partial<Entry>): void {
    const before = this.entry(place);
    this.entries[place.slot] = { ...before, ...change, id: before.id || newId() };
    this.#store();
    if (Object.keys(change).some((key) => key !== 'typed')) this.#keep(place.slot);
  }

  #store(): void {
    localStorage.setItem(this.#key, JSON.stringify(this.entries));
  }

  /** Sends the draft, one after another for each slot, so that another device can go on with it. */
  #keep(slot: string): void {
    this.#keeping[slot] = (this.#keeping[slot] ?? Promise.resolve()).then(() => this.#send(slot));
  }

  async #send(slot: string): Promise<void> {
    const entry = this.entries[slot];
    if (!entry) return;
    const { version, ...draft } = draftOf($state.snapshot(entry));
    try {
      const kept = await ask(
        api.PUT('/api/v1/students/{studentId}/sittings/{sittingId}/drafts/{slot}', {
          params: { path: { ...this.#path, slot } },
          body: { version, draft },
        }),
      );
      if (this.entries[slot]) this.entries[slot].version = kept.version;
      this.#store();
    } catch (error) {
      if (error instanceof Refusal && error.code === 'changedMeanwhile') {
        this.notice = 'Another device has gone on with this reading: what both took is shown.';
        await this.load();
        this.#lookAll();
      }
    }
  }

  /** What is typed, as it changes; a trial with its decimal is taken at once. */
  type(place: Place, typed: string): void {
    this.change(place, { typed });
    this.#justTaken = '';
    const entry = this.entry(place);
    if (
      this.quick &&
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
    const problem = this.#problemOf(value, entry);
    this.problems[place.slot] = problem ? [problem] : [];
    if (problem) return false;
    const began = timed ? iso(Date.now() - value! * 1000) : '';
    this.change(place, {
      trials: [...entry.trials, value!],
      began: [...(entry.began ?? []), began],
      typed: '',
    });
    this.#goOn(place);
    void this.look(place);
    return true;
  }

  #problemOf(value: number | null, entry: Entry): FieldProblem | undefined {
    if (value === null || Number.isNaN(value)) return { code: 'notANumber', field: 'trials' };
    if (entry.trials.length >= mostTrials) return { code: 'trialsCount', field: 'trials' };
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

  drop(place: Place): void {
    const { trials, began, hits, stacks, marks } = this.entry(place);
    this.change(place, {
      trials: trials.slice(0, -1),
      began: began?.slice(0, -1) ?? [],
      hits: hits.slice(0, -1),
      stacks: stacks.slice(0, -1),
      marks: marks.slice(0, -1),
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
      const live = await lookAt(this.studentId, this.view!, this.measure, place, this.#body(place));
      if (countOf(this.entry(place)) === countOf(entry)) this.live[place.slot] = live;
    } catch (error) {
      this.problems[place.slot] =
        error instanceof Refusal && error.problems.length
          ? error.problems
          : [{ code: error instanceof Refusal ? error.code : 'unreachable', field: 'trials' }];
    }
  }

  choose(side: Side): void {
    if (this.measure.perSide) this.side = side;
  }

  swapWarmth(): void {
    if (!this.mayBeCold) return;
    this.warmth = this.warmth === 'warm' ? 'cold' : 'warm';
    this.#lookAll();
  }

  chooseLevel(level: string): void {
    this.level = level;
    this.#lookAll();
  }

  go(index: number): void {
    this.index = Math.max(0, Math.min(this.view!.items.length - 1, index));
    this.side = 'left';
    this.warmth = this.item.warmth;
    this.level = this.item.level;
    this.#lookAll();
  }

  /** The next item that is not read yet, from here on and then from the start. */
  next(): void {
    this.go(this.#nextOpen(this.index + 1));
  }

  #nextOpen(from: number): number {
    const items = this.view!.items;
    const order = [...items.keys()].map((i) => (i + from) % items.length);
    return order.find((i) => !this.isDone(items[i]!)) ?? Math.min(from, items.length - 1);
  }

  #lookAll(): void {
    for (const place of this.places) void this.look(place);
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
    if (refused) return;
    const sides = places.map((p) => p.side).filter((s) => s != null);
    this.saved = `${this.measure.name} is saved${sides.length ? `, ${sides.join(' and ')}` : ''}.`;
    await this.load();
    if (this.isDone(this.item)) this.next();
  }

  async #take(place: Place, confirmed: boolean): Promise<boolean> {
    const { slot } = place;
    const entry = this.entry(place);
    const wrong = (['pain', 'sensation'] as const).filter((field) => Number.isNaN(parseNumber(entry[field])));
    if (wrong.length) {
      this.problems[slot] = wrong.map((field) => ({ code: 'notANumber', field }));
      return false;
    }
    try {
      await this.#keeping[slot];
      await ask(
        api.POST('/api/v1/students/{studentId}/readings', {
          params: { path: { studentId: this.studentId } },
          body: this.#body(place, confirmed),
        }),
      );
      delete this.entries[slot];
      delete this.live[slot];
      this.problems[slot] = [];
      this.#store();
      return true;
    } catch (error) {
      const refusal = error as Refusal;
      this.problems[slot] = refusal.problems.length
        ? refusal.problems
        : [{ code: refusal.code, field: 'trials' }];
      return false;
    }
  }

  /** Whether the server asks "yes, really" of a side at hand. */
  get unlikely(): boolean {
    return this.places.some((p) => this.problems[p.slot]?.some((problem) => problem.code === 'unlikely'));
  }

  async end(): Promise<void> {
    await ask(
      api.POST('/api/v1/students/{studentId}/sittings/{sittingId}/end', { params: { path: this.#path } }),
    );
    localStorage.removeItem(this.#key);
  }

  setQuick(quick: boolean): void {
    this.quick = quick;
    localStorage.setItem('bench:quick', quick ? 'yes' : 'no');
  }
}
