/** Single-letter keys can be turned off (WCAG 2.1.4), and are ignored in text fields. */
class KeyChoice {
  letters = $state(localStorage.getItem('keys') !== 'off');

  set(on: boolean): void {
    this.letters = on;
    localStorage.setItem('keys', on ? 'on' : 'off');
  }

  /** Whether a key press is a command: not typed into a field, not part of a shortcut of the browser. */
  isCommand(event: KeyboardEvent): boolean {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return false;
    if (
      (event.target as HTMLElement).closest(
        'input:not([type=radio], [type=checkbox]), textarea, select, dialog',
      )
    )
      return false;
    return this.letters || event.key.length > 1 || event.key === ' ';
  }
}

export const keys = new KeyChoice();
