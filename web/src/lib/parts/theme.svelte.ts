export type Theme = 'chalk' | 'slate';

/** The coach's own choice of theme; the system's when none was made. */
class ThemeChoice {
  #chosen = $state<Theme>();

  start(): void {
    const stored = localStorage.getItem('theme');
    if (stored === 'chalk' || stored === 'slate') this.#set(stored);
  }

  get dark(): boolean {
    return (
      (this.#chosen ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'slate' : 'chalk')) === 'slate'
    );
  }

  /** What was chosen on this device; none while it follows the system. */
  get chosen(): Theme | undefined {
    return this.#chosen;
  }

  choose(theme: Theme | undefined): void {
    if (theme) return this.#set(theme);
    this.#chosen = undefined;
    delete document.documentElement.dataset.theme;
    localStorage.removeItem('theme');
  }

  toggle(): void {
    this.#set(this.dark ? 'chalk' : 'slate');
  }

  #set(theme: Theme): void {
    this.#chosen = theme;
    document.documentElement.dataset.theme = theme;
    localStorage.setItem('theme', theme);
  }
}

export const theme = new ThemeChoice();
