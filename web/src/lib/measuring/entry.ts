import type { Schemas } from '$lib/api/client';
import { parseNumber } from '$lib/students/body';

/** One side of a measure at a level and a warmth: where a reading is captured. */
export type Place = Schemas['SittingSide'];

/** What is being read on one side of one measure. */
export type Entry = Schemas['Draft'] & {
  /** What stands in the trial field: kept as typed. */
  typed: string;
  /** The draft's version that the server has. */
  version: number;
  /** When each timed hold began, as an instant: two that lie a minute apart count as two at the gate. On this device alone. */
  began: string[];
};

export const mostTrials = 5;
export const mostAttempts = 50;

export function blankEntry(id: string, instrument: Schemas['Instrument']): Entry {
  return {
    id,
    instrument,
    trials: [],
    hits: [],
    stacks: [],
    marks: [],
    compensations: [],
    quality: '',
    sensation: '',
    pain: '',
    note: '',
    typed: '',
    version: 0,
    began: [],
  };
}

/** What the server keeps of an entry, with the version that it has; what stands in the field stays here. */
export function draftOf(entry: Entry): Schemas['Draft'] & { version: number } {
  const kept: Partial<Entry> = { ...entry };
  delete kept.typed;
  delete kept.began;
  return kept as Schemas['Draft'] & { version: number };
}

/** The beginnings of all trials; nothing when one of them was typed, for nobody saw when it was. */
export const beginnings = (entry: Entry): string[] | null =>
  entry.began?.length && entry.began.length === entry.trials.length && entry.began.every((t) => t)
    ? entry.began
    : null;

/** Whether anything has been captured. */
export const captured = (entry: Entry): boolean =>
  entry.trials.length + entry.hits.length + entry.stacks.length + entry.marks.length > 0;

/** How many trials or attempts there are. */
export const countOf = (entry: Entry): number =>
  Math.max(entry.trials.length, entry.stacks.length, entry.marks.length, entry.hits.length);

/**
 * A trial as it is typed. A point and one digit stand for the value nearest to the last trial that ends so: after 9.8, ".2" is 10.2.
 */
export function readTrial(text: string, last: number | undefined): number | null {
  const tenth = /^[.,](\d)$/.exec(text.trim());
  if (!tenth || last === undefined) return parseNumber(text);
  const digit = Number(tenth[1]);
  const tens = Math.round(last * 10);
  const near = Math.floor((tens - digit) / 10) * 10 + digit;
  return (Math.abs(near + 10 - tens) < Math.abs(near - tens) ? near + 10 : near) / 10;
}

/** Whether what is typed can be taken without Enter: it has its one decimal. */
export const isWhole = (text: string, last: number | undefined): boolean =>
  /^[-−]?\d+[.,]\d$/.test(text.trim()) || (last !== undefined && /^[.,]\d$/.test(text.trim()));

/** Two devices captured in one slot: what the other one has, and behind it what only this one has. Nothing captured is lost. */
export function merge(mine: Entry, theirs: Schemas['Draft'], version: number): Entry {
  const both = <T>(a: T[], b: T[], most: number): T[] => {
    let same = 0;
    while (same < a.length && same < b.length && JSON.stringify(a[same]) === JSON.stringify(b[same])) same++;
    return [...b, ...a.slice(same)].slice(0, most);
  };
  return {
    ...mine,
    ...theirs,
    typed: mine.typed,
    trials: both(mine.trials, theirs.trials, mostTrials),
    hits: both(mine.hits, theirs.hits, mostAttempts),
    stacks: both(mine.stacks, theirs.stacks, mostTrials),
    marks: both(mine.marks, theirs.marks, mostTrials),
    compensations: [...new Set([...theirs.compensations, ...mine.compensations])],
    version,
  };
}

/** What was captured, as a reading of its measure; the sitting adds its standard and its own id. */
export function requestOf(entry: Entry, measure: Schemas['Measure'], place: Place) {
  const counts = measure.kind === 'rate';
  return {
    id: entry.id,
    measure: measure.key,
    side: place.side,
    level: place.level,
    warmth: place.warmth,
    instrument: entry.instrument,
    trials: entry.trials,
    successes: counts ? entry.hits.filter((h) => h).length : null,
    attempts: counts ? entry.hits.length : null,
    hits: counts ? entry.hits : null,
    stacks: entry.instrument === 'blockStack' && entry.stacks.length ? entry.stacks : null,
    marks: entry.marks.length ? entry.marks : null,
    compensations: entry.compensations,
    quality: parseNumber(entry.quality),
    sensation: parseNumber(entry.sensation),
    pain: parseNumber(entry.pain),
    note: entry.note || null,
    takenAt: null,
    trialsAt: measure.kind === 'hold' ? beginnings(entry) : null,
  };
}
