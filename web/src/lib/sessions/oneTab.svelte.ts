/** A page that is loaded again may ask before the one it replaces has let go. */
const patience = 800;

/**
 * One tab of a device runs a session: two would tell the same run twice. The second one asks, and may take over; the first then lets go. Where the
 * browser has no locks every tab runs, and the log refuses what is told twice.
 */
export class OneTab {
  state = $state<'waiting' | 'ours' | 'elsewhere'>('waiting');
  #release: (() => void) | undefined;

  constructor(readonly session: string) {
    void this.#ask({ signal: AbortSignal.timeout(patience) });
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
      await navigator.locks.request(`run:${this.session}`, how, () => {
        this.state = 'ours';
        return new Promise<void>((done) => (this.#release = done));
      });
    } catch {
      // Another tab has it, or took it.
      this.state = 'elsewhere';
    }
  }
}
