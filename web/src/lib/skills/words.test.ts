import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { whyTitle } from './gateWords';
import { asks, nextText, shown, status, testName } from './words';

beforeAll(() => {
  catalogue.content = {
    measures: [
      { key: 'front-split-gap', name: 'Front split gap', unit: 'cm' },
      {
        key: 'kick-up-success',
        name: 'Kick-up entries',
        unit: '',
        levels: [{ key: 'wall', name: 'Wall behind' }],
      },
    ],
    drills: [
      { key: 'split-support', name: 'Supported split', variants: [{ key: 'high-only', name: 'High only' }] },
    ],
    ladders: [],
    questions: [],
    approaches: [],
  } as unknown as Schemas['CatalogueResponse'];
});

const rom = (more: Partial<Schemas['TestVerdict']>): Schemas['TestVerdict'] => ({
  test: {
    kind: 'rom',
    measure: 'front-split-gap',
    comparison: 'atMost',
    threshold: 35,
    limb: 'thisSide',
    warmth: 'warm',
    minTrials: 3,
    straddleAngle: false,
  },
  outcome: 'borderline',
  reason: 'withinNoise',
  next: { code: 'retest', side: 'left', notBefore: '2031-03-06' },
  value: 36.1,
  threshold: 35,
  margin: -1.1,
  noise: 1.2,
  adapted: false,
  ...more,
});

describe('a test in words', () => {
  it('says where less is asked of someone very mobile', () => {
    const hold = { ...rom({}), reason: 'heldTwice', threshold: 40, adapted: true };
    expect(status(hold)).toBe('met, 2 of 2; adapted to 40 s, short passive holds only');
  });

  it('names what is asked, in the measure’s unit', () => {
    expect([testName(rom({}).test), asks(rom({}).test), shown(rom({}))]).toEqual([
      'Front split gap',
      '≤ 35 cm',
      '36.1',
    ]);
  });

  it('says what to do next, from when, and how far the noise reaches', () => {
    expect(nextText(rom({}))).toBe(
      'Re-test the left front split gap on or after Thu 6 Mar, warm: 1.1 cm short, within noise, noise 1.2 cm.',
    );
  });

  it('says on the line rather than nothing past it', () => {
    expect(status(rom({ margin: 0.01 }))).toBe('on the line, within noise');
  });

  it('does not speak of noise when the reading is too old', () => {
    expect(nextText(rom({ outcome: 'stale', reason: 'olderThanShelfLife' }))).not.toContain('noise');
  });

  it('counts holds and sessions', () => {
    const hold = rom({
      test: {
        kind: 'hold',
        drill: 'split-support',
        variant: 'high-only',
        seconds: 30,
        quality: null,
        twoDays: false,
        breathFree: false,
        shelfDays: 21,
      },
      reason: 'heldOnce',
      next: { code: 'recordHold', side: 'left', count: 1 },
      value: 31,
    });
    expect([asks(hold.test), shown(hold), status(hold)]).toEqual(['2 × 30 s', '31', '1 of 2 holds']);
    expect(nextText(hold)).toBe('Hold the left supported split, high only: 1 more of 30 s.');
    const exposure = rom({
      test: { kind: 'exposure', sessions: 4, days: 5 },
      reason: 'tooFewSessions',
      next: { code: 'logSessions', side: 'left', count: 1 },
      count: 3,
      needed: 4,
    });
    expect([status(exposure), nextText(exposure)]).toEqual(['3 of 4 sessions', 'Log 1 more session.']);
  });

  it('shows a rate with its interval, and both as one without a side', () => {
    const rate = rom({
      test: {
        kind: 'rate',
        measure: 'kick-up-success',
        level: 'wall',
        successes: 10,
        of: 20,
        limb: 'betterSide',
        shelfDays: 21,
      },
      reason: 'rateShort',
      value: 7,
      count: 20,
      rate: { share: 0.35, lower95: 0.181, upper95: 0.567 },
      next: { code: 'countAttempts', side: 'right' },
    });
    expect([testName(rate.test), asks(rate.test), shown(rate)]).toEqual([
      'Kick-up entries, wall behind',
      '10 of 20, on two days',
      '7 of 20',
    ]);
    expect(status(rate)).toBe('short of 10 of 20, on two days; 95 % between 18 % and 57 %');
    expect(whyTitle(null, 'open')).toBe('Why the gate is open');
    expect(whyTitle('left', 'blocked')).toBe('Why the left gate is barred');
  });

  it('says what is missing of a way out and of the legs', () => {
    const exit = rom({
      test: { kind: 'exit', name: 'Step back', drill: 'crow-step-back', times: 5, shelfDays: 42 },
      reason: 'exitIncomplete',
      count: 3,
      needed: 5,
      next: { code: 'showExit', count: 2 },
    });
    expect([testName(exit.test), status(exit), nextText(exit)]).toEqual([
      'Way out: step back',
      '3 safe in a row, of 5',
      'Watch the way out: 2 safe times.',
    ]);
    const either = { ...exit.test, or: { name: 'Step-down', drill: 'exit-step' } };
    expect(testName(either as Schemas['ReadinessTest'])).toBe('Way out: step back or step-down');
    expect(nextText(rom({ reason: 'legsNotMeasured', next: { code: 'measureLegs' } }))).toContain('legs');
  });
});
