/** What was just done and can be taken back: for ten seconds, and not while a hand or the focus is on it. */
class Undo {
  offered = $state.raw<{ text: string; back: () => Promise<unknown> }>();
  failed = $state<string>();
  #timer: ReturnType<typeof setTimeout> | undefined;

  offer(text: string, back: () => Promise<unknown>): void {
    this.offered = { text, back };
    this.failed = undefined;
    this.go();
  }

  stay(): void {
    clearTimeout(this.#timer);
  }

  go(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.clear(), 10_000);
  }

  clear(): void {
    clearTimeout(this.#timer);
    this.offered = undefined;
  }

  async take(): Promise<void> {
    const offered = this.offered;
    if (!offered) return;
    try {
      await offered.back();
      this.clear();
    } catch (error) {
      this.failed = (error as { code?: string }).code ?? 'unexpected';
    }
  }
}

export const undo = new Undo();
