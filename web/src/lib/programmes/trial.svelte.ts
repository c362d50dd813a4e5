import { api, ask, newId, type Refusal, type Schemas } from '$lib/api/client';

/** A plan that is worked out while its programme is typed, and not kept. */
export class Trial {
  plan = $state.raw<Schemas['PlanView']>();
  refusal = $state.raw<Refusal>();
  working = $state(false);
  /** Under which it is kept: the same for the same plan, however often that is sent. */
  id = newId();

  #timer: ReturnType<typeof setTimeout> | undefined;
  #calling: AbortController | undefined;
  readonly #soon = 700;
  /** Where too many plans wait: so long until it is asked for again, and so often. */
  readonly #busy = { wait: 2_000, times: 5 };

  constructor(
    readonly student: () => string,
    readonly sketch: () => Schemas['ProgrammeSketch'] | undefined,
  ) {}

  /** When nothing more is typed for a moment. */
  later() {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.now(), this.#soon);
  }

  now() {
    return this.#try(0);
  }

  async #try(before: number) {
    this.stop();
    const sketch = this.sketch();
    if (!sketch) {
      this.plan = undefined;
      return;
    }
    const call = (this.#calling = new AbortController());
    this.working = true;
    this.refusal = undefined;
    let again = false;
    try {
      this.plan = await ask(
        api.POST('/api/v1/students/{studentId}/programme/try', {
          params: { path: { studentId: this.student() } },
          body: sketch,
          signal: call.signal,
        }),
      );
      this.id = newId();
    } catch (error) {
      if (call.signal.aborted) return;
      const refusal = error as Refusal;
      if (refusal.status === 429 && before < this.#busy.times) {
        this.#timer = setTimeout(() => void this.#try(before + 1), this.#busy.wait);
        again = true;
        return;
      }
      this.refusal = refusal;
      this.plan = undefined;
    } finally {
      if (this.#calling === call) this.working = again;
    }
  }

  /** What is on its way is not waited for. */
  stop() {
    clearTimeout(this.#timer);
    this.#calling?.abort();
    this.working = false;
  }

  /** It is kept, or left: another one has an id of its own. */
  forget() {
    this.stop();
    this.plan = undefined;
    this.refusal = undefined;
    this.id = newId();
  }
}
