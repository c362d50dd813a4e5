/** A page that is loaded again may ask before the one it replaces has let go. */
const patience = 800;

/**
 * One tab of a device runs a session: two would tell the same run twice. The second one asks, and may take over; the first then lets go. Where the
 * browser has no locks every tab runs, and the log refuses what is told twice.
 */
export class OneTab {
  state = $state<'waiting' | 'ours' | 'elsewhere'>('waiting');
  #release: (() => void) | undefined;
  #gone = false;

  constructor(readonly session: string) {
    void this.#ask({ signal: AbortSignal.timeout(patience) });
  }

  takeOver(): void {
    void this.#ask({ steal: true });
  }

  release(): void {
    this.#gone = true;
    this.#release?.();
  }

  async #ask(how: LockOptions): Promise<void> {
    if (!('locks' in navigator)) {
      this.state = 'ours';
      return;
    }
    const name = `run:${this.session}`;
    try {
      await navigator.locks.request(name, how, () => {
        if (this.#gone) return Promise.resolve();
        this.state = 'ours';
        return new Promise<void>((done) => (this.#release = done));
      });
    } catch {
      const { held } = await navigator.locks.query();
      // A busy device may take longer to answer than a tab takes to let go: nobody has it.
      if (this.#gone) return;
      if (this.state === 'waiting' && !held?.some((lock) => lock.name === name))
        return this.#ask({ signal: AbortSignal.timeout(patience) });
      // Another tab has it, or took it.
      this.state = 'elsewhere';
    }
  }
}
