import { beforeAll, describe, expect, it } from 'vitest';
import type { Refusal, Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { untestedText } from './ahead';
import { atStep, blockText, isOfPage, reasonText } from './words';

beforeAll(() => {
  catalogue.content = {
    ladders: [{ key: 'crow', name: 'Crow' }],
    measures: [],
    drills: [],
  } as unknown as Schemas['CatalogueResponse'];
});

const reason = (kind: Schemas['DayReasonKind'], more: Partial<Schemas['DayReason']> = {}) =>
  ({ kind, skill: 'crow', ...more }) as Schemas['DayReason'];

describe('why a session is as it is', () => {
  it('says what it gives, and which of the week it is', () => {
    expect(reasonText(reason('exposure', { number: 2, of: 3 }))).toBe('Exposure 2 of 3 of Crow this week.');
    expect(reasonText(reason('exposure', { number: 1, of: 1 }))).toBe('The one exposure of Crow this week.');
    expect(reasonText(reason('tested', { number: 6 }))).toContain('6 min to measure');
    expect(reasonText(reason('tested', { number: 0 }))).not.toContain('measure');
  });

  it('says what holds it down, with the day, the place and the figure', () => {
    expect(
      reasonText(reason('spacing', { day: '2026-12-15', tag: 'hamstring', limb: 'left', number: 2 })),
    ).toMatch(/^No more of Crow: hamstring, left needs 2 days between, and .*15.* loads it heavily\.$/i);
    expect(reasonText(reason('largestWeek', { tag: 'wrist', of: 236.4 }))).toContain(
      '236 bodyweight-seconds at most',
    );
    expect(reasonText(reason('weekLoad', { tag: 'wrist', of: 420 }))).toContain('420 bodyweight-seconds');
    expect(reasonText(reason('weekLoad', { tag: 'hamstring', of: 9.5 }))).toContain('9.5 heavy minutes');
    expect(reasonText(reason('nearCeiling', { tag: 'hamstring', number: 8, of: 9 }))).toContain('8.0 of 9.0');
    expect(reasonText(reason('neckDays', { number: 3, of: 7 }))).toContain('3 days of 7');
  });

  it('has a sentence for every kind', () => {
    const all = {
      day: '2026-12-15',
      tag: 'wrist',
      number: 1,
      of: 2,
      theme: 'hips',
      code: 'tooSoon',
    } as const;
    const kinds: Schemas['DayReasonKind'][] = [
      'backOff',
      'theme',
      'lightDay',
      'fresh',
      'wristDays',
      'hardDays',
      'enough',
      'others',
      'noMore',
      'pinned',
      'byHand',
      'bent',
    ];
    const said = kinds.map((kind) => reasonText(reason(kind, all)));
    expect(new Set(said).size).toBe(kinds.length);
    for (const text of said) expect(text).toMatch(/^[A-Z](?!.*(undefined|null|NaN)).*[.a-z]$/i);
  });

  it('says what a test would take where no session is long enough', () => {
    expect(untestedText({ skill: 'crow', weeks: [2, 4], tooShort: 30 })).toContain('30 min');
    expect(untestedText({ skill: 'crow', weeks: [2], tooShort: null })).toContain('in week 2:');
  });
});

describe('what a block is', () => {
  const block = (level: number, kind: Schemas['BlockAim'] = 'train') =>
    ({ skill: 'crow', kind, level }) as Schemas['StoredBlock'];

  it('says of every level that the core plans what it is', () => {
    for (const level of [100, 90, 80, 60]) expect(blockText(block(level))).not.toBe('');
    expect(blockText(block(90))).toContain('a part of the week’s load');
    expect(blockText(block(60, 'light'))).toBe('lightly');
    expect([100, 90, 80, 60].map((level) => atStep(block(level)))).toEqual([true, true, false, false]);
  });
});

describe('what was refused', () => {
  const refused = (...fields: string[]) =>
    ({
      status: 400,
      code: 'invalid',
      problems: fields.map((field) => ({ field, code: 'outOfRange' })),
    }) as unknown as Refusal;

  it('is of the page where no field of the form is named', () => {
    expect(isOfPage(refused())).toBe(true);
    expect(isOfPage(refused('locks'))).toBe(true);
    expect(isOfPage(refused('edit.to'))).toBe(true);
    expect(isOfPage(refused('sketch.days[0].minutes'))).toBe(false);
    expect(isOfPage(refused('', 'sketch.start'))).toBe(false);
  });
});
