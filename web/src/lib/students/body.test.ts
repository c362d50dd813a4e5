import { describe, expect, it } from 'vitest';
import { blankBody, parseNumber, readBody, writeBody } from './body';

describe('the student form', () => {
  it('reads numbers with a point or a comma and keeps words as mistakes', () => {
    expect(parseNumber('86,5')).toBe(86.5);
    expect(parseNumber(' 86 ')).toBe(86);
    expect(parseNumber('−3')).toBe(-3);
    expect(parseNumber('')).toBeNull();
    expect(parseNumber('abc')).toBeNaN();
    expect(parseNumber('1e3')).toBeNaN();
  });

  it('names the field of a word in place of a number', () => {
    const { problems } = readBody({ ...blankBody, leftLegCm: 'abc', breathSeconds: '' });
    expect(problems).toEqual([
      { code: 'notANumber', field: 'leftLegCm' },
      { code: 'required', field: 'breathSeconds' },
    ]);
  });

  it('goes round without loss', () => {
    const typed = { ...blankBody, name: 'Zo', leftLegCm: '86.5', birthDate: '1990-02-03' };
    expect(writeBody(readBody(typed).body)).toEqual(typed);
  });
});
