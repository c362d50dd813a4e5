import { api, ask, Refusal, type Schemas } from '$lib/api/client';
import { iso } from '$lib/parts/instant';

type SetFact = Schemas['SetFact'];
type SignalFact = Schemas['SignalFact'];
type Kept = { sets: SetFact[]; signals: SignalFact[]; finishedAt: string | null };

/** What was done and has not reached the server yet: kept on this device, sent again until it has, under ids that cannot double. */
export class Outbox {
  waiting = $state(0);
  lost = $state<string>();
  nowBarred = $state<string[]>([]);
  #kept: Kept;
  #sending: Promise<void> | undefined;

  constructor(readonly sessionId: string) {
    const kept = localStorage.getItem(this.#key);
    this.#kept = kept ? (JSON.parse(kept) as Kept) : { sets: [], signals: [], finishedAt: null };
    this.#count();
  }

  get #key(): string {
    return `outbox:${this.sessionId}`;
  }

  add(facts: Partial<Kept>): void {
    this.#kept.sets.push(...(facts.sets ?? []));
    this.#kept.signals.push(...(facts.signals ?? []));
    this.#kept.finishedAt ??= facts.finishedAt ?? null;
    this.#store();
    void this.send();
  }

  /** Sends what waits; whoever calls twice waits for the same sending. */
  send(): Promise<void> {
    this.#sending ??= this.#send().finally(() => {
      this.#sending = undefined;
    });
    return this.#sending;
  }

  async #send(): Promise<void> {
    while (this.waiting > 0) {
      const sending = { ...this.#kept, sets: [...this.#kept.sets], signals: [...this.#kept.signals] };
      try {
        const answer = await ask(
          api.POST('/api/v1/sessions/{sessionId}/facts', {
            params: { path: { sessionId: this.sessionId } },
            body: { sentAt: iso(Date.now()), ...sending },
          }),
        );
        this.nowBarred = answer.nowBarred;
      } catch (error) {
        const refusal = error as Refusal;
        if (refusal.status !== 409) {
          this.lost = refusal.code;
          return;
        }
      }
      this.lost = undefined;
      this.#kept.sets = this.#kept.sets.filter((s) => !sending.sets.some((sent) => sent.id === s.id));
      this.#kept.signals = this.#kept.signals.filter(
        (s) => !sending.signals.some((sent) => sent.id === s.id),
      );
      if (sending.finishedAt) this.#kept.finishedAt = null;
      this.#store();
    }
  }

  #store(): void {
    this.#count();
    if (this.waiting > 0) localStorage.setItem(this.#key, JSON.stringify(this.#kept));
    else localStorage.removeItem(this.#key);
  }

  #count(): void {
    this.waiting = this.#kept.sets.length + this.#kept.signals.length + (this.#kept.finishedAt ? 1 : 0);
  }
}
