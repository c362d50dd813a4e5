import type { Schemas } from '$lib/api/client';

export type SignalKind = Schemas['SignalKind'];
export type LoadTag = Schemas['LoadTag'];
export type Side = Schemas['Side'];

/** Where it hurts and how much. */
export type Felt = {
  region: LoadTag | null;
  pain: number | null;
  side: Side | null;
  place: string | null;
};

/** What is said on the floor, by a hand or by the clock. */
export type Said =
  | {
      is:
        | 'started'
        | 'paused'
        | 'resumed'
        | 'back'
        | 'ended'
        | 'skipped'
        | 'eased'
        | 'offerTaken'
        | 'offerDeclined';
    }
  /** The segment is over: `heldMs` of it were held, to its end or not. */
  | { is: 'passed'; heldMs: number; whole: boolean }
  /** What was seen at a day gate; a check that is missing was not seen. */
  | { is: 'gate'; gate: string; answers: Record<string, number> }
  | {
      is: 'signal';
      signal: SignalKind;
      region: LoadTag | null;
      pain: number | null;
      /** Which side of the body hurts; what was said before it was asked has none. */
      side?: Side | null;
      /** The part of the body that was pointed at. */
      place?: string | null;
    }
  /** A round that a gate reads was done, with its number. */
  | { is: 'confirmed'; of: string; seconds: number | null; reps: number | null }
  | { is: 'quality'; of: string; value: number }
  /** The server bars these loads by now. */
  | { is: 'barred'; loads: readonly string[] }
  /** The device slept: so much of the segment was done meanwhile. */
  | { is: 'gap'; from: number; doneSeconds: number }
  /** There is less time: what is left changes to versions with fewer rounds, or goes out. */
  | { is: 'reshaped'; versions: Readonly<Record<string, string | null>> }
  | { is: 'undone'; of: string };

/** @property at Milliseconds of the device's clock. */
export type RunEvent = { id: string; seq: number; at: number } & Said;

/** One slot on the way through, at the version that is done. */
export type Line = {
  readonly slot: string;
  readonly version: string;
  readonly state: 'todo' | 'done' | 'ended';
};

/** Where a session stands: nothing but what its events come to. */
export type Run = {
  readonly lines: readonly Line[];
  /** Index of the line that is done now; past the end when it is over. */
  readonly at: number;
  readonly segment: number;
  /** Milliseconds of the segment that had passed at `since`. */
  readonly elapsed: number;
  /** When the clock began to run; null while it stands still. */
  readonly since: number | null;
  readonly started: boolean;
  readonly over: boolean;
  /** Loads that are not done any more today. */
  readonly ended: readonly string[];
  /** The gates that were decided: by an answer, or because a test of them was not done. */
  readonly decided: readonly string[];
  /** The gate that waits for its answer. */
  readonly asking: string | null;
  /** An easier version of a drill that ended, offered. */
  readonly offer: { readonly slot: string; readonly version: string } | null;
  /** The round under way: how long it was held, and since when. */
  readonly round: { readonly number: number; readonly ms: number; readonly from: number };
  /** Events that this runner does not know, or that came when they could not: they change nothing. */
  readonly unknown: number;
  readonly seq: number;
};

export const noRound = { number: 0, ms: 0, from: 0 } as const;
