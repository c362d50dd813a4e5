import { describe, expect, it } from 'vitest';
import { box, keystoneOutline, stoneOutline } from './arch';

const numbers = (path: string) => [...path.matchAll(/-?\d+(\.\d+)?/g)].map((m) => Number(m[0]));

describe('the arch', () => {
  it('mirrors the right half of every stone, for short and long ladders', () => {
    for (const stages of [6, 7, 8])
      for (let stage = 1; stage <= stages; stage++) {
        const left = stoneOutline('left', stage, stages, 1);
        const right = stoneOutline('right', stage, stages, 1);
        expect(left.x + right.x).toBeCloseTo(box.width, 6);
        expect(left.y).toBeCloseTo(right.y, 6);
      }
  });

  it('rises stone by stone', () => {
    const heights = [1, 2, 3, 4, 5, 6, 7].map((stage) => stoneOutline('left', stage, 7, 1).y);
    expect(heights).toEqual([...heights].sort((a, b) => b - a));
  });

  it('stays inside its box', () => {
    for (const path of [keystoneOutline(), stoneOutline('right', 7, 7, 1).path])
      for (const n of numbers(path)) expect(n).toBeLessThanOrEqual(box.width);
  });

  it('fills a stone from its foot', () => {
    const half = stoneOutline('left', 1, 7, 0.5).path;
    const full = stoneOutline('left', 1, 7, 1).path;
    expect(half.split(' ')[1]).toBe(full.split(' ')[1]);
    expect(half).not.toBe(full);
  });
});
