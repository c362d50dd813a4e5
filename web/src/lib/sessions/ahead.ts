import { allowed, type Packed } from './pack';
import { lineOf, versionOf } from './reduce';
import type { Run } from './run';
import type { Planned } from './tones';

/** Tones are laid so far ahead. */
const ahead = 180_000;

/** The tones of what lies ahead, up to where a hand is needed. */
export function tonesAhead(packed: Packed, run: Run, now: number): Planned[] {
  if (run.over) return [{ inMs: 0, moment: 'end' }];
  if (run.asking !== null) return [{ inMs: 0, moment: 'ask' }];
  if (run.since === null) return [];
  const tones: Planned[] = [];
  let at = run.since - run.elapsed - now;
  const add = (inMs: number, moment: Planned['moment']) =>
    inMs >= -50 && tones.push({ inMs: Math.max(0, inMs), moment });
  const segments = versionOf(packed, run).segments;
  for (const [i, segment] of segments.entries()) {
    if (i < run.segment) continue;
    if (at > ahead) return tones;
    // The way out has said that the work is over.
    if (segment.kind !== 'rest' || segments[i - 1]?.kind !== 'out')
      add(at, segment.kind === 'work' ? 'work' : 'rest');
    at += segment.seconds * 1000;
    for (const second of [3, 2, 1]) if (segment.seconds > second) add(at - second * 1000, 'tick');
  }
  const next = run.lines.find((l, i) => i > run.at && l.state === 'todo');
  const here = lineOf(run);
  const asks =
    (here && packed.gatesTestedBy(here.slot).length > 0) ||
    (next && packed.gatesNeededBy(next.slot).some((g) => !run.decided.includes(g.id)));
  add(at, asks ? 'ask' : next && allowed(packed.version(next.version), run.ended) ? 'rest' : 'end');
  return tones;
}
