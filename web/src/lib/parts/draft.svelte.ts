/** What is being typed, kept on this device until it has been sent, so that a reload or a lost connection loses nothing. */
export class Draft<T extends object> {
  value = $state() as T;

  constructor(
    private readonly key: string,
    blank: T,
  ) {
    const kept = localStorage.getItem(key);
    this.value = kept ? { ...blank, ...(JSON.parse(kept) as T) } : blank;
  }

  keep(): void {
    localStorage.setItem(this.key, JSON.stringify(this.value));
  }

  forget(): void {
    localStorage.removeItem(this.key);
  }
}
