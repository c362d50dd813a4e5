import { api, ask, Refusal, type Schemas } from '$lib/api/client';
import { iso } from '$lib/parts/instant';
import { device } from './device';
import { log, type Kept } from './log';
import { entriesOfBefore, ofBefore } from './ofBefore';
import type { Fact } from './say';

const batchSize = 50;
/** An entry that the server failed on so often is put aside and shown. */
const mostTries = 5;
const shortestWait = 1000;
const longestWait = 60_000;

/**
 * What was said on this device and has not reached the server yet. One for the application: sent entry by entry until it is acknowledged, under
 * ids that cannot double; a refused one never blocks the rest.
 */
class Outbox {
  waiting = $state(0);
  refused = $state<Kept[]>([]);
  /** Why nothing goes out at the moment. */
  lost = $state<string>();
  /** By session, what bars keep from being done by now. */
  ended = $state<Readonly<Record<string, string[]>>>({});
  /** Sessions that another device runs too, without having heard of this one. */
  doubled = $state<readonly string[]>([]);
  #author: string | undefined;
  #sending: Promise<void> | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #wait = shortestWait;
  #batch = batchSize;

  /** Facts belong to who made them: another coach's sign-in on this device neither sends nor sees them. */
  open(author: string | undefined): void {
    if (author === this.#author) return;
    this.#author = author;
    this.waiting = 0;
    this.refused = [];
    this.lost = undefined;
    if (author !== undefined)
      void this.takeOver(author)
        .catch(() => undefined)
        .then(() => this.send());
  }

  /** What was said here by whoever is signed in, and is not in the books. */
  async left(): Promise<Kept[]> {
    const author = this.#author;
    return author === undefined
      ? []
      : [...(await log.waiting(author, Infinity)), ...(await log.refused(author))];
  }

  /** Whoever is signed in leaves: nothing of theirs stays on this device. */
  async leave(): Promise<void> {
    const author = this.#author;
    this.open(undefined);
    if (author !== undefined) await log.erase(author).catch(() => undefined);
  }

  /** Sends what waits; whoever calls twice waits for the same sending. */
  send(): Promise<void> {
    clearTimeout(this.#timer);
    this.#sending ??= this.#send()
      .catch(() => undefined)
      .finally(() => (this.#sending = undefined));
    return this.#sending;
  }

  async #send(): Promise<void> {
    const author = this.#author;
    while (author !== undefined && author === this.#author) {
      await this.#look(author);
      const batch = await log.waiting(author, this.#batch);
      if (batch.length === 0) {
        // Another tab of this device may have sent what this one could not.
        this.#reached();
        return;
      }
      try {
        const answer = await ask(
          api.POST('/api/v1/facts', {
            body: {
              sentAt: iso(Date.now()),
              author,
              device: device(),
              entries: batch.map(sent),
            },
          }),
        );
        await this.#settle(batch, answer);
        this.#reached();
      } catch (error) {
        if (!(await this.#failed(batch, error as Refusal))) return;
      }
    }
  }

  /** What bars keep from being done in a session by now, from whoever heard of it. */
  hear(session: string, ended: string[]): void {
    this.ended = { ...this.ended, [session]: ended };
  }

  #reached(): void {
    this.lost = undefined;
    this.#wait = shortestWait;
    this.#batch = batchSize;
  }

  async #settle(batch: Kept[], answer: Schemas['TellResponse']): Promise<void> {
    for (const [i, told] of answer.told.entries()) {
      const kept = batch[i]!;
      const good = told.is === 'stored' || told.is === 'same';
      await log.put({
        ...kept,
        state: good ? 'sent' : 'refused',
        code: good ? undefined : (told.code ?? told.is),
      });
    }
    this.ended = { ...this.ended, ...answer.ended };
    this.doubled = [...new Set([...this.doubled, ...answer.doubled])];
    await this.#look(this.#author!);
  }

  /** @returns Whether to go on at once. */
  async #failed(batch: Kept[], refusal: Refusal): Promise<boolean> {
    this.lost = refusal.code ?? 'unexpected';
    // What was sent cannot be read, or the server fails on it: find the one, put it aside, and send the others.
    if (refusal.status >= 500 || refusal.status === 422 || refusal.status === 400) {
      if (batch.length > 1) {
        this.#batch = Math.ceil(batch.length / 2);
        return true;
      }
      const kept = { ...batch[0]!, tries: batch[0]!.tries + 1 };
      const parked = refusal.status < 500 || kept.tries >= mostTries;
      await log.put(parked ? { ...kept, state: 'refused', code: refusal.code } : kept);
      if (parked) return true;
    }
    this.#timer = setTimeout(() => void this.send(), this.#wait * (0.75 + Math.random() / 2));
    this.#wait = Math.min(longestWait, this.#wait * 2);
    return false;
  }

  async #look(author: string): Promise<void> {
    this.waiting = await log.count(author);
    this.refused = await log.refused(author);
  }

  /** What the runner of before kept in another place becomes entries, once. */
  async takeOver(author: string): Promise<void> {
    for (const key of Object.keys(localStorage).filter((k) => k.startsWith(ofBefore))) {
      const session = key.slice(ofBefore.length);
      const entries = entriesOfBefore(localStorage.getItem(key)!, session);
      const at = Math.max(0, ...(await log.of(author, session)).map((e) => e.event.seq)) + 1;
      for (const [i, entry] of entries.entries())
        await log.add(author, session, { ...entry, event: { ...entry.event, seq: at + i } });
      localStorage.removeItem(key);
    }
  }
}

export const outbox = new Outbox();

/** An entry as it travels. */
export const sent = ({ session, plan, entry }: Kept): Schemas['FloorEntry'] => {
  const { id, seq, at, ...said } = entry.event;
  return {
    event: { id, session, seq, at: iso(at), said: JSON.stringify(said), plan },
    facts: entry.facts.map(travelling),
  };
};

function travelling(fact: Fact): Schemas['FloorFact'] {
  const at = iso(fact.at);
  return fact.kind === 'gate'
    ? { ...fact, at, answers: Object.entries(fact.answers).map(([check, answer]) => ({ check, answer })) }
    : { ...fact, at };
}
