import type { Packed } from './pack';
import type { Run } from './run';

/** What a signal took out of a session, and what is done in its place, as it is shown and spoken. */
export type TakenOut = {
  gone: readonly string[];
  /** Put in, or done in an easier version. */
  instead: readonly string[];
  over: boolean;
};

/** Each drill once, with its side where only one of its sides is meant. */
function named(packed: Packed, versions: readonly string[]): string[] {
  const sides = new Map<string, Set<string>>();
  for (const id of versions) {
    const { name, side } = packed.version(id);
    const there = sides.get(name) ?? new Set();
    sides.set(name, there.add(side ?? 'both'));
  }
  return [...sides].map(([name, on]) => (on.size === 1 && !on.has('both') ? `${name}, ${[...on][0]}` : name));
}

export function takenOut(packed: Packed, before: Run, after: Run): TakenOut | undefined {
  const now = new Map(after.lines.map((l) => [l.slot + l.version, l]));
  const slots = new Map(after.lines.map((l) => [l.slot, l]));
  const todo = before.lines.filter((l) => l.state === 'todo');
  const gone = todo.filter((l) => (now.get(l.slot + l.version) ?? slots.get(l.slot))?.state === 'ended');
  const put = after.lines.filter(
    (l) =>
      l.state === 'todo' &&
      !before.lines.some((b) => b.slot === l.slot && b.version === l.version && b.state === 'todo'),
  );
  if (gone.length === 0 && put.length === 0) return undefined;
  return {
    gone: named(
      packed,
      gone.map((l) => l.version),
    ),
    instead: named(
      packed,
      put.map((l) => l.version),
    ),
    over: after.over,
  };
}

/** In one breath, as it is spoken. */
export function takenOutText(taken: TakenOut): string {
  const out = taken.gone.length ? `Out for today: ${taken.gone.join('; ')}.` : '';
  const put = taken.instead.length ? `Instead: ${taken.instead.join('; ')}.` : '';
  return [out, put, taken.over ? 'The session ends here.' : ''].filter(Boolean).join(' ');
}

/** What backing off came to. */
export function easedText(packed: Packed, before: Run, after: Run): string | undefined {
  const line = before.lines[before.at];
  if (!line) return undefined;
  const was = packed.version(line.version);
  const now = after.lines[before.at];
  if (!now || now.state === 'ended') return `${was.name}: nothing is easier. It ends here.`;
  const is = packed.version(now.version);
  if (is.id === was.id) return undefined;
  return is.variant === was.variant
    ? `${is.name}: half as long to settle.`
    : `${is.name}: ${is.variantName.toLowerCase()} from here.`;
}
