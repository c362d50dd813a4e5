import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { chosen, fromDay, number, withUnit } from '$lib/parts/format';
import { tagName } from '$lib/students/tags';

type Test = Schemas['TestVerdict'];

const variantName = (drill: string, variant: string | null | undefined): string =>
  variant ? `, ${catalogue.variant(drill, variant).toLowerCase()}` : '';

const levelName = (measure: string, level: string | null | undefined): string => {
  const found = level ? catalogue.measure(measure).levels.find((l) => l.key === level) : undefined;
  return found ? `, ${found.name.toLowerCase()}` : '';
};

export function unitOf(test: Schemas['ReadinessTest']): string {
  switch (test.kind) {
    case 'rom':
      return catalogue.measure(test.measure).unit;
    case 'symmetry':
      return test.measure ? catalogue.measure(test.measure).unit : 's';
    case 'hold':
      return 's';
    default:
      return '';
  }
}

export function testName(test: Schemas['ReadinessTest']): string {
  switch (test.kind) {
    case 'rom':
      return test.straddleAngle
        ? 'Straddle angle'
        : catalogue.measure(test.measure).name + levelName(test.measure, test.level);
    case 'symmetry':
      return `${
        test.measure
          ? catalogue.measure(test.measure).name + levelName(test.measure, test.level)
          : catalogue.drill(test.drill!).name
      }, left against right`;
    case 'hold':
      return test.measure
        ? catalogue.measure(test.measure).name + levelName(test.measure, test.level)
        : catalogue.drill(test.drill!).name + variantName(test.drill!, test.variant);
    case 'reps':
      return catalogue.drill(test.drill).name + variantName(test.drill, test.variant);
    case 'rate':
      return catalogue.measure(test.measure).name + levelName(test.measure, test.level);
    case 'exposure':
      return 'Sessions at this stage';
    case 'pain':
      return 'Free of pain';
    case 'form':
      return 'Form';
    case 'exit':
      return `Way out: ${test.name.toLowerCase()}${test.or ? ` or ${test.or.name.toLowerCase()}` : ''}`;
    default:
      return 'Nothing bars it';
  }
}

/** What the test asks for. */
export function asks(test: Schemas['ReadinessTest']): string {
  switch (test.kind) {
    case 'rom':
      return `${test.comparison === 'atLeast' ? '≥' : '≤'} ${chosen(test.threshold, test.straddleAngle ? '°' : unitOf(test))}${
        test.adaptation ? `, or ${test.adaptation.name.toLowerCase()}` : ''
      }`;
    case 'symmetry':
      return `≤ ${chosen(test.atMost, unitOf(test))} apart`;
    case 'hold':
      return `2 × ${test.seconds ? `${test.seconds} s` : `${test.breaths} breaths`}${test.twoDays ? ' on two days' : ''}${
        test.quality ? `, quality ${test.quality} or more` : ''
      }${test.breathFree ? ', breath free' : ''}${
        test.orDrill ? `, or in ${catalogue.drill(test.orDrill).name.toLowerCase()}` : ''
      }`;
    case 'reps':
      return `${test.reps} clean${test.tempo ? `, ${test.tempo}` : ''}`;
    case 'rate':
      return `${test.successes} of ${test.of}, on two days`;
    case 'exposure':
      return `${test.sessions} over ${test.days} days`;
    case 'pain':
      return `≤ ${test.atMost} of 10, last ${test.sessions} sessions`;
    case 'form':
      return test.items.map((i) => i.name.toLowerCase()).join(', ');
    case 'exit':
      return `${test.times} of ${test.times}`;
    default:
      return '';
  }
}

/** What a coach can write down on the spot: not what the bench reads, and nothing that is barred. */
export const onTheSpot = (t: Test): boolean =>
  t.outcome !== 'met' &&
  t.next.code !== 'liftBar' &&
  (t.test.kind === 'reps' ||
    t.test.kind === 'form' ||
    t.test.kind === 'exit' ||
    (t.test.kind === 'hold' && !!t.test.drill) ||
    (t.test.kind === 'rom' && !!t.test.adaptation));

/** The value, short. */
export function shown(test: Test): string {
  switch (test.test.kind) {
    case 'exposure':
      return `${test.count ?? 0}`;
    case 'form':
    case 'exit':
      return test.count == null || test.outcome === 'noData' ? '–' : `${test.count} of ${test.needed}`;
    case 'rate':
      return test.value == null ? '–' : `${number(test.value, 0)} of ${test.count}`;
    case 'clear':
      return '';
    case 'pain':
    case 'hold':
    case 'reps':
      return test.value == null ? '–' : number(test.value, 0);
    default:
      return test.value == null ? '–' : number(test.value, 1);
  }
}

const percent = (share: number): string => `${number(share * 100, 0)} %`;

/** What the outcome is, in a few words; where less is asked of someone very mobile, that too. */
export const status = (test: Test): string =>
  test.adapted
    ? `${outcomeOf(test)}; adapted to ${number(test.threshold ?? 0, 0)} s, short passive holds only`
    : outcomeOf(test);

function outcomeOf(test: Test): string {
  const unit = unitOf(test.test);
  const amount =
    test.margin == null ? '' : withUnit(Math.abs(test.margin), unit, test.test.kind === 'hold' ? 0 : 1);
  const way = (test.margin ?? 0) >= 0 ? 'past the line' : 'short';
  const onLine = Math.abs(test.margin ?? 1) < 0.05;
  switch (test.reason) {
    case 'clearPass':
      return `met, ${amount} past the line`;
    case 'confirmedPass':
      return `met on two days, ${amount} past the line`;
    case 'withinNoise':
      return onLine ? 'on the line, within noise' : `${amount} ${way}, within noise`;
    case 'tooFewTrials':
      return test.test.kind === 'symmetry' ? 'three trials a side are needed' : 'three trials are needed';
    case 'shortOfThreshold':
      return `${amount} short`;
    case 'noReadings':
      return 'not read yet';
    case 'olderThanShelfLife':
      return 'too old to count';
    case 'heldTwice':
      return 'met, 2 of 2';
    case 'heldOnTwoDays':
      return 'met on two days';
    case 'legsNotMeasured':
      return 'the legs are not measured yet';
    case 'adaptationRecorded':
      return `met: ${test.test.kind === 'rom' ? (test.test.adaptation?.name.toLowerCase() ?? '') : ''}`;
    case 'noAttempts':
      return 'not counted yet';
    case 'rateReached':
      return `met${interval(test)}`;
    case 'rateShort':
      return `short of ${asks(test.test)}${interval(test)}`;
    case 'tooFewAttempts':
      return `${test.count} of ${test.needed} attempts${interval(test)}`;
    case 'countedOnOneDay':
      return `all on one day${interval(test)}`;
    case 'exitNotShown':
      return 'not shown yet';
    case 'exitShown':
      return 'met';
    case 'exitIncomplete':
      return `${test.count} safe in a row, of ${test.needed}`;
    case 'heldOnce':
      return '1 of 2 holds';
    case 'heldOnOneDay':
      return '1 of 2 days';
    case 'heldShorter':
      return `${amount} short`;
    case 'noHolds':
      // Decisions of before say so of bars, too.
      return test.test.kind === 'clear' ? 'met' : 'not held yet';
    case 'noBars':
      return 'met';
    case 'repsClean':
      return 'met';
    case 'repsShort':
      return `${number(Math.abs(test.margin ?? 0), 0)} short`;
    case 'noReps':
      return 'not counted yet';
    case 'enoughSessions':
      return `met, over ${test.days} days`;
    case 'tooFewSessions':
      return test.test.kind === 'exposure'
        ? `${test.count} of ${test.needed} sessions`
        : `${test.count} of ${test.needed} sessions logged`;
    case 'tooFewDays':
      return `over ${test.days} days so far`;
    case 'painFree':
      return 'met';
    case 'painInRegion':
      return 'pain in a region of this ladder';
    case 'formShown':
      return 'met';
    case 'formIncomplete':
      return `${test.count} of ${test.needed} ticked`;
    case 'notShown':
      return 'not shown yet';
    case 'tagOffLimits':
      return `off limits: ${(test.offLimits ?? []).map(tagName).join(', ')}`;
    case 'sidesMatch':
      return 'met';
    case 'sidesDiffer':
      return `${amount} too far apart`;
    default:
      return '';
  }
}

const interval = (test: Test): string =>
  test.rate ? `; 95 % between ${percent(test.rate.lower95)} and ${percent(test.rate.upper95)}` : '';

/** What to do about a test, as one instruction; empty when nothing. */
export function nextText(test: Test): string {
  const step = test.next;
  const name = testName(test.test).toLowerCase();
  const side = step.side ? `the ${step.side} ` : '';
  const from = step.notBefore ? ` ${fromDay(step.notBefore)}` : '';
  const noise =
    test.noise == null || test.outcome === 'stale'
      ? ''
      : `, noise ${withUnit(test.noise, unitOf(test.test))}`;
  switch (step.code) {
    case 'takeReading':
      return `Read ${side}${name}, warm, three trials.`;
    case 'retest':
      return `Re-test ${side}${name}${from}, warm: ${status(test)}${noise}.`;
    case 'moreTrials':
      return `Read ${side}${name} again with three trials, warm.`;
    case 'keepTraining':
      return `Keep training: ${side}${name} is ${status(test)}.`;
    case 'logSessions':
      return `Log ${step.count} more ${step.count === 1 ? 'session' : 'sessions'}.`;
    case 'recordHold':
      return `Hold ${side}${name.replace(/ hold(?=,|$)/, '')}${from}: ${step.count ? `${step.count} more of ` : ''}${asks(test.test).replace('2 × ', '')}.`;
    case 'recordReps':
      return `Count ${side}${name}: ${asks(test.test)}.`;
    case 'countAttempts':
      return `Count ${step.count ? `${step.count} more attempts at ` : ''}${side}${name}${from}: ${status(test)}.`;
    case 'tickForm':
      return `Watch the form${step.side ? ` on the ${step.side}` : ''} and tick what you see.`;
    case 'showExit':
      return `Watch the way out${step.side ? ` to the ${step.side}` : ''}: ${step.count} safe ${step.count === 1 ? 'time' : 'times'}.`;
    case 'measureLegs':
      return 'Measure both legs: the straddle angle is judged with them.';
    case 'trainPainFree':
      return `Two sessions free of pain come first.`;
    case 'liftBar':
      return `Lift the bar first: see the cautions.`;
    default:
      return '';
  }
}
