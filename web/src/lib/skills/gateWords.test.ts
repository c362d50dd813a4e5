import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { decisionName, groupName, plateauText, stateName, stepBackText, whyTitle } from './gateWords';
import { nextText, status } from './words';

beforeAll(() => {
  catalogue.content = {
    measures: [
      { key: 'front-split-gap', name: 'Front split gap', unit: 'cm', levels: [] },
      { key: 'kick-up-success', name: 'Kick-up entries', unit: '', levels: [] },
      {
        key: 'side-plank-hold',
        name: 'Side plank hold',
        unit: 's',
        levels: [{ key: 'stacked', name: 'Stacked' }],
      },
    ],
    drills: [
      { key: 'split-slide', name: 'Slide in and out', variants: [{ key: 'sliders', name: 'Sliders' }] },
    ],
    ladders: [],
    questions: [],
    approaches: [],
  } as unknown as Schemas['CatalogueResponse'];
});

const tests = {
  hold: { kind: 'hold', measure: 'side-plank-hold', level: 'stacked', seconds: 20, limb: 'thisSide' },
  reps: { kind: 'reps', drill: 'split-slide', variant: 'sliders', reps: 3 },
  rate: { kind: 'rate', measure: 'kick-up-success', successes: 14, of: 20 },
  exposure: { kind: 'exposure', sessions: 4, days: 5 },
  pain: { kind: 'pain', atMost: 3, sessions: 2 },
  form: { kind: 'form', items: [{ key: 'a', name: 'Chest lifted' }] },
  exit: { kind: 'exit', name: 'Step back', drill: 'exit-step', times: 5 },
  clear: { kind: 'clear' },
  symmetry: { kind: 'symmetry', measure: 'front-split-gap', atMost: 3 },
  rom: { kind: 'rom', measure: 'front-split-gap', comparison: 'atMost', threshold: 22 },
} as const;

const verdict = (
  kind: keyof typeof tests,
  more: Partial<Schemas['TestVerdict']>,
  next: Partial<Schemas['NextStep']> = {},
): Schemas['TestVerdict'] =>
  ({
    test: tests[kind],
    outcome: 'notMet',
    reason: '',
    ...more,
    next: { code: '', side: null, notBefore: null, count: null, ...next },
  }) as unknown as Schemas['TestVerdict'];

describe('what an outcome is, in a few words', () => {
  it.each([
    ['hold', 'heldTwice', {}, 'met, 2 of 2'],
    ['hold', 'heldOnTwoDays', {}, 'met on two days'],
    ['hold', 'heldOnce', {}, '1 of 2 holds'],
    ['hold', 'heldOnOneDay', {}, '1 of 2 days'],
    ['hold', 'heldShorter', { margin: -4 }, '4 s short'],
    ['hold', 'noHolds', {}, 'not held yet'],
    ['clear', 'noBars', {}, 'met'],
    ['clear', 'tagOffLimits', { offLimits: ['neck', 'fall-risk'] }, 'off limits: neck, risk of falling'],
    ['reps', 'repsClean', {}, 'met'],
    ['reps', 'repsShort', { margin: -2 }, '2 short'],
    ['reps', 'noReps', {}, 'not counted yet'],
    ['rate', 'noAttempts', {}, 'not counted yet'],
    ['rate', 'countedOnOneDay', {}, 'all on one day'],
    ['rate', 'tooFewAttempts', { count: 12, needed: 20 }, '12 of 20 attempts'],
    ['exposure', 'enoughSessions', { days: 9 }, 'met, over 9 days'],
    ['exposure', 'tooFewSessions', { count: 2, needed: 4 }, '2 of 4 sessions'],
    ['exposure', 'tooFewDays', { days: 3 }, 'over 3 days so far'],
    ['pain', 'tooFewSessions', { count: 1, needed: 2 }, '1 of 2 sessions logged'],
    ['pain', 'painFree', {}, 'met'],
    ['pain', 'painInRegion', {}, 'pain in a region of this ladder'],
    ['form', 'formShown', {}, 'met'],
    ['form', 'formIncomplete', { count: 2, needed: 3 }, '2 of 3 ticked'],
    ['form', 'notShown', {}, 'not shown yet'],
    ['exit', 'exitNotShown', {}, 'not shown yet'],
    ['exit', 'exitShown', {}, 'met'],
    ['exit', 'exitIncomplete', { count: 3, needed: 5 }, '3 safe in a row, of 5'],
    ['symmetry', 'sidesMatch', {}, 'met'],
    ['symmetry', 'sidesDiffer', { margin: -1.5 }, '1.5 cm too far apart'],
    ['symmetry', 'tooFewTrials', {}, 'three trials a side are needed'],
    ['rom', 'tooFewTrials', {}, 'three trials are needed'],
    ['rom', 'clearPass', { margin: 2.3 }, 'met, 2.3 cm past the line'],
    ['rom', 'confirmedPass', { margin: 0.4 }, 'met on two days, 0.4 cm past the line'],
    ['rom', 'shortOfThreshold', { margin: -3.6 }, '3.6 cm short'],
    ['rom', 'noReadings', {}, 'not read yet'],
    ['rom', 'olderThanShelfLife', {}, 'too old to count'],
    ['rom', 'legsNotMeasured', {}, 'the legs are not measured yet'],
  ] as const)('%s %s', (kind, reason, more, text) => {
    expect(status(verdict(kind, { reason, ...more } as Partial<Schemas['TestVerdict']>))).toBe(text);
  });

  it('shows the Wilson interval beside a rate', () => {
    const rate = { successes: 14, attempts: 20, share: 0.7, lower95: 0.481, upper95: 0.855 };
    expect(status(verdict('rate', { reason: 'rateReached', rate }))).toBe('met; 95 % between 48 % and 86 %');
    expect(status(verdict('rate', { reason: 'rateShort', rate }))).toBe(
      'short of 14 of 20, on two days; 95 % between 48 % and 86 %',
    );
  });
});

describe('what to do next', () => {
  it.each([
    [
      'hold',
      { code: 'recordHold', side: 'left', count: 2 },
      'Hold the left side plank, stacked: 2 more of 20 s.',
    ],
    ['reps', { code: 'recordReps', side: 'right' }, 'Count the right slide in and out, sliders: 3 clean.'],
    ['exposure', { code: 'logSessions', count: 1 }, 'Log 1 more session.'],
    ['exposure', { code: 'logSessions', count: 3 }, 'Log 3 more sessions.'],
    ['form', { code: 'tickForm' }, 'Watch the form and tick what you see.'],
    ['exit', { code: 'showExit', side: 'left', count: 1 }, 'Watch the way out to the left: 1 safe time.'],
    ['exit', { code: 'showExit', count: 5 }, 'Watch the way out: 5 safe times.'],
    ['pain', { code: 'trainPainFree', count: 2 }, 'Two sessions free of pain come first.'],
    ['clear', { code: 'liftBar' }, 'Lift the bar first: see the cautions.'],
    ['rom', { code: 'takeReading', side: 'left' }, 'Read the left front split gap, warm, three trials.'],
    ['rom', { code: 'moreTrials' }, 'Read front split gap again with three trials, warm.'],
    ['rom', { code: 'measureLegs' }, 'Measure both legs: the straddle angle is judged with them.'],
    ['rom', { code: 'nothing' }, ''],
  ] as const)('%s %o', (kind, next, text) => {
    expect(nextText(verdict(kind, {}, next as Partial<Schemas['NextStep']>))).toBe(text);
  });

  it('names the shortfall that training is for', () => {
    const short = verdict(
      'rom',
      { reason: 'shortOfThreshold', margin: -3.6 },
      { code: 'keepTraining', side: 'right' },
    );
    expect(nextText(short)).toBe('Keep training: the right front split gap is 3.6 cm short.');
  });
});

describe('a gate in words', () => {
  it('has a name for each state, group and decision', () => {
    expect((['open', 'retest', 'closed', 'waiting', 'blocked', 'owned'] as const).map(stateName)).toEqual([
      'ready',
      're-test',
      'keep training',
      'waiting',
      'barred',
      'owned',
    ]);
    expect(groupName('blocked')).toBe('Barred');
    expect([decisionName('override'), decisionName('move')]).toEqual([
      'Advanced by override',
      'Moved to another version',
    ]);
  });

  it('asks why in the title, of a side or of the whole', () => {
    expect(whyTitle('left', 'retest')).toBe('Why the left gate says re-test');
    expect(whyTitle(null, 'blocked')).toBe('Why the gate is barred');
    expect(whyTitle('right', 'waiting')).toBe('Why right is waiting');
    expect(whyTitle(null, 'owned')).toBe('The skill is owned');
  });

  it('says of a plateau how long, how little and how noisy', () => {
    expect(
      plateauText({
        measure: 'front-split-gap',
        side: 'right',
        days: 35,
        tests: 4,
        change: -0.2,
        mdc95: 1.6,
      }),
    ).toBe(
      'Front split gap, right has not moved for 35 days: 0.2 cm over 4 tests, noise 1.6 cm. Change something.',
    );
  });

  it.each([
    [{ code: 'painEvents', number: 2, region: 'wrist' }, '2 pain events within 14 days: wrist.'],
    [
      { code: 'rangeLost', number: 3.2, measure: 'front-split-gap', side: 'left' },
      'Front split gap, left, has dropped 3.2 cm below what opened this stage, on two tests.',
    ],
    [{ code: 'longBreak', number: 31 }, '31 days since the last session.'],
  ])('suggests a step back: %o', (reason, text) => {
    expect(stepBackText(reason as Schemas['StepBackReason'])).toBe(text);
  });
});
