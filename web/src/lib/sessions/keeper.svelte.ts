import { log } from './log';
import { outbox } from './outbox.svelte';
import type { Entry } from './say';

/** Not kept for so long: the badge says so in red. */
const patience = 1000;
const again = 2000;

/** Keeps what is said on this device, in its order; what could not be kept is tried again, and stops nothing on the screen. */
export class Keeper {
  /** Entries that were said and not yet tried to be sent: until then nobody is told that all is logged. */
  pending = $state(0);
  /** Entries that this device could not keep. */
  unsaved = $state(0);
  /** When a page that ran this session was last alive. */
  readonly seen: number;
  #waiting: Entry[] = [];
  #busy = false;
  #lastSeen = 0;

  constructor(
    readonly author: string,
    readonly session: string,
    readonly plan?: number,
  ) {
    this.seen = Number(localStorage.getItem(this.#key)) || 0;
  }

  get #key(): string {
    return `seen:${this.session}`;
  }

  keep(entry: Entry): void {
    this.#waiting.push(entry);
    this.pending++;
    if (!this.#busy) void this.#work();
  }

  /** The page is alive. */
  see(): void {
    const now = Date.now();
    if (now - this.#lastSeen < 1000) return;
    this.#lastSeen = now;
    try {
      localStorage.setItem(this.#key, String(now));
    } catch {
      // Without room the clock goes back to the last event after a reload, and nothing else is lost.
    }
  }

  async #work(): Promise<void> {
    this.#busy = true;
    const late = setTimeout(() => (this.unsaved = this.#waiting.length), patience);
    while (this.#waiting.length > 0)
      try {
        await log.add(this.author, this.session, this.#waiting[0]!, this.plan);
        this.#waiting.shift();
        this.unsaved = this.unsaved === 0 ? 0 : this.#waiting.length;
        void outbox.send().finally(() => this.pending--);
      } catch {
        this.unsaved = this.#waiting.length;
        await new Promise((done) => setTimeout(done, again));
      }
    clearTimeout(late);
    this.unsaved = 0;
    this.#busy = false;
  }
}
