import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { api, ask } from '$lib/api/client';
import type { Entry } from './say';

/** What lies on this device of somebody, to be read with their key alone. */
export type Sealed = { iv: Uint8Array<ArrayBuffer>; bytes: ArrayBuffer };

const longestWait = 500;

interface Keys extends DBSchema {
  keys: { key: string; value: CryptoKey };
}

const store = (): Promise<IDBPDatabase<Keys>> =>
  openDB<Keys>('tensarch-keys', 1, { upgrade: (fresh) => void fresh.createObjectStore('keys') });

/** Only a page that came over a safe connection can seal; without one nothing is kept for long either, as there is no service worker. */
const able = () => typeof crypto !== 'undefined' && crypto.subtle !== undefined;

/**
 * The keys of those who are signed in here: the server gives each to its author alone. A page holds it; beside that it lies in the browser where no script
 * can read it out, until the sign-in ends, so that a reload without the server finds its place.
 */
class KeyRing {
  readonly #held = new Map<string, CryptoKey>();
  readonly #asked = new Map<string, Promise<unknown>>();

  /** @returns None where it cannot be had now: what is said is kept all the same, and sealed later. */
  async of(author: string): Promise<CryptoKey | undefined> {
    if (!able()) return undefined;
    if (!this.#held.has(author)) await this.#soon(author);
    return this.#held.get(author);
  }

  /** Asked for once at a time, and not waited for long: nothing that is said waits for a network that hangs. */
  async #soon(author: string): Promise<void> {
    const asked =
      this.#asked.get(author) ??
      this.#find(author)
        .catch(() => undefined)
        .finally(() => this.#asked.delete(author));
    this.#asked.set(author, asked);
    await Promise.race([asked, new Promise((done) => setTimeout(done, longestWait))]);
  }

  async #find(author: string): Promise<void> {
    const kept = await store()
      .then((db) => db.get('keys', author))
      .catch(() => undefined);
    this.#held.set(author, kept ?? (await this.#ask(author)));
  }

  async #ask(author: string): Promise<CryptoKey> {
    const { of, key } = await ask(api.GET('/api/v1/accounts/me/device-key'));
    if (of !== author) throw new Error('Somebody else is signed in.');
    const bytes = Uint8Array.from(atob(key), (c) => c.charCodeAt(0));
    const made = await crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt']);
    await store()
      .then((db) => db.put('keys', made, author))
      .catch(() => undefined);
    return made;
  }

  /** Of whoever is not signed in no key stays in the browser. A page that is open goes on with the one that it holds until it is told to leave. */
  async keepOnly(author: string | undefined): Promise<void> {
    const db = await store();
    for (const other of await db.getAllKeys('keys')) if (other !== author) await db.delete('keys', other);
  }

  /** Somebody else works here now. */
  hold(author: string | undefined): void {
    for (const other of this.#held.keys()) if (other !== author) this.#held.delete(other);
  }

  /** Somebody leaves: nothing here reads what is left of theirs. */
  async drop(author: string): Promise<void> {
    this.#held.delete(author);
    await (await store()).delete('keys', author);
  }
}

export const keys = new KeyRing();

export async function seal(key: CryptoKey, entry: Entry): Promise<Sealed> {
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const text = new TextEncoder().encode(JSON.stringify(entry));
  return { iv, bytes: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, text) };
}

/** @returns None where this is not its key. */
export async function unseal(key: CryptoKey | undefined, { iv, bytes }: Sealed): Promise<Entry | undefined> {
  try {
    const text = await crypto.subtle.decrypt({ name: 'AES-GCM', iv }, key!, bytes);
    return JSON.parse(new TextDecoder().decode(text)) as Entry;
  } catch {
    return undefined;
  }
}
