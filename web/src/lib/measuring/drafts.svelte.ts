import { draftKey } from '$lib/parts/draft.svelte';
import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
import { blankEntry, captured, draftOf, merge, type Entry, type Place } from './entry';

/** What has been captured in a sitting and is not a reading yet: kept here, and on the server so that another device can go on with it. */
export class Drafts {
  entries = $state<Record<string, Entry>>({});
  #keeping: Record<string, Promise<void>> = {};

  constructor(
    private readonly path: { studentId: string; sittingId: string },
    /** Another device has gone on with one of them. */
    private readonly onclash: () => Promise<void>,
  ) {
    const kept = localStorage.getItem(this.#key);
    if (kept) this.entries = JSON.parse(kept) as Record<string, Entry>;
  }

  get #key(): string {
    return draftKey('sitting', this.path.sittingId);
  }

  /** What another device, or this one before, has captured. */
  resume(place: Place): void {
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

  of(place: Place, instrument: Schemas['Instrument']): Entry {
    return this.entries[place.slot] ?? blankEntry('', instrument);
  }

  /** Something stands here that is no reading yet. */
  isPending(slot: string): boolean {
    const entry = this.entries[slot];
    return entry !== undefined && (captured(entry) || entry.typed.trim() !== '');
  }

  change(place: Place, before: Entry, change: Partial<Entry>): void {
    this.entries[place.slot] = { ...before, ...change, id: before.id || newId() };
    this.#store();
    if (Object.keys(change).some((key) => key !== 'typed')) this.#keep(place.slot);
  }

  /** The reading that it became was voided: the next one is another. */
  renew(slot: string): void {
    const entry = this.entries[slot];
    if (entry) this.entries[slot] = { ...entry, id: newId() };
  }

  forget(slot: string): void {
    delete this.entries[slot];
    this.#store();
  }

  clear(): void {
    localStorage.removeItem(this.#key);
  }

  kept(slot: string): Promise<void> | undefined {
    return this.#keeping[slot];
  }

  #store(): void {
    localStorage.setItem(this.#key, JSON.stringify(this.entries));
  }

  /** Sends the draft, one after another for each slot. */
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
          params: { path: { ...this.path, slot } },
          body: { version, draft },
        }),
      );
      if (this.entries[slot]) this.entries[slot].version = kept.version;
      this.#store();
    } catch (error) {
      if (error instanceof Refusal && error.code === 'changedMeanwhile') await this.onclash();
    }
  }
}
