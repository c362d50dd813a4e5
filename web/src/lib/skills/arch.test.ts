import { describe, expect, it } from 'vitest';
import { barAcross, box, isOwned, keystoneOutline, stepped, stoneOutline } from './arch';

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

  const stone = (side: 'left' | 'right' | null, stage: number, look = 'met', here = false) =>
    ({ side, stage, look, here, filledShare: 1 }) as never;

  it('is walked by arrow keys, up to its ends, across only where there are two sides', () => {
    expect(stepped('ArrowUp', stone('left', 7), 7, false)).toEqual(['left', 7]);
    expect(stepped('ArrowDown', stone('left', 3), 7, false)).toEqual(['left', 2]);
    expect(stepped('ArrowRight', stone('left', 3), 7, false)).toEqual(['right', 3]);
    expect(stepped('ArrowRight', stone(null, 3), 7, true)).toEqual([null, 3]);
    expect(stepped('Enter', stone('right', 3), 7, false)).toEqual(['right', 3]);
    expect(stepped('a', stone('left', 3), 7, false)).toBeUndefined();
  });

  it('never strikes the number of a stone that is off limits', () => {
    const ys = numbers(barAcross({ x: 50, y: 100 }, false)).filter((n) => n > 60);
    expect(ys).toEqual([87, 113]);
  });

  it('has a half of the keystone once every stone of that half is behind', () => {
    expect(isOwned([stone('left', 1), stone('right', 1, 'met', true)], 'left')).toBe(true);
    expect(isOwned([stone('left', 1), stone('right', 1, 'met', true)], 'right')).toBe(false);
  });
});
