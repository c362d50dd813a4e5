import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
import { draftKey } from '$lib/parts/draft.svelte';

export type Change = Schemas['EditChange'];

/** Changes that are not kept yet stay on this device: a reload loses none of them. */
const kept = (session: string) => draftKey('edit', session);

/**
 * A session under the coach's hand: the list of changes since it was stored. The server makes them, one after another, and says what the checker
 * finds; a change is undone by leaving it out.
 */
export class SessionEditor {
  changes = $state.raw<Change[]>([]);
  view = $state.raw<Schemas['EditView']>();
  /** What was refused last, and for which drill. */
  refusal = $state.raw<{ refusal: Refusal; change: Change | undefined }>();
  busy = $state(false);
  /** Changes from before a reload are in it again. */
  resumed = $state(false);
  #keepId = newId();
  #last: Promise<boolean> = Promise.resolve(true);

  constructor(
    readonly session: string,
    readonly version: string,
  ) {}

  async start(): Promise<void> {
    let stored = this.#stored();
    // What cannot be made on the session as it is now goes, the last change first; without the server nothing goes.
    while (!(await this.#try(stored, undefined)) && stored.length > 0 && this.refusal?.refusal.status === 422)
      stored = stored.slice(0, -1);
    this.resumed = this.changes.length > 0;
  }

  get refused(): Schemas['EditVerdict'][] {
    return this.view?.verdicts.filter((v) => v.refused) ?? [];
  }

  get bent(): Schemas['EditVerdict'][] {
    return this.view?.verdicts.filter((v) => !v.refused) ?? [];
  }

  change(change: Change): Promise<boolean> {
    return this.#next(() => this.#try([...this.changes, change], change));
  }

  undo(): Promise<boolean> {
    return this.#next(() => this.#try(this.changes.slice(0, -1), undefined));
  }

  /** All of them. */
  leave(): Promise<boolean> {
    return this.#next(() => this.#try([], undefined));
  }

  /** One after another: what is kept has in it what was typed a moment before. */
  #next(act: () => Promise<boolean>): Promise<boolean> {
    this.#last = this.#last.then(act);
    return this.#last;
  }

  options(instead: string | null): Promise<Schemas['DrillOption'][]> {
    return ask(
      api.POST('/api/v1/sessions/{sessionId}/edits/options', {
        params: { path: { sessionId: this.session } },
        body: { of: this.version, changes: this.changes, instead },
      }),
    );
  }

  keep(): Promise<boolean> {
    return this.#next(() => this.#keep());
  }

  async #keep(): Promise<boolean> {
    if (this.refused.length > 0 || this.refusal) return false;
    this.busy = true;
    try {
      await ask(
        api.POST('/api/v1/sessions/{sessionId}/edits', {
          params: { path: { sessionId: this.session } },
          body: { id: this.#keepId, of: this.version, changes: this.changes },
        }),
      );
      localStorage.removeItem(kept(this.session));
      return true;
    } catch (error) {
      this.refusal = { refusal: error as Refusal, change: undefined };
      return false;
    } finally {
      this.busy = false;
    }
  }

  async #try(changes: Change[], change: Change | undefined): Promise<boolean> {
    this.busy = true;
    const before = localStorage.getItem(kept(this.session));
    // Kept before it is answered: who leaves at once loses nothing.
    localStorage.setItem(kept(this.session), JSON.stringify({ of: this.version, changes }));
    try {
      this.view = await ask(
        api.POST('/api/v1/sessions/{sessionId}/edits/try', {
          params: { path: { sessionId: this.session } },
          body: { of: this.version, changes },
        }),
      );
      this.changes = changes;
      this.refusal = undefined;
      this.#keepId = newId();
      if (changes.length === 0) localStorage.removeItem(kept(this.session));
      return true;
    } catch (error) {
      if (before === null) localStorage.removeItem(kept(this.session));
      else localStorage.setItem(kept(this.session), before);
      this.refusal = { refusal: error as Refusal, change };
      return false;
    } finally {
      this.busy = false;
    }
  }

  #stored(): Change[] {
    try {
      const stored = JSON.parse(localStorage.getItem(kept(this.session)) ?? 'null') as {
        of: string;
        changes: Change[];
      } | null;
      // Made on an older version of it they are tried on this one: somebody else kept theirs first.
      return Array.isArray(stored?.changes) ? stored.changes : [];
    } catch {
      return [];
    }
  }
}
