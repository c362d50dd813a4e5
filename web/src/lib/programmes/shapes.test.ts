import { describe, expect, it } from 'vitest';
import { longer, readSketch, type SketchText } from './sketch';
import { shapes, towards } from './shapes';

const text: SketchText = {
  start: '2026-11-30',
  weeks: '8',
  goals: [{ skill: 'front-split', target: '' }],
  days: [],
  off: [],
  themes: [],
  moved: [],
};
const shape = (name: string) => ({ ...text, ...shapes.find((s) => s.name === name)!.of(text, '45') });

describe('programmes to start from', () => {
  it('a 10-day series has one session on each of ten days, the first seven light, and steady days after', () => {
    const series = shape('10-day series');
    expect(series.days.filter((d) => d.date)).toHaveLength(10);
    expect(new Set(series.days.map((d) => d.half))).toEqual(new Set(['pm']));
    expect(series.themes.map((t) => t.light)).toEqual([...Array(7).fill(true), false, false, false]);
    expect(series.themes[6]!.theme).toBe('care');
  });

  it('a 30-day series is over after thirty days, and has every theme', () => {
    const series = shape('30-day series');
    expect(series.off).toEqual(['2026-12-30', '2026-12-31', '2027-01-01', '2027-01-02', '2027-01-03']);
    expect(new Set(series.themes.map((t) => t.theme))).toEqual(
      new Set(['hips', 'hamstrings', 'care', 'test']),
    );
    expect(readSketch(series)!.themes).toHaveLength(14);
  });

  it('weeks towards a day end before it, the last days light', () => {
    const ready = { ...text, ...towards('2027-02-01', text, '60') };
    expect(ready.weeks).toBe('10');
    expect(ready.off[0]).toBe('2027-02-01');
    expect(ready.off.at(-1)).toBe('2027-02-07');
    expect(ready.goals[0]!.target).toBe('2027-02-01');
    expect(ready.themes.map((t) => t.date)[5]).toBe('2027-01-31');
  });

  it('twenty minutes more on a weekday are on that weekday alone', () => {
    const steady = shape('Three steady days');
    const more = longer(steady, '2026-12-02', 'pm', 20);
    expect(more.days.map((d) => d.minutes)).toEqual(['45', '65', '45']);
    expect(longer(more, '2026-12-02', 'pm', 90).days[1]!.minutes).toBe('120');
  });
});
