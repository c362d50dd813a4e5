import { describe, expect, it } from 'vitest';
import { beginnings, blankEntry, draftOf, isWhole, merge, readTrial } from './entry';

describe('a typed trial', () => {
  it('is a number with a point or a comma', () => {
    expect(readTrial('9.8', undefined)).toBe(9.8);
    expect(readTrial('10,2', 9.8)).toBe(10.2);
    expect(readTrial('abc', 9.8)).toBeNaN();
    expect(readTrial('', 9.8)).toBeNull();
  });

  it('is the nearest value that ends in the digit typed after a point', () => {
    expect(readTrial('.2', 9.8)).toBe(10.2);
    expect(readTrial('.3', 10.2)).toBe(10.3);
    expect(readTrial('.9', 10.2)).toBe(9.9);
    expect(readTrial(',0', 9.8)).toBe(10);
    expect(readTrial('.4', -3.1)).toBe(-3.6);
  });

  it('needs a trial before it for the short form', () => {
    expect(readTrial('.2', undefined)).toBeNaN();
    expect(isWhole('.2', undefined)).toBe(false);
  });

  it('is whole with its decimal, and not before', () => {
    expect(isWhole('9', 9.8)).toBe(false);
    expect(isWhole('9.', 9.8)).toBe(false);
    expect(isWhole('9.8', undefined)).toBe(true);
    expect(isWhole('−3,5', undefined)).toBe(true);
    expect(isWhole('.2', 9.8)).toBe(true);
  });
});

describe('two devices in one slot', () => {
  const mine = {
    ...blankEntry('a', 'tape'),
    trials: [80, 82],
    compensations: ['knee-bent'],
    typed: '8',
    version: 1,
  };

  it('lose no captured trial', () => {
    const merged = merge(mine, { ...blankEntry('b', 'tape'), trials: [80, 81] }, 2);
    expect(merged.trials).toEqual([80, 81, 82]);
    expect(merged.id).toBe('b');
    expect(merged.version).toBe(2);
    expect(merged.typed).toBe('8');
    expect(merged.compensations).toEqual(['knee-bent']);
  });

  it('double nothing that both have', () => {
    expect(merge(mine, { ...blankEntry('a', 'tape'), trials: [80, 82, 83] }, 2).trials).toEqual([80, 82, 83]);
  });
});

describe('the beginnings of timed holds', () => {
  const entry = (began: string[], trials = [30, 31]) => ({ ...blankEntry('id', 'stopwatch'), trials, began });

  it('are sent when every hold was timed, and not when one was typed or taken back', () => {
    const times = ['2031-03-06T10:00:00Z', '2031-03-06T10:02:00Z'];
    expect(beginnings(entry(times))).toEqual(times);
    expect(beginnings(entry([times[0]!, '']))).toBeNull();
    expect(beginnings(entry(times, [30]))).toBeNull();
    expect(draftOf(entry(times))).not.toHaveProperty('began');
  });
});
