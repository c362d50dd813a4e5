import { existsSync, readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { allowed, Packed, type Gate, type Pack } from './pack';
import { begin, segmentOf } from './reduce';
import type { Run, RunEvent, Said } from './run';
import { say, type Fact } from './say';

/** A pack as the core's test wrote it, with whose it is. */
export type Written = {
  ladder: string;
  stage: number;
  body: string;
  minutes: number;
  barred: string[];
  pack: Pack;
};

const file = new URL('../../../../artifacts/packs/real-packs.json.gz', import.meta.url);

/** What the core's test wrote. */
export function readWritten(): Written[] {
  if (!existsSync(file))
    throw new Error('artifacts/packs/real-packs.json.gz is not there: run the core’s tests first.');
  return JSON.parse(gunzipSync(readFileSync(file)).toString()) as Written[];
}

export const where = (w: Written, run: Run) =>
  `${w.ladder} ${w.stage}, ${w.body}, ${w.minutes} min, line ${run.at}`;

/** What may never be: something left that loads what has ended, or that needs a test that was not passed. */
export function sound(packed: Packed, run: Run, said: () => string): void {
  const { ended, decided, lines } = run;
  for (const [i, line] of lines.entries()) {
    if (line.state !== 'todo') continue;
    if (!allowed(packed.version(line.version), ended))
      throw new Error(`${said()}: ${line.version} is left and loads what has ended`);
    if (
      i === run.at &&
      run.asking === null &&
      !packed.gatesNeededBy(line.slot).every((g) => decided.includes(g.id))
    )
      throw new Error(`${said()}: ${line.slot} is done before its gate`);
  }
  if (run.offer && !allowed(packed.version(run.offer.version), ended))
    throw new Error(`${said()}: an offer loads what has ended`);
  if (!run.over && lines[run.at]?.state !== 'todo' && run.asking === null)
    throw new Error(`${said()}: stands on what is not to do`);
}

let ids = 0;
const id = () => `00000000-0000-4000-8000-${String(++ids).padStart(12, '0')}`;

/** One way through a pack, judged after every step. */
export class Walk {
  run: Run;
  now = 0;
  readonly events: RunEvent[] = [];
  readonly facts: Fact[] = [];

  constructor(
    readonly w: Written,
    readonly packed: Packed,
  ) {
    this.run = begin(packed, w.barred);
  }

  say(said: Said): void {
    const told = say(this.packed, this.run, said, { id: id(), at: this.now });
    if (told.run.unknown !== this.run.unknown)
      throw new Error(`${where(this.w, this.run)}: ${said.is} was not taken`);
    this.run = told.run;
    this.events.push(told.entry.event);
    this.facts.push(...told.entry.facts);
    sound(this.packed, this.run, () => where(this.w, this.run));
  }

  /** One segment by the clock. */
  pass(): void {
    const { seconds } = segmentOf(this.packed, this.run);
    this.now += seconds * 1000;
    this.say({ is: 'passed', heldMs: seconds * 1000, whole: true });
  }

  answerWell(): void {
    const gate = this.packed.gate(this.run.asking!)!;
    this.say({ is: 'gate', gate: gate.id, answers: well(gate) });
  }
}

export const well = (gate: Gate): Record<string, number> =>
  Object.fromEntries(gate.checks.map((c) => [c.key, c.atLeast ?? (c.atMost != null ? 0 : 1)]));
