import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { kindName, placeOf, testKinds } from './testKinds';

const ladder = {
  stages: [
    { number: 1, name: 'Prepare', work: '', tests: [{ kind: 'exposure', sessions: 4, days: 5 }] },
    { number: 2, name: 'Lines', work: '', tests: [{ kind: 'form', items: [] }] },
  ],
} as unknown as Schemas['Ladder'];

describe('where in a ladder a problem lies', () => {
  it('is the stage and the kind of test', () => {
    expect(placeOf(ladder, 'stages[1].tests[0].items')).toBe('Stage 2 Lines, form');
    expect(placeOf(ladder, 'stages[0].tests[0].days')).toBe('Stage 1 Prepare, sessions');
    expect(placeOf(ladder, 'stages[0].trainsAs')).toBe('Stage 1 Prepare');
  });

  it('is the ladder when it lies in no stage, or in one that is gone', () => {
    expect(placeOf(ladder, 'name')).toBe('Name');
    expect(placeOf(ladder, 'everyGate')).toBe('The ladder');
    expect(placeOf(ladder, 'stages[7].name')).toBe('The ladder');
  });
});

describe('the kinds of test', () => {
  it('each have a name of their own, and the two that every gate has are named too', () => {
    expect(new Set(testKinds.map((k) => k.name)).size).toBe(testKinds.length);
    expect(kindName('pain')).toBe('Pain');
    expect(kindName('clear')).toBe('Cautions');
  });
});
