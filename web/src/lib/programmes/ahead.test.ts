import { beforeAll, describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { changeText, gateText, roomText, rulesText, targetText, whyShort } from './ahead';

beforeAll(() => {
  catalogue.content = {
    ladders: [
      { key: 'crow', name: 'Crow' },
      { key: 'front-split', name: 'Front split' },
    ],
    measures: [{ key: 'front-split-gap', name: 'Front split gap' }],
    drills: [],
  } as unknown as Schemas['CatalogueResponse'];
});

const rule = (kind: Schemas['PieceRuleKind'], more: Partial<Schemas['PieceRule']> = {}) =>
  ({ kind, ...more }) as Schemas['PieceRule'];
const gate = (more: Partial<Schemas['ExpectedGate']>) =>
  ({ skill: 'crow', side: null, stage: 2, ...more }) as Schemas['ExpectedGate'];

describe('what stands in the way', () => {
  it('says each rule once, and sessions without time together', () => {
    const said = rulesText([
      rule('weekLoad', { week: 3, tag: 'wrist', limb: 'left', number: 450 }),
      rule('time', { week: 3, day: '2026-12-14' }),
      rule('time', { week: 3, day: '2026-12-17' }),
      rule('spacing', { tag: 'hamstring', earlier: '2026-12-14', day: '2026-12-15' }),
    ]);
    expect(said[0]).toBe('the ceiling of week 3 for wrist, left, 450 bodyweight-seconds');
    expect(said[1]).toContain('needs clear days before');
    expect(said[2]).toMatch(/^no more time than .*14.*; .*17/);
    expect(said).toHaveLength(3);
  });

  it('names what was asked, and what leaves no room for it', () => {
    const plan = { weeks: [] } as unknown as Schemas['PlanView'];
    const goal = {
      skill: 'crow',
      fewer: 1,
      weeks: [3],
      never: false,
      why: [
        rule('exposures', { week: 3, skill: 'crow', number: 3 }),
        rule('exposures', { week: 3, skill: 'front-split', number: 2 }),
        rule('neckDays', { tag: 'neck', day: '2026-12-14', number: 3 }),
      ],
    } as Schemas['ShortGoal'];
    expect(whyShort(goal, plan)).toMatch(
      /^3 exposures of Crow in week 3 cannot be, together with: 2 exposures of Front split in week 3; the neck loaded on at most 3 days of seven/,
    );
    expect(whyShort({ ...goal, why: [goal.why[0]!] }, plan)).toBe(
      '3 exposures of Crow in week 3: no session may have its core then.',
    );
    expect(whyShort({ ...goal, never: true }, plan)).toBeUndefined();
  });
});

describe('gates and target days', () => {
  it.each([
    [
      { code: 'expected', earliest: '2026-12-14', latest: '2026-12-14', decides: 'front-split-gap' },
      /^from .*14.*, by front split gap$/,
    ],
    [
      { code: 'expected', earliest: '2026-12-14', latest: null, decides: null },
      /^not before .*, by the sessions that it asks for$/,
    ],
    [{ code: 'notAtThisSlope', decides: 'front-split-gap' }, /^not at this slope: front split gap/],
    [{ code: 'notEnoughPlanned' }, /^the plan ends/],
    [{ code: 'openNow' }, /yours to decide/],
  ])('%o', (more, text) => {
    expect(gateText(gate(more as Partial<Schemas['ExpectedGate']>))).toMatch(text);
  });

  it('says why a target day cannot be met', () => {
    const target = {
      skill: 'crow',
      target: '2026-12-20',
      code: 'tooManyGates',
      gates: 4,
      earliest: '2027-01-30',
    };
    expect(targetText(target as Schemas['TargetVerdict'])).toMatch(
      /^Crow by .* cannot be met: 4 gates are left, .*30 Jan/,
    );
    expect(targetText({ ...target, gates: 1 } as Schemas['TargetVerdict'])).toContain('1 gate is left');
  });
});

describe('what changes, and more room', () => {
  const block = (skill: string, kind = 'train', level = 100) =>
    ({ skill, kind, level, seconds: 900, exposes: true }) as Schemas['StoredBlock'];

  it('says what a session was, what it becomes, and why', () => {
    const change = {
      day: '2026-12-14',
      half: 'pm',
      kind: 'changed',
      was: [block('crow')],
      now: [block('crow', 'light', 60)],
      why: 'barred',
      skill: null,
    };
    expect(changeText(change as Schemas['DayDifference'])).toMatch(
      /Crow at this week’s step becomes Crow lightly, because something in it is off limits or light only by now\.$/,
    );
    expect(changeText({ ...change, why: 'stage', skill: 'crow' } as Schemas['DayDifference'])).toContain(
      'the stage of Crow changed',
    );
  });

  it('says how much more time would do, or that none would', () => {
    const room = {
      missing: 3,
      weeks: 4,
      would: [
        { weekday: null, minutes: 20, left: 1 },
        { weekday: 'friday', minutes: 45, left: 0 },
      ],
    };
    expect(roomText(room as Schemas['Room'])).toEqual([
      '20 minutes more in each session: 1 instead of 3 exposures are missing.',
      'A session of 45 min more, on Fridays: all of it fits.',
    ]);
    expect(roomText({ ...room, would: [] } as Schemas['Room'])[0]).toContain('load or rest, not time');
    expect(roomText({ ...room, missing: 0, would: [] } as Schemas['Room'])).toEqual([
      'All that is asked for fits.',
    ]);
  });
});
