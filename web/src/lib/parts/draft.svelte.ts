import { account } from '$lib/accounts/account.svelte';

const prefix = 'draft:';
/** When drafts of somebody else were first seen here, by key. */
const foreign = 'foreign-drafts';
const longestKept = 30 * 86_400_000;

/** Where a draft lies: whose it is stands in it, so that nobody else who signs in here sees it. */
export const draftKey = (kind: string, id: string, author = account.me?.user?.id ?? 'nobody') =>
  `${prefix}${kind}:${author}:${id}` as const;

const drafts = () => Object.keys(localStorage).filter((key) => key.startsWith(prefix));
const authorOf = (key: string) => key.split(':')[2];

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
export function eraseDrafts(author: string): void {
  for (const key of drafts()) if (authorOf(key) === author) localStorage.removeItem(key);
}

/** Of those who have not come back for thirty days no draft stays here. */
export function sweepDrafts(author: string, now: number): void {
  let seen: Record<string, number> = {};
  try {
    seen = JSON.parse(localStorage.getItem(foreign) ?? '{}') as Record<string, number>;
  } catch {
    // Counted from today, then.
  }
  const still: Record<string, number> = {};
  for (const key of drafts().filter((k) => authorOf(k) !== author)) {
    const since = seen[key] ?? now;
    if (since < now - longestKept) localStorage.removeItem(key);
    else still[key] = since;
  }
  localStorage.setItem(foreign, JSON.stringify(still));
}

/** Where the application of before kept drafts, whoever they were of. */
const ofBefore: readonly [RegExp, string][] = [
  [/^draft:(log|student|note|ladder):([^:]+)$/, ''],
  [/^(edit)\/(.+)$/, ''],
  [/^(bench):([0-9a-f-]{36})$/, 'sitting'],
];

/** They become drafts of whoever works here when that application is first replaced. */
export function takeOverDrafts(author: string): void {
  for (const key of Object.keys(localStorage))
    for (const [form, named] of ofBefore) {
      const found = form.exec(key);
      if (!found) continue;
      const mine = draftKey(named || found[1]!, found[2]!, author);
      if (localStorage.getItem(mine) === null) localStorage.setItem(mine, localStorage.getItem(key)!);
      localStorage.removeItem(key);
    }
}
