const prefix = 'draft:';

/** What is being typed, kept on this device until it has been sent, so that a reload or a lost connection loses nothing. */
export class Draft<T extends object> {
  value = $state() as T;
  readonly #key: string;

  constructor(
    key: `draft:${string}`,
    private readonly blank: T,
  ) {
    this.#key = key;
    this.value = this.#read();
  }

  #read(): T {
    try {
      return { ...this.blank, ...(JSON.parse(localStorage.getItem(this.#key) ?? '{}') as T) };
    } catch {
      return this.blank;
    }
  }

  keep(): void {
    localStorage.setItem(this.#key, JSON.stringify(this.value));
  }

  forget(): void {
    localStorage.removeItem(this.#key);
  }
}

/** Whoever is signed in leaves: nothing that they were typing stays on this device. */
export function eraseDrafts(): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(prefix)) localStorage.removeItem(key);
}
