import { allowed, type Packed, type Slot } from './pack';
import { segmentOf, versionOf } from './reduce';
import type { Line, Run } from './run';

/** What is left of a session once there are so many minutes. */
export type Reshaped = {
  /** The slots that change: to a version of theirs with fewer rounds, or out of the session. */
  readonly versions: Readonly<Record<string, string | null>>;
  readonly seconds: number;
  /** Drills that get fewer rounds, and drills that are left out, by version. */
  readonly shorter: readonly string[];
  readonly out: readonly string[];
};

const ahead = (run: Run): Line[] => run.lines.filter((l, i) => i > run.at && l.state === 'todo');

/** Seconds of the line that is done now, from where it stands. */
function restOfLine(packed: Packed, run: Run, elapsedMs: number): number {
  if (run.over) return 0;
  const after = versionOf(packed, run).segments.slice(run.segment + 1);
  const here = run.asking === null ? segmentOf(packed, run).seconds - elapsedMs / 1000 : 0;
  return Math.max(0, here) + after.reduce((sum, s) => sum + s.seconds, 0);
}

/** What is still to do takes so long. */
export const secondsToGo = (packed: Packed, run: Run, elapsedMs: number): number =>
  Math.round(
    restOfLine(packed, run, elapsedMs) +
      ahead(run).reduce((sum, l) => sum + packed.version(l.version).seconds, 0),
  );

/**
 * Chooses among what the pack has ready-made, the least change that fits: rounds of what takes longest, then what matters least, with what came
 * along for it alone. A drill that has begun on one side is done on the other as it was; warm-ups, tests of what stays and the end stay.
 */
export function reshape(packed: Packed, run: Run, elapsedMs: number, seconds: number): Reshaped {
  const begun = new Set(
    run.lines
      .filter((l, i) => i <= run.at || l.state !== 'todo')
      .filter((l) => l.state !== 'ended' || run.lines.indexOf(l) === run.at)
      .map((l) => packed.slot(l.slot).group),
  );
  const chosen = new Map<string, string | null>(ahead(run).map((l) => [l.slot, l.version]));
  const was = new Map(chosen);
  const order = [...chosen.keys()];
  const fixed = restOfLine(packed, run, elapsedMs);
  const lasts = (slot: string) => (chosen.get(slot) == null ? 0 : packed.version(chosen.get(slot)!).seconds);
  const total = () => fixed + order.reduce((sum, slot) => sum + lasts(slot), 0);

  const groups = () => {
    const by = new Map<string, Slot[]>();
    for (const slot of order) {
      if (chosen.get(slot) === null) continue;
      const it = packed.slot(slot);
      if (!begun.has(it.group)) by.set(it.group, [...(by.get(it.group) ?? []), it]);
    }
    return [...by.values()];
  };
  /** The step after the version that is chosen: undefined when there is none, or it may not be done any more. */
  const step = (slot: Slot, by: number): string | undefined => {
    const ladder = [slot.versions[0]!.id, ...(slot.fewer ?? [])];
    const at = ladder.indexOf(chosen.get(slot.id)!);
    const next = at === -1 ? undefined : ladder[at + by];
    return next !== undefined && allowed(packed.version(next), run.ended) ? next : undefined;
  };
  const long = (slots: Slot[]) => slots.reduce((sum, s) => sum + lasts(s.id), 0);
  const isTest = (slot: Slot) => packed.gatesTestedBy(slot.id).length > 0;

  while (total() > seconds) {
    const lessenable = groups().filter((g) => !g.some(isTest) && g.some((s) => step(s, 1)));
    const longest = lessenable.sort((a, b) => long(b) - long(a))[0];
    if (longest) {
      for (const slot of longest) chosen.set(slot.id, step(slot, 1) ?? chosen.get(slot.id)!);
      continue;
    }
    const open = groups().filter((g) => g[0]!.keep != null);
    // The last thing that the session is about stays.
    const least = open.sort(
      (a, b) => a[0]!.keep! - b[0]!.keep! || order.indexOf(b[0]!.id) - order.indexOf(a[0]!.id),
    )[0];
    if (!least || (open.filter((g) => g[0]!.keep! >= 0).length <= 1 && least[0]!.keep! >= 0)) break;
    for (const slot of least) chosen.set(slot.id, null);
    withdraw();
  }
  // Rounds come back where something larger went, to what matters most first.
  for (const group of groups().sort((a, b) => (b[0]!.keep ?? 0) - (a[0]!.keep ?? 0)))
    for (;;) {
      const longer = group.map((s) => (chosen.get(s.id) === was.get(s.id) ? undefined : step(s, -1)));
      if (longer.every((v) => v === undefined)) break;
      const before = group.map((s) => chosen.get(s.id)!);
      group.forEach((s, i) => longer[i] && chosen.set(s.id, longer[i]));
      if (total() <= seconds) continue;
      group.forEach((s, i) => chosen.set(s.id, before[i]!));
      break;
    }

  /** What came along for what is out alone goes with it: its counter, its test. */
  function withdraw() {
    const gone = (slot: string) =>
      chosen.get(slot) === null || run.lines.some((l) => l.slot === slot && l.state === 'ended');
    for (const slot of order) {
      const it = packed.slot(slot);
      const counters = it.for ?? [];
      const tests = packed.gatesTestedBy(slot);
      if (
        (counters.length > 0 && counters.every(gone)) ||
        (tests.length > 0 && tests.every((g) => g.needs.every((n) => gone(n.slot))))
      )
        chosen.set(slot, null);
    }
  }

  const changed = order.filter((slot) => chosen.get(slot) !== was.get(slot));
  return {
    versions: Object.fromEntries(changed.map((slot) => [slot, chosen.get(slot)!])),
    seconds: Math.round(total()),
    shorter: changed.filter((slot) => chosen.get(slot) !== null).map((slot) => was.get(slot)!),
    out: changed.filter((slot) => chosen.get(slot) === null).map((slot) => was.get(slot)!),
  };
}
