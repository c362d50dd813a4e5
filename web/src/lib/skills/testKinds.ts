import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';

type Test = Schemas['ReadinessTest'];
type Kind = NonNullable<Test['kind']>;

/** The kinds of test that a coach can add to a stage. */
export const testKinds: { kind: Kind | 'drillHold'; name: string }[] = [
  { kind: 'rom', name: 'Range or line' },
  { kind: 'hold', name: 'Hold' },
  { kind: 'drillHold', name: 'Hold in a drill' },
  { kind: 'reps', name: 'Repetitions' },
  { kind: 'rate', name: 'Success rate' },
  { kind: 'symmetry', name: 'Left against right' },
  { kind: 'exposure', name: 'Sessions' },
  { kind: 'form', name: 'Form' },
  { kind: 'exit', name: 'Way out' },
];

export const kindName = (kind: Kind | undefined): string =>
  testKinds.find((k) => k.kind === kind)?.name ?? (kind === 'pain' ? 'Pain' : 'Cautions');

const firstMeasure = (kinds: Schemas['MeasureKind'][]): Schemas['Measure'] =>
  catalogue.content!.measures.find((m) => kinds.includes(m.kind))!;

const limbOf = (perSide: boolean, ladderPerSide: boolean) =>
  !perSide ? ('bilateral' as const) : ladderPerSide ? ('thisSide' as const) : ('eachSide' as const);

/** Where in a ladder a problem lies, in words: the stage and the kind of test. */
export function placeOf(ladder: Schemas['Ladder'], field: string): string {
  const found = /^stages\[(\d+)\](?:\.tests\[(\d+)\])?/.exec(field);
  const stage = found && ladder.stages[Number(found[1])];
  if (!stage) return field === 'name' ? 'Name' : 'The ladder';
  const test = found[2] === undefined ? undefined : stage.tests[Number(found[2])];
  return `Stage ${stage.number} ${stage.name}${test ? `, ${kindName(test.kind).toLowerCase()}` : ''}`;
}

/** A test of a kind to start from; the coach changes what it asks. */
export function blankTest(kind: Kind | 'drillHold', ladder: Schemas['Ladder']): Test {
  switch (kind) {
    case 'hold': {
      const measure = firstMeasure(['hold']);
      return {
        kind,
        measure: measure.key,
        level: measure.levels[0]?.key ?? null,
        seconds: 30,
        twoDays: false,
        breathFree: false,
        shelfDays: 21,
        limb: limbOf(measure.perSide, ladder.perSide),
      };
    }
    case 'drillHold': {
      const drill = catalogue.content!.drills.find((d) => d.kind === 'end-range')!;
      return {
        kind: 'hold',
        drill: drill.key,
        variant: drill.variants[0]!.key,
        seconds: 30,
        twoDays: false,
        breathFree: false,
        shelfDays: 21,
        limb: ladder.perSide ? 'thisSide' : 'bilateral',
      };
    }
    case 'reps': {
      const drill = catalogue.content!.drills.find((d) => d.kind === 'strength')!;
      return {
        kind,
        drill: drill.key,
        variant: drill.variants[0]!.key,
        reps: 8,
        shelfDays: 21,
        limb: ladder.perSide ? 'thisSide' : 'bilateral',
      };
    }
    case 'rate':
      return {
        kind,
        measure: firstMeasure(['rate']).key,
        successes: 7,
        of: 10,
        shelfDays: 21,
        limb: ladder.perSide ? 'thisSide' : 'betterSide',
      };
    case 'symmetry':
      return {
        kind,
        measure: catalogue.content!.measures.find((m) => m.perSide && m.kind === 'range')!.key,
        atMost: 5,
        minTrials: 3,
        shelfDays: 21,
      };
    case 'exposure':
      return { kind, sessions: 4, days: 5 };
    case 'form':
      return { kind, items: [{ key: 'item-1', name: '' }], shelfDays: 42 };
    case 'exit': {
      // The skill's own first way out, where it has one; a coach names another.
      const own = catalogue
        .content!.ladders.find((l) => l.skill === ladder.skill)
        ?.stages.flatMap((s) => s.tests)
        .find((t) => t.kind === 'exit');
      return own && 'times' in own
        ? { ...own, or: own.or ? { ...own.or } : null }
        : {
            kind,
            name: 'Way out',
            drill: catalogue.content!.drills[0]!.key,
            times: 5,
            shelfDays: 42,
            limb: ladder.perSide ? 'thisSide' : 'bilateral',
          };
    }
    default: {
      const measure = firstMeasure(['range']);
      return {
        kind: 'rom',
        measure: measure.key,
        comparison: measure.better === 'down' ? 'atMost' : 'atLeast',
        threshold: Math.max(measure.min, 0),
        minTrials: 3,
        straddleAngle: false,
        limb: limbOf(measure.perSide, ladder.perSide),
      };
    }
  }
}
