import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { chosen, fromDay, number, withUnit } from '$lib/parts/format';
import { tagName } from '$lib/students/tags';

type Test = Schemas['TestVerdict'];

export const sideName = (side: Schemas['Side']): string => side;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export function unitOf(test: Schemas['ReadinessTest']): string {
  switch (test.kind) {
    case 'rom':
    case 'symmetry':
      return catalogue.measure(test.measure).unit;
    case 'hold':
      return 's';
    default:
      return '';
  }
}

export function testName(test: Schemas['ReadinessTest']): string {
  switch (test.kind) {
    case 'rom':
      return catalogue.measure(test.measure).name;
    case 'symmetry':
      return `${catalogue.measure(test.measure).name}, left against right`;
    case 'hold':
      return `${catalogue.drill(test.drill).name}, ${catalogue.variant(test.drill, test.variant).toLowerCase()}`;
    case 'reps':
      return catalogue.drill(test.drill).name;
    case 'exposure':
      return 'Sessions at this stage';
    case 'pain':
      return 'Free of pain';
    case 'form':
      return 'Form';
    default:
      return 'No caution holds it';
  }
}

/** What the test asks for. */
export function asks(test: Schemas['ReadinessTest']): string {
  switch (test.kind) {
    case 'rom':
      return `${test.comparison === 'atLeast' ? '≥' : '≤'} ${chosen(test.threshold, unitOf(test))}`;
    case 'symmetry':
      return `≤ ${chosen(test.atMost, unitOf(test))} apart`;
    case 'hold':
      return `2 × ${test.seconds} s${test.quality ? `, quality ${test.quality} or more` : ''}`;
    case 'reps':
      return `${test.reps} clean`;
    case 'exposure':
      return `${test.sessions} over ${test.days} days`;
    case 'pain':
      return `≤ ${test.atMost} of 10, last ${test.sessions} sessions`;
    case 'form':
      return test.items.map((i) => i.name.toLowerCase()).join(', ');
    default:
      return '';
  }
}

/** The value, short. */
export function shown(test: Test): string {
  switch (test.test.kind) {
    case 'exposure':
      return `${test.count ?? 0}`;
    case 'form':
      return test.count == null || test.outcome === 'noData' ? '–' : `${test.count} of ${test.needed}`;
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

/** What the outcome is, in a few words. */
export function status(test: Test): string {
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
    case 'heldOnce':
      return '1 of 2 holds';
    case 'heldOnOneDay':
      return '1 of 2 days';
    case 'heldShorter':
      return `${amount} short`;
    case 'noHolds':
      return test.test.kind === 'clear' ? 'met' : 'not held yet';
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
    case 'tagHeld':
      return `held: ${(test.heldTags ?? []).map(tagName).join(', ')}`;
    case 'sidesMatch':
      return 'met';
    case 'sidesDiffer':
      return `${amount} too far apart`;
    default:
      return '';
  }
}

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
      return `Hold ${name} on ${side || 'this '}side: ${step.count} more of ${asks(test.test).replace('2 × ', '')}.`.replace(
        /the (left|right) side/,
        'the $1 side',
      );
    case 'recordReps':
      return `Count ${name} on ${side}side: ${asks(test.test)}.`;
    case 'tickForm':
      return `Watch the form on ${side}side and tick what you see.`;
    case 'trainPainFree':
      return `Two sessions free of pain come first.`;
    case 'resolveHold':
      return `Lift the hold first: see the cautions.`;
    default:
      return '';
  }
}

const states: Record<Schemas['GateState'], string> = {
  open: 'ready',
  retest: 're-test',
  closed: 'keep training',
  waiting: 'waiting',
  blocked: 'held',
  owned: 'owned',
};

export const stateName = (state: Schemas['GateState']): string => states[state];

/** The heading of the "why" panel. */
export function whyTitle(side: Schemas['Side'], state: Schemas['GateState']): string {
  switch (state) {
    case 'open':
      return `Why the ${side} gate is open`;
    case 'retest':
      return `Why the ${side} gate says re-test`;
    case 'waiting':
      return `Why ${side} is waiting`;
    case 'blocked':
      return `Why the ${side} gate is held`;
    case 'owned':
      return `${capital(side)} owns it`;
    default:
      return `Why the ${side} gate is closed`;
  }
}

export function stepBackText(reason: Schemas['StepBackReason']): string {
  switch (reason.code) {
    case 'painEvents':
      return `${number(reason.number, 0)} pain events within 14 days in a region of this stage.`;
    case 'rangeLost':
      return `${catalogue.measure(reason.measure!).name} has dropped ${withUnit(reason.number, catalogue.measure(reason.measure!).unit)} below what opened this stage, on two tests.`;
    default:
      return `${number(reason.number, 0)} days since the last session.`;
  }
}

const kinds: Record<Schemas['DecisionKind'], string> = {
  place: 'Placed',
  advance: 'Advanced',
  stay: 'Stayed',
  stepBack: 'Stepped back',
  override: 'Advanced by override',
};

export const decisionName = (kind: Schemas['DecisionKind']): string => kinds[kind];
