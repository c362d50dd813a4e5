import type { Schemas } from '$lib/api/client';
import { parseNumber } from '$lib/students/body';

type Practice = Schemas['Practice'];
export type PracticeSegment = Schemas['PracticeSegment'];

/** A practice as it is typed. */
export type PracticeText = {
  counted: 'seconds' | 'breaths';
  seconds: string;
  breaths: string;
  breathSeconds: string;
  ramp: boolean;
  fromPercent: string;
  toPercent: string;
  plateauSeconds: string;
  settleSeconds: string;
  sides: Schemas['PracticeSides'];
  sideBySide: boolean;
  rounds: string;
  restSeconds: string;
  switchSeconds: string;
  countInSeconds: string;
};

export const blankPractice = (): PracticeText => ({
  counted: 'seconds',
  seconds: '30',
  breaths: '5',
  breathSeconds: '4.5',
  ramp: false,
  fromPercent: '20',
  toPercent: '80',
  plateauSeconds: '5',
  settleSeconds: '20',
  sides: 'leftFirst',
  sideBySide: false,
  rounds: '2',
  restSeconds: '30',
  switchSeconds: '5',
  countInSeconds: '5',
});

export const sideChoices: { key: Schemas['PracticeSides']; name: string }[] = [
  { key: 'together', name: 'Both at once' },
  { key: 'leftFirst', name: 'Left, then right' },
  { key: 'rightFirst', name: 'Right, then left' },
  { key: 'leftOnly', name: 'Left only' },
  { key: 'rightOnly', name: 'Right only' },
];

export const twoSided = (text: PracticeText): boolean => ['leftFirst', 'rightFirst'].includes(text.sides);

/** What was typed as a practice; where a word stands, the field it stands in. */
export function readPractice(text: PracticeText): { practice: Practice } | { wrong: string[] } {
  const wrong: string[] = [];
  const whole = (key: keyof PracticeText, field: string = key): number => {
    const value = parseNumber(text[key] as string);
    if (value === null || !Number.isInteger(value)) wrong.push(field);
    return value ?? 0;
  };
  const breath = parseNumber(text.breathSeconds);
  const inBreaths = text.counted === 'breaths';
  if (inBreaths && (breath === null || Number.isNaN(breath))) wrong.push('breathSeconds');
  const practice: Practice = {
    seconds: inBreaths ? null : whole('seconds'),
    breaths: inBreaths ? whole('breaths') : null,
    breathSeconds: breath === null || Number.isNaN(breath) ? Number(blankPractice().breathSeconds) : breath,
    ramp: text.ramp
      ? {
          fromPercent: whole('fromPercent', 'ramp.fromPercent'),
          toPercent: whole('toPercent', 'ramp.toPercent'),
          plateauSeconds: whole('plateauSeconds', 'ramp.plateauSeconds'),
        }
      : null,
    settleSeconds: text.ramp ? whole('settleSeconds') : 0,
    sides: text.sides,
    sideBySide: twoSided(text) && text.sideBySide,
    rounds: whole('rounds'),
    restSeconds: whole('restSeconds'),
    switchSeconds: twoSided(text) ? whole('switchSeconds') : 0,
    countInSeconds: whole('countInSeconds'),
  };
  return wrong.length ? { wrong } : { practice };
}

export function writePractice(practice: Practice): PracticeText {
  const blank = blankPractice();
  const or = (value: number | null | undefined, otherwise: string) =>
    value == null ? otherwise : String(value);
  return {
    ...blank,
    counted: practice.breaths == null ? 'seconds' : 'breaths',
    seconds: or(practice.seconds, blank.seconds),
    breaths: or(practice.breaths, blank.breaths),
    breathSeconds: or(practice.breathSeconds, blank.breathSeconds),
    ramp: practice.ramp != null,
    fromPercent: or(practice.ramp?.fromPercent, blank.fromPercent),
    toPercent: or(practice.ramp?.toPercent, blank.toPercent),
    plateauSeconds: or(practice.ramp?.plateauSeconds, blank.plateauSeconds),
    settleSeconds: practice.ramp ? or(practice.settleSeconds, '0') : blank.settleSeconds,
    sides: practice.sides ?? 'together',
    sideBySide: practice.sideBySide ?? false,
    rounds: or(practice.rounds, '1'),
    restSeconds: or(practice.restSeconds, '0'),
    switchSeconds: or(practice.switchSeconds, blank.switchSeconds),
    countInSeconds: or(practice.countInSeconds, blank.countInSeconds),
  };
}

const phases: Record<Schemas['PracticePhase'], string> = {
  countIn: 'Get ready',
  settle: 'Settle',
  work: 'Hold',
  rest: 'Rest',
  switchSides: 'Switch sides',
};

export const phaseName = (segment: PracticeSegment): string => phases[segment.phase];
