import { draftKey } from '$lib/parts/draft.svelte';
import { api, ask, newId, Refusal, type FieldProblem, type Schemas } from '$lib/api/client';

type Ladder = Schemas['Ladder'];
type Test = Schemas['ReadinessTest'];

const store = (key: string) => draftKey('ladder', key);

/** Drafts of ladders, kept on this device until they are stored as a version. */
export const ladderDraft = {
  /** A new ladder of one's own, from another. */
  copy(from: Ladder, name = `${from.name}, our own`): Ladder {
    const copied: Ladder = {
      ...structuredClone(from),
      key: `own-${newId().slice(-12)}`,
      version: 1,
      name: name.slice(0, 60),
      stages: from.stages.map((s) => ({ ...structuredClone(s), trainsAs: s.trainsAs ?? s.number })),
    };
    this.keep(copied);
    return copied;
  },

  keep(ladder: Ladder): void {
    localStorage.setItem(store(ladder.key), JSON.stringify(ladder));
  },

  read(key: string): Ladder | undefined {
    const kept = localStorage.getItem(store(key));
    return kept ? (JSON.parse(kept) as Ladder) : undefined;
  },

  forget(key: string): void {
    localStorage.removeItem(store(key));
  },
};

/** A ladder that is being changed: its draft, what is wrong with it, and what it would do to the students. */
export class LadderEditor {
  ladder = $state() as Ladder;
  trial = $state<Schemas['LadderTrial']>();
  refusal = $state<Refusal>();
  busy = $state(false);
  #id = newId();
  #asked = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(ladder: Ladder) {
    this.ladder = ladder;
    void this.try();
  }

  /** What the core says of the draft, and what was refused when it was to be stored. */
  get #problems(): FieldProblem[] {
    const refused = this.refusal?.problems.map((p) => ({ ...p, field: p.field.replace(/^ladder\./, '') }));
    return [...(this.trial?.problems ?? []), ...(refused ?? [])];
  }

  problem(path: string): FieldProblem | undefined {
    return this.#problems.find((p) => p.field === path);
  }

  /** Every problem of a test, wherever in it. */
  problemsOf(path: string): FieldProblem[] {
    return this.#problems.filter((p) => p.field === path || p.field.startsWith(`${path}.`));
  }

  /** Keeps what was typed, and asks the core about it a moment later. */
  changed(): void {
    ladderDraft.keep(this.ladder);
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.try(), 400);
  }

  async try(): Promise<void> {
    const turn = ++this.#asked;
    try {
      const trial = await ask(api.POST('/api/v1/ladders/try', { body: $state.snapshot(this.ladder) }));
      if (turn === this.#asked) [this.trial, this.refusal] = [trial, undefined];
    } catch (error) {
      if (turn !== this.#asked) return;
      const refused = error as Refusal;
      // What the door refuses is a thing to mend like any other.
      if (refused.problems.length) this.trial = { problems: refused.problems, tried: 0, changes: [] };
      else this.refusal = refused;
    }
  }

  addStage(after: number): void {
    const { stages } = this.ladder;
    const model = stages[after - 1]!;
    stages.splice(after, 0, {
      number: after + 1,
      name: `${model.name}, again`,
      work: model.work,
      tests: structuredClone($state.snapshot(model.tests)),
      trainsAs: model.trainsAs ?? model.number,
    });
    this.#renumber();
  }

  removeStage(number: number): void {
    this.ladder.stages.splice(number - 1, 1);
    this.#renumber();
  }

  #renumber(): void {
    this.ladder.stages.forEach((s, i) => (s.number = i + 1));
    this.changed();
  }

  addTest(stage: number, test: Test): void {
    this.ladder.stages[stage - 1]!.tests.push(test);
    this.changed();
  }

  removeTest(stage: number, index: number): void {
    this.ladder.stages[stage - 1]!.tests.splice(index, 1);
    this.changed();
  }

  /** Stores the draft as a version of its own. */
  async store(): Promise<Schemas['LadderLine'] | undefined> {
    this.busy = true;
    this.refusal = undefined;
    try {
      const stored = await ask(
        api.POST('/api/v1/ladders', { body: { id: this.#id, ladder: $state.snapshot(this.ladder) } }),
      );
      ladderDraft.forget(this.ladder.key);
      this.#id = newId();
      return stored;
    } catch (error) {
      this.refusal = error as Refusal;
      return undefined;
    } finally {
      this.busy = false;
    }
  }
}
