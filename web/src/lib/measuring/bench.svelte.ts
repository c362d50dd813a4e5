import { api, ask, newId, Refusal, type FieldProblem, type Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { iso } from '$lib/parts/instant';
import { parseNumber } from '$lib/students/body';

type Side = Schemas['Side'];

export const mostTrials = 5;

/** What is being read on one side of one measure. */
export type Entry = {
  id: string;
  /** What stands in the trial field: kept as typed. */
  typed: string;
  trials: number[];
  compensations: string[];
  pain: string;
  note: string;
};

export type Live = {
  preview?: Schemas['PreviewResponse'];
  verdicts?: { need: Schemas['BenchNeed']; answer: Schemas['RomTestResponse'] }[];
  splitAngleDeg?: number;
};

/** A sitting at the bench: both sides of each measure, kept on this device until it is saved. */
export class Bench {
  data = $state<Schemas['BenchResponse']>();
  index = $state(0);
  side = $state<Side>('left');
  warmth = $state<Schemas['Warmth']>('warm');
  entries = $state<Record<string, Entry>>({});
  live = $state<Record<string, Live>>({});
  problems = $state<Record<string, FieldProblem[]>>({});
  failed = $state<string>();
  saved = $state('');
  busy = $state(false);

  constructor(readonly studentId: string) {
    const kept = localStorage.getItem(this.#key);
    if (kept) this.entries = JSON.parse(kept) as Record<string, Entry>;
  }

  get #key(): string {
    return `bench:${this.studentId}`;
  }

  async load(): Promise<void> {
    try {
      this.data = await ask(
        api.GET('/api/v1/students/{studentId}/bench', { params: { path: { studentId: this.studentId } } }),
      );
      for (const side of ['left', 'right'] as const) if (this.entry(side).trials.length) void this.look(side);
    } catch (error) {
      this.failed = error instanceof Refusal ? error.code : 'unexpected';
    }
  }

  get current(): Schemas['BenchMeasure'] {
    return this.data!.measures[this.index]!;
  }

  get measure(): Schemas['Measure'] {
    return catalogue.measure(this.current.measure);
  }

  get standard(): string | null {
    return this.measure.standards.length ? this.data!.standard : null;
  }

  of(side: Side): Schemas['BenchSide'] {
    return this.current.sides.find((s) => s.side === side)!;
  }

  slot(side: Side): string {
    return `${this.current.measure}|${side}|${this.warmth}`;
  }

  entry(side: Side): Entry {
    return (
      this.entries[this.slot(side)] ?? {
        id: '',
        typed: '',
        trials: [],
        compensations: [],
        pain: '',
        note: '',
      }
    );
  }

  change(side: Side, change: Partial<Entry>): void {
    const slot = this.slot(side);
    this.entries[slot] = { ...this.entry(side), ...change, id: this.entry(side).id || newId() };
    localStorage.setItem(this.#key, JSON.stringify(this.entries));
  }

  /** Takes what stands in the field as the next trial; an empty field goes on to the other side, then saves. */
  async enter(side: Side): Promise<void> {
    const entry = this.entry(side);
    if (entry.typed.trim() === '') {
      if (!entry.trials.length) return;
      if (side === 'left') this.choose('right');
      else await this.save();
      return;
    }
    const value = parseNumber(entry.typed);
    const problem = this.#problemOf(value, entry);
    this.problems[this.slot(side)] = problem ? [problem] : [];
    if (problem) return;
    this.change(side, { trials: [...entry.trials, value!], typed: '' });
    await this.look(side);
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

  dropTrial(side: Side): void {
    this.change(side, { trials: this.entry(side).trials.slice(0, -1) });
    this.problems[this.slot(side)] = [];
    void this.look(side);
  }

  tick(side: Side, key: string): void {
    const seen = this.entry(side).compensations;
    this.change(side, { compensations: seen.includes(key) ? seen.filter((c) => c !== key) : [...seen, key] });
    void this.look(side);
  }

  /** Asks the core what the typed trials say. */
  async look(side: Side): Promise<void> {
    const slot = this.slot(side);
    const entry = this.entry(side);
    if (!entry.trials.length) {
      delete this.live[slot];
      return;
    }
    try {
      const [preview, verdicts, splitAngleDeg] = await Promise.all([
        ask(
          api.POST('/api/v1/students/{studentId}/readings/preview', {
            params: { path: { studentId: this.studentId } },
            body: {
              measure: this.measure.key,
              side,
              warmth: this.warmth,
              standard: this.standard,
              trials: entry.trials,
              compensations: entry.compensations,
            },
          }),
        ),
        this.#verdicts(side, entry),
        this.#splitAngle(side, entry),
      ]);
      this.live[slot] = { preview, verdicts, splitAngleDeg };
    } catch (error) {
      this.problems[slot] =
        error instanceof Refusal && error.problems.length
          ? error.problems
          : [{ code: 'unreachable', field: 'trials' }];
    }
  }

  async #verdicts(side: Side, entry: Entry): Promise<Live['verdicts']> {
    if (this.warmth !== 'warm') return [];
    const now = iso(Date.now());
    return Promise.all(
      this.of(side).needs.map(async (need) => ({
        need,
        answer: await ask(
          api.POST('/api/v1/compute/rom-test', {
            body: {
              comparison: need.comparison,
              threshold: need.threshold,
              sem: this.measure.sem,
              betweenDays: this.measure.tau,
              shelfDays: this.measure.shelfDays,
              minTrials: need.minTrials,
              now,
              readings: [
                ...this.of(side).recent.filter((r) => r.at <= now),
                { at: now, trials: entry.trials },
              ],
            },
          }),
        ),
      })),
    );
  }

  async #splitAngle(side: Side, entry: Entry): Promise<number | undefined> {
    const { leftLegCm, rightLegCm } = this.data!;
    if (this.measure.key !== 'front-split-gap' || leftLegCm == null || rightLegCm == null) return undefined;
    const [frontLegCm, backLegCm] = side === 'left' ? [leftLegCm, rightLegCm] : [rightLegCm, leftLegCm];
    const answer = await ask(
      api.POST('/api/v1/compute/split-angle', {
        body: { gapCm: entry.trials.at(-1)!, frontLegCm, backLegCm },
      }),
    );
    return answer.angleDeg;
  }

  choose(side: Side): void {
    this.side = side;
  }

  swapWarmth(): void {
    this.warmth = this.warmth === 'warm' ? 'cold' : 'warm';
    this.#lookBoth();
  }

  go(index: number): void {
    this.index = Math.max(0, Math.min(this.data!.measures.length - 1, index));
    this.side = 'left';
    this.#lookBoth();
  }

  #lookBoth(): void {
    for (const side of ['left', 'right'] as const) void this.look(side);
  }

  /** Whether a slot of a measure holds trials that are not saved. */
  pending(measure: string): boolean {
    return Object.entries(this.entries).some(
      ([slot, e]) => slot.startsWith(`${measure}|`) && (e.trials.length > 0 || e.typed !== ''),
    );
  }

  /** Sends the sides that have trials; what the server refuses stays on the screen. */
  async save(): Promise<void> {
    const sides = (['left', 'right'] as const).filter((side) => this.entry(side).trials.length);
    if (!sides.length || this.busy) return;
    const left = sides.filter((side) => this.entry(side).typed.trim() !== '');
    for (const side of left) this.problems[this.slot(side)] = [{ code: 'notCaptured', field: 'trials' }];
    if (left.length) return;
    this.busy = true;
    let refused = false;
    for (const side of sides) refused = !(await this.#send(side)) || refused;
    this.busy = false;
    if (refused) return;
    this.saved = `${this.measure.name} is saved, ${sides.join(' and ')}.`;
    await this.load();
    if (this.index < this.data!.measures.length - 1) this.go(this.index + 1);
  }

  async #send(side: Side): Promise<boolean> {
    const slot = this.slot(side);
    const entry = this.entry(side);
    const pain = parseNumber(entry.pain);
    if (Number.isNaN(pain)) {
      this.problems[slot] = [{ code: 'notANumber', field: 'pain' }];
      return false;
    }
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/readings', {
          params: { path: { studentId: this.studentId } },
          body: {
            id: entry.id,
            measure: this.measure.key,
            side,
            warmth: this.warmth,
            standard: this.standard,
            instrument: this.measure.unit === 'cm' ? 'tape' : 'inclinometer',
            trials: entry.trials,
            compensations: entry.compensations,
            quality: null,
            sensation: null,
            pain,
            note: entry.note || null,
            takenAt: null,
          },
        }),
      );
      delete this.entries[slot];
      delete this.live[slot];
      this.problems[slot] = [];
      localStorage.setItem(this.#key, JSON.stringify(this.entries));
      return true;
    } catch (error) {
      const refusal = error as Refusal;
      this.problems[slot] = refusal.problems.length
        ? refusal.problems
        : [{ code: refusal.code, field: 'trials' }];
      return false;
    }
  }
}
