import { api, ask, Refusal, type Schemas } from '$lib/api/client';
import { iso } from '$lib/parts/instant';
import { device } from './device';
import { log, type Kept } from './log';
import { entriesOfBefore, ofBefore } from './ofBefore';
import type { Fact } from './say';
import { keys } from './seal';

const batchSize = 50;
/** So many entries in a row on which the server fails: it is the server, and not one of them. */
const mostFailed = 3;
/** A run that ended so long ago and that the server has all of is cleared away. */
const keptFor = 12 * 3_600_000;
/** What the server was told last of what waits here. */
const toldOf = 'told-of';
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
  #begun = false;
  #sending: Promise<void> | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #wait = shortestWait;
  #batch = batchSize;
  /** Entries on which the server failed alone: they come after the others, and are never given up. */
  readonly #later = new Set<string>();
  #failedInARow = 0;
  readonly #others = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('tensarch');
  /** Somebody has left in another tab. */
  onLeft: (author: string) => void = () => undefined;

  constructor() {
    this.#others?.addEventListener('message', ({ data }: MessageEvent<{ left?: string }>) => {
      if (data.left === undefined || data.left !== this.#author) return;
      void log.hold(undefined, Date.now()).catch(() => undefined);
      this.onLeft(data.left);
    });
  }

  /** The sign-in stands, or has ended: of who is not signed in no pack stays on this device, nor comes late. What they said waits for them. */
  hold(stands: boolean): void {
    const author = stands ? this.#author : undefined;
    void log.hold(author, Date.now()).catch(() => undefined);
    if (!stands && this.#author !== undefined) this.#others?.postMessage({ left: this.#author });
  }

  /** Facts belong to who made them: another coach's sign-in on this device neither sends nor sees them. */
  open(author: string | undefined): void {
    if (author === this.#author && this.#begun) return;
    this.#begun = true;
    this.#author = author;
    this.waiting = 0;
    this.refused = [];
    this.lost = undefined;
    void log.hold(author, Date.now()).catch(() => undefined);
    keys.hold(author);
    void log.others(author, Date.now()).catch(() => undefined);
    if (author !== undefined)
      void this.takeOver(author)
        .catch(() => undefined)
        .then(() => log.sealAll(author))
        .catch(() => undefined)
        .then(() => log.clear(author, Date.now() - keptFor))
        .catch(() => undefined)
        .then(() => this.send())
        .then(() => this.#tell(author))
        .catch(() => undefined);
  }

  /** The server hears what lies here of whom, for the owner: where that is other than what it was told last. */
  async #tell(author: string): Promise<void> {
    const left = await log.others(author, Date.now());
    const told = JSON.parse(localStorage.getItem(toldOf) ?? '[]') as Schemas['UnsentOf'][];
    const own = await this.left();
    if (own.length > 0)
      left.set(author, {
        waiting: own.length,
        oldest: Math.min(...own.map((k) => k.entry.event.at)),
        dropped: left.get(author)?.dropped ?? 0,
      });
    const waited = told.filter((t) => t.waiting > 0).map((t) => t.author);
    // One's own is told where the owner was told of it before.
    const whose = new Set(
      [...left.keys(), ...waited].filter((w) => w !== author || waited.includes(w) || left.get(w)?.dropped),
    );
    const of = [...whose].slice(0, 50).map((someone): Schemas['UnsentOf'] => {
      const { waiting, oldest, dropped } = left.get(someone) ?? { waiting: 0, dropped: 0 };
      return {
        author: someone,
        waiting,
        oldest: oldest === undefined ? null : iso(oldest),
        dropped,
      };
    });
    if (of.length === 0 || JSON.stringify(of) === JSON.stringify(told)) return;
    await ask(api.POST('/api/v1/accounts/unsent', { body: { device: device(), of } }));
    localStorage.setItem(toldOf, JSON.stringify(of));
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
    if (author === undefined) return;
    this.#others?.postMessage({ left: author });
    await log.erase(author).catch(() => undefined);
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
      const batch = (await log.waiting(author, this.#batch + this.#later.size))
        .filter((k) => !this.#later.has(keyOf(k)))
        .slice(0, this.#batch);
      if (batch.length === 0 && this.#later.size > 0) {
        this.#later.clear();
        this.#again();
        return;
      }
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
    this.#failedInARow = 0;
  }

  async #settle(batch: Kept[], answer: Schemas['TellResponse']): Promise<void> {
    for (const [i, told] of answer.told.entries()) {
      const kept = batch[i]!;
      const good = told.is === 'stored' || told.is === 'same';
      await log.mark(kept, good ? 'sent' : 'refused', good ? undefined : (told.code ?? told.is));
    }
    this.ended = { ...this.ended, ...answer.ended };
    this.doubled = [...new Set([...this.doubled, ...answer.doubled])];
    await this.#look(this.#author!);
  }

  /** @returns Whether to go on at once. */
  async #failed(batch: Kept[], refusal: Refusal): Promise<boolean> {
    this.lost = refusal.code ?? 'unexpected';
    // What was sent cannot be read, or the server fails on it: find the one, put it aside, and send the others.
    const unread = refusal.status === 422 || refusal.status === 400;
    if (unread || (refusal.status >= 500 && this.#failedInARow < mostFailed)) {
      if (batch.length > 1) {
        this.#batch = Math.ceil(batch.length / 2);
        return true;
      }
      const [kept] = batch;
      if (unread) await log.mark(kept!, 'refused', refusal.code);
      else {
        this.#later.add(keyOf(kept!));
        this.#failedInARow++;
      }
      return true;
    }
    this.#failedInARow = 0;
    this.#later.clear();
    this.#again();
    return false;
  }

  #again(): void {
    this.#timer = setTimeout(() => void this.send(), this.#wait * (0.75 + Math.random() / 2));
    this.#wait = Math.min(longestWait, this.#wait * 2);
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

const keyOf = (kept: Kept): string => `${kept.session}/${kept.seq}`;

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
