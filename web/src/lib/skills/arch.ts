import type { Schemas } from '$lib/api/client';
import type { Course } from './sides';

/** The arch's drawing box: wide enough for the ground line, as high as the keystone. */
export const box = { width: 400, height: 356 };

const centre = 200;
const outer = 186;
const inner = 116;
const ground = 342;
const pierHeight = 58;
const joint = 3;
const pierStages = 2;
const spring = ground - pierStages * pierHeight;
const keystoneHalf = 8.5;

export type Outline = { path: string; x: number; y: number };

/** The stones of the left half, mirrored for the right: piers from the ground, then the ring up to the keystone. */
export function stoneOutline(side: Schemas['Side'], stage: number, stages: number, share: number): Outline {
  return stage <= pierStages ? pier(side, stage, share) : voussoir(side, stage, stages, share);
}

export function keystoneHalfOutline(side: Schemas['Side']): string {
  const gap = 0.6;
  return sector(side, 90 - keystoneHalf + gap, 90, inner - 4, outer + 9);
}

export function keystoneOutline(): string {
  const points = [
    at(90 - keystoneHalf + 0.6, inner - 4),
    at(90 - keystoneHalf + 0.6, outer + 9),
    at(90 + keystoneHalf - 0.6, outer + 9),
    at(90 + keystoneHalf - 0.6, inner - 4),
  ];
  return (
    `M${points[0]} L${points[1]} A${outer + 9} ${outer + 9} 0 0 1 ${points[2]} ` +
    `L${points[3]} A${inner - 4} ${inner - 4} 0 0 0 ${points[0]}Z`
  );
}

export const groundLine = { x1: 2, x2: 398, y: ground + 2 };

function pier(side: Schemas['Side'], stage: number, share: number): Outline {
  const bottom = ground - (stage - 1) * pierHeight - (stage > 1 ? joint / 2 : 0);
  const height = pierHeight - joint / 2 - (stage > 1 ? joint / 2 : 0);
  const left = mirror(side, centre - outer);
  const right = mirror(side, centre - inner);
  const top = bottom - height * share;
  return {
    path: `M${left} ${bottom} V${fix(top)} H${right} V${bottom}Z`,
    x: (left + right) / 2,
    y: bottom - height / 2,
  };
}

function voussoir(side: Schemas['Side'], stage: number, stages: number, share: number): Outline {
  const step = (90 - keystoneHalf) / (stages - pierStages);
  const gap = 0.55;
  const from = (stage - pierStages - 1) * step + (stage === pierStages + 1 ? 0.9 : gap);
  const to = (stage - pierStages) * step - gap;
  const middle = (from + to) / 2;
  const [x, y] = point(middle, (inner + outer) / 2);
  return {
    path: sector(side, from, from + (to - from) * share, inner, outer),
    x: mirror(side, x),
    y,
  };
}

function sector(side: Schemas['Side'], from: number, to: number, low: number, high: number): string {
  const turn = side === 'left' ? 1 : 0;
  const corner = (angle: number, radius: number) => {
    const [x, y] = point(angle, radius);
    return `${fix(mirror(side, x))} ${fix(y)}`;
  };
  return (
    `M${corner(from, low)} L${corner(from, high)} A${high} ${high} 0 0 ${turn} ${corner(to, high)} ` +
    `L${corner(to, low)} A${low} ${low} 0 0 ${1 - turn} ${corner(from, low)}Z`
  );
}

/** Angle in degrees from the left springing up over the crown. */
function point(angle: number, radius: number): [number, number] {
  const turn = (Math.PI * angle) / 180;
  return [centre - radius * Math.cos(turn), spring - radius * Math.sin(turn)];
}

const at = (angle: number, radius: number) => point(angle, radius).map(fix).join(' ');

const mirror = (side: Schemas['Side'], x: number) => (side === 'left' ? x : 2 * centre - x);

const fix = (n: number) => Math.round(n * 100) / 100;

/** The bar of a stone that is off limits: above and below its number, so that what is read is never struck out; across a stone without one. */
export const barAcross = ({ x, y }: { x: number; y: number }, plain: boolean): string =>
  plain ? `M${x - 22} ${y - 10} L${x + 22} ${y + 10}` : `M${x - 16} ${y - 13} h32 M${x - 16} ${y + 13} h32`;

/** Every stone of a half is behind the student: the keystone's half stands. */
export const isOwned = (stones: readonly Schemas['Stone'][], half: Schemas['Side']): boolean =>
  stones.filter((s) => s.side === null || s.side === half).every((s) => s.look === 'met' && !s.here);

/** Which stone a key chooses from one: an arrow its neighbour, Enter and space itself, another key none. */
export function stepped(
  key: string,
  stone: Schemas['Stone'],
  count: number,
  bilateral: boolean,
): [Course, number] | undefined {
  const across = (half: Schemas['Side']): Course => (bilateral ? null : half);
  const to: Record<string, [Course, number]> = {
    ArrowUp: [stone.side, Math.min(count, stone.stage + 1)],
    ArrowDown: [stone.side, Math.max(1, stone.stage - 1)],
    ArrowLeft: [across('left'), stone.stage],
    ArrowRight: [across('right'), stone.stage],
    Enter: [stone.side, stone.stage],
    ' ': [stone.side, stone.stage],
  };
  return to[key];
}
