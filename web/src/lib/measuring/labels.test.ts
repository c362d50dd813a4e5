import { describe, expect, it } from 'vitest';
import { spread } from './labels';

const at = (...heights: number[]) => heights.map((h, i) => ({ of: i, at: h }));

describe('labels in a column', () => {
  it('stay where they belong when they have room', () => {
    expect(spread(at(40, 10), 14, 0, 100)).toEqual([
      { of: 1, at: 10 },
      { of: 0, at: 40 },
    ]);
  });

  it('are moved apart, and stay inside', () => {
    const placed = spread(at(50, 50, 52, 99, 99), 14, 0, 100).map((l) => l.at);
    expect(placed.at(-1)).toBe(100);
    for (let i = 1; i < placed.length; i++) expect(placed[i]! - placed[i - 1]!).toBeGreaterThanOrEqual(14);
  });
});
