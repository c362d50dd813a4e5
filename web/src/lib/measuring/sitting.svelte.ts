import { api, ask, Refusal, type Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { Drafts } from './drafts.svelte';
import { countOf, type Entry, type Place } from './entry';

type Side = Schemas['Side'];
type Part = Schemas['SittingPart'];

/** A series stands in a sitting once. */
export const keyOf = (item: Part): string => `${item.measure}|${item.level ?? ''}|${item.warmth}`;

/** What is read in one go, and where in it one stands. */
export abstract class Sitting {
  view = $state<Schemas['SittingView']>();
  index = $state(0);
  side = $state<Side>('left');
  warmth = $state<Schemas['Warmth']>('warm');
  level = $state<string | null>(null);
  failed = $state<string>();
  notice = $state('');
  /** Both sides have what is asked: the next thing is to save. */
  complete = $state(0);
  /** A trial that is typed anew, by its side and place. */
  editing = $state<{ slot: string; index: number }>();
  readonly drafts: Drafts;

  constructor(
    readonly studentId: string,
    readonly sittingId: string,
  ) {
    this.drafts = new Drafts({ studentId, sittingId }, async () => {
      this.notice = 'Another device has gone on with this reading: what both took is shown.';
      await this.load();
      this.lookAll();
    });
  }

  get #path() {
    return { studentId: this.studentId, sittingId: this.sittingId };
  }

  /** @param side The side to begin with, where there is a choice. */
  async load(side?: Side): Promise<void> {
    try {
      const first = !this.view;
      this.view = await ask(
        api.GET('/api/v1/students/{studentId}/sittings/{sittingId}', { params: { path: this.#path } }),
      );
      for (const place of this.view.items.flatMap((i) => i.sides)) this.drafts.resume(place);
      if (!first || !this.view.items.length) return;
      this.go(this.nextOpen(0));
      if (side && !this.places.find((p) => p.side === side)?.taken) this.choose(side);
    } catch (error) {
      this.failed = error instanceof Refusal ? error.code : 'unexpected';
    }
  }

  /** Somebody else has saved something: what is read by now is shown, and what was captured here and came too late is named. */
  async refresh(): Promise<void> {
    try {
      const view = await ask(
        api.GET('/api/v1/students/{studentId}/sittings/{sittingId}', { params: { path: this.#path } }),
      );
      const late = view.items
        .flatMap((i) => i.sides)
        .filter((p) => p.taken && this.drafts.isPending(p.slot))
        .map(
          (p) =>
            `${catalogue.measure(p.taken!.measure).name}${p.side ? `, ${p.side}` : ''}: ${this.drafts.entries[p.slot]!.trials.join(', ')}`,
        );
      this.view = view;
      for (const place of view.items.flatMap((i) => i.sides)) if (place.taken) this.drafts.resume(place);
      if (late.length)
        this.notice = `Somebody else has saved this meanwhile. Not saved from here: ${late.join('; ')}.`;
      this.lookAll();
    } catch {
      // The next save says what is wrong.
    }
  }

  /** Asks the core about every side at hand. */
  abstract lookAll(): void;

  get item(): Schemas['SittingPart'] {
    return this.view!.items[this.index]!;
  }

  /** Nothing of it can be read any more: all is off limits by now, or changed. */
  get empty(): boolean {
    return this.view?.items.length === 0;
  }

  get finished(): boolean {
    return !!this.view?.items.length && this.readCount === this.view.items.length;
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
    return this.drafts.of(place, this.measure.instruments[0]!);
  }

  /** Items of which every side is read. */
  isDone(item: Part): boolean {
    return item.read === item.places;
  }

  isPending(item: Part): boolean {
    return item.sides.some((s) => this.drafts.isPending(s.slot));
  }

  /** Measures on which something was captured and not saved. */
  get pending(): Part[] {
    return this.view?.items.filter((i) => this.isPending(i)) ?? [];
  }

  get readCount(): number {
    return this.view?.items.filter((i) => this.isDone(i)).length ?? 0;
  }

  choose(side: Side): void {
    if (this.measure.perSide) this.side = side;
    this.complete = 0;
  }

  swapWarmth(): void {
    if (!this.mayBeCold) return;
    this.warmth = this.warmth === 'warm' ? 'cold' : 'warm';
    this.lookAll();
  }

  chooseLevel(level: string): void {
    this.level = level;
    this.lookAll();
  }

  go(index: number): void {
    this.index = Math.max(0, Math.min(this.view!.items.length - 1, index));
    this.editing = undefined;
    this.warmth = this.item.warmth;
    this.level = this.item.level;
    // Where something is still to be taken; where nothing is, saving is next.
    const full = (p: Place) => countOf(this.entry(p)) >= this.item.asks;
    const open = this.places.find((p) => !p.taken && !full(p));
    this.side = open?.side ?? 'left';
    this.complete = !open && this.places.some((p) => !p.taken) ? 1 : 0;
    this.lookAll();
  }

  /** The next item that is not read yet, from here on and then from the start. */
  next(): void {
    this.go(this.nextOpen(this.index + 1));
  }

  nextOpen(from: number): number {
    const items = this.view!.items;
    const order = [...items.keys()].map((i) => (i + from) % items.length);
    return order.find((i) => !this.isDone(items[i]!)) ?? Math.min(from, items.length - 1);
  }

  async end(): Promise<void> {
    await ask(
      api.POST('/api/v1/students/{studentId}/sittings/{sittingId}/end', { params: { path: this.#path } }),
    );
    this.drafts.clear();
  }
}
