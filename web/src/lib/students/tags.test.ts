import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { liftText, reasonText, places, tagName } from './tags';

beforeAll(() => {
  catalogue.content = {
    measures: [],
    drills: [],
    ladders: [],
    questions: [{ key: 'neck', label: 'Neck injury or arm tingling' }],
    approaches: [],
  } as unknown as Schemas['CatalogueResponse'];
});

const reason = (more: Partial<Schemas['BarReason']>): Schemas['BarReason'] =>
  ({
    tag: 'neck',
    level: 'offLimits',
    code: 'intake',
    liftedBy: 'clearance',
    question: null,
    signal: null,
    since: null,
    clearedUntil: null,
    lapsedOn: null,
    clearedBefore: false,
    ...more,
  }) as Schemas['BarReason'];

describe('why a tag is barred', () => {
  it.each([
    [{ question: 'neck' }, 'Neck injury or arm tingling'],
    [{ code: 'painEvents' }, 'Two pain events within 14 days'],
    [
      { code: 'painEvents', since: '2031-03-06T10:00:00Z' },
      'Two pain events within 14 days, the last on Thu 6 Mar',
    ],
    [{ code: 'stopRule', signal: 'numbness' }, 'In a session: numbness or tingling'],
    [{ code: 'guardianConsent' }, 'Under 18, and no guardian’s consent on record'],
    [{ code: 'screenDue' }, 'The intake screen is six months old'],
    [{ code: 'somethingChanged' }, 'Something changed since the intake screen'],
    [{ code: 'notScreened' }, 'The intake screen is not answered yet'],
  ])('%o', (more, text) => {
    expect(reasonText(reason(more as Partial<Schemas['BarReason']>))).toBe(text);
  });
});

describe('what lifts it', () => {
  it.each([
    [{}, 'a licensed clinician’s clearance lifts it'],
    [{ liftedBy: 'review' }, 'a coach’s review lifts it, after two pain-free sessions'],
    [{ liftedBy: 'guardianConsent' }, 'a guardian’s consent lifts it'],
    [{ liftedBy: 'screen' }, 'going through the screen lifts it'],
    [{ clearedUntil: '2031-03-06' }, 'lifted by a clearance until 6 March 2031'],
    [
      { lapsedOn: '2031-03-06' },
      'a clearance lapsed on 6 March 2031 and the bar is back; a new clearance lifts it',
    ],
    [
      { lapsedOn: '2031-03-06', level: 'lightOnly' },
      'a clearance lapsed on 6 March 2031 and the bar is back; a new clearance lifts it',
    ],
    [
      { clearedBefore: true, lapsedOn: '2031-03-06' },
      'the clearance is older than this and says nothing about it; one recorded from now on lifts it',
    ],
  ])('%o', (more, text) => {
    expect(liftText(reason(more as Partial<Schemas['BarReason']>))).toBe(text);
  });
});

describe('load tags', () => {
  it('are named in plain words, and pain is logged on places of the body alone', () => {
    expect([tagName('hip-front'), tagName('fall-risk')]).toEqual(['front of the hip', 'risk of falling']);
    expect(places).toHaveLength(12);
    expect(places).not.toContain('inverted');
  });
});
