import type { Schemas } from '$lib/api/client';

export type Pack = Schemas['SessionPack'];
export type Slot = Schemas['PackSlot'];
export type Version = Schemas['PackVersion'];
export type Gate = Schemas['PackGate'];
export type Stop = Schemas['PackStop'];
export type Segment = Schemas['Segment'];

/** A pack with everything in it found by its id: what is planned, what is eased, and what may be put in instead. */
export class Packed {
  readonly #versions = new Map<string, Version>();
  readonly #slots = new Map<string, Slot>();
  readonly #stops = new Map<string, Stop>();
  readonly #gates = new Map<string, Gate>();
  /** The gates that a slot needs, and those whose test it is. */
  readonly #needs = new Map<string, Gate[]>();
  readonly #tests = new Map<string, Gate[]>();

  constructor(readonly pack: Pack) {
    const instead = pack.gates.flatMap((g) => g.instead).flatMap((i) => i.slots);
    for (const slot of [...pack.slots, ...instead]) {
      this.#slots.set(slot.id, slot);
      for (const version of slot.versions) this.#versions.set(version.id, version);
    }
    for (const stop of pack.stops) this.#stops.set(stop.signal, stop);
    for (const gate of pack.gates) {
      this.#gates.set(gate.id, gate);
      for (const need of gate.needs) push(this.#needs, need.slot, gate);
      for (const test of gate.tests) push(this.#tests, test, gate);
    }
  }

  version = (id: string): Version => this.#versions.get(id)!;
  slot = (id: string): Slot => this.#slots.get(id)!;
  gate = (id: string): Gate | undefined => this.#gates.get(id);
  stop = (signal: Schemas['SignalKind']): Stop => this.#stops.get(signal)!;
  gatesNeededBy = (slot: string): readonly Gate[] => this.#needs.get(slot) ?? none;
  gatesTestedBy = (slot: string): readonly Gate[] => this.#tests.get(slot) ?? none;

  /** As which signal something is met: pain of six and more is sharp, whatever was chosen. */
  metAs(signal: Schemas['SignalKind'], pain: number | null): Stop {
    const stop = this.stop(signal);
    return stop.worse != null && stop.worseFrom != null && pain != null && pain >= stop.worseFrom
      ? this.stop(stop.worse)
      : stop;
  }
}

const none: readonly Gate[] = [];

function push(map: Map<string, Gate[]>, key: string, gate: Gate): void {
  const there = map.get(key);
  if (there) there.push(gate);
  else map.set(key, [gate]);
}

/** Whether a version may still be done: none of its loads has ended. */
export const allowed = (version: Version, ended: readonly string[]): boolean =>
  ended.length === 0 || !version.loads.some((load) => ended.includes(load));

type Check = Gate['checks'][number];

/** Whether an answer is what the check asks for, as the pack says; what was not seen is not. */
export const holds = (check: Check, answer: number | undefined): boolean =>
  answer !== undefined && check.good.includes(answer);

/** The check that decides: the worst, and of equals the first; none when all hold. */
export function failedCheck(gate: Gate, answers: Record<string, number>): Check | undefined {
  const failed = gate.checks.filter((c) => !holds(c, answers[c.key]));
  return failed.find((c) => c.otherwise === 'notToday') ?? failed[0];
}
