/**
 * One tab of a device runs a session: two would tell the same run twice. The second one asks, and may take over; the first then lets go. Where the
 * browser has no locks every tab runs, and the log refuses what is told twice.
 */
export class OneTab {
  state = $state<'waiting' | 'ours' | 'elsewhere'>('waiting');
  #release: (() => void) | undefined;

  constructor(readonly session: string) {
    void this.#ask({ ifAvailable: true });
  }

  takeOver(): void {
    void this.#ask({ steal: true });
  }

  release(): void {
    this.#release?.();
  }

  async #ask(how: LockOptions): Promise<void> {
    if (!('locks' in navigator)) {
      this.state = 'ours';
      return;
    }
    try {
      await navigator.locks.request(`run:${this.session}`, how, (lock) => {
        this.state = lock ? 'ours' : 'elsewhere';
        return lock ? new Promise<void>((done) => (this.#release = done)) : undefined;
      });
    } catch {
      // Another tab took it.
      this.state = 'elsewhere';
    }
  }
}
