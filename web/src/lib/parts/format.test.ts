import { describe, expect, it } from 'vitest';
import { chosen, dayAndTime, minutes, number, shortDay, showIn, signed, withUnit } from './format';

describe('numbers', () => {
  it('carry their unit after a thin space, degrees without one', () => {
    expect(withUnit(21.333, 'cm')).toBe('21.3 cm');
    expect(withUnit(163.958, '°')).toBe('164.0°');
  });

  it('show a chosen line as it was written', () => {
    expect(chosen(35, 'cm')).toBe('35 cm');
    expect(chosen(2.5, 'cm')).toBe('2.5 cm');
    expect(chosen(4)).toBe('4');
  });

  it('show a minus sign, and no minus zero', () => {
    expect(number(-3.24)).toBe('−3.2');
    expect(number(-0.01)).toBe('0.0');
  });

  it('show the sign of a change', () => {
    expect(signed(1.1, 'cm')).toBe('+1.1 cm');
    expect(signed(0.8, 'cm')).toBe('+0.8 cm');
    expect(signed(-1.1, 'cm')).toBe('−1.1 cm');
    expect(signed(0.01, 'cm')).toBe('0.0 cm');
  });

  it('show seconds as a clock', () => {
    expect(minutes(258)).toBe('4:18');
    expect(minutes(-1)).toBe('0:00');
  });
});

describe('days and times', () => {
  it('are the studio’s, wherever the device is; calendar days stay as they are written', () => {
    showIn('Asia/Tokyo');
    expect(dayAndTime('2035-03-04T22:30:00Z')).toBe('Mon 5 Mar, 07:30');
    expect(shortDay('2035-03-04')).toBe('Sun 4 Mar');
    showIn('America/Los_Angeles');
    expect(dayAndTime('2035-03-04T22:30:00Z')).toBe('Sun 4 Mar, 14:30');
    expect(shortDay('2035-03-04')).toBe('Sun 4 Mar');
    showIn('Mars/Base');
    expect(shortDay('2035-03-04')).toBe('Sun 4 Mar');
  });
});
