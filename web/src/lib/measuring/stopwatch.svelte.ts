/** A stopwatch for holds: one key starts it, the same key stops it. */
export class Stopwatch {
  running = $state(false);
  /** Tenths of a second, as they stand. */
  elapsed = $state(0);
  #from = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  constructor(private readonly now: () => number = () => performance.now()) {}

  /** @returns the seconds of the hold when this press ended one. */
  press(): number | undefined {
    if (!this.running) {
      this.running = true;
      this.elapsed = 0;
      this.#from = this.now();
      this.#timer = setInterval(() => this.#tick(), 100);
      return undefined;
    }
    this.#tick();
    this.stop();
    return this.elapsed;
  }

  #tick(): void {
    this.elapsed = Math.round((this.now() - this.#from) / 100) / 10;
  }

  stop(): void {
    this.running = false;
    clearInterval(this.#timer);
  }
}
