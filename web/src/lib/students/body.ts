import type { FieldProblem, Schemas } from '$lib/api/client';
import { writeDay, type DayText } from './intake';

type Body = Schemas['StudentBody'];

/** The form as it is typed: text, so that "abc" stays on the screen and gets its message. */
export type BodyText = {
  name: string;
  about: string;
  birthDate: string;
  leftLegCm: string;
  rightLegCm: string;
  hipWidthCm: string;
  bodyweightKg: string;
  breathSeconds: string;
  sensationCeiling: string;
  splitStandard: string;
  blocksOwned: string;
  sessionMinutes: string;
  goals: string[];
  equipment: string[];
  days: DayText[];
  bodyWords: Schemas['BodyWord'][];
};

export const blankBody: BodyText = {
  name: '',
  about: '',
  birthDate: '',
  leftLegCm: '',
  rightLegCm: '',
  hipWidthCm: '17',
  bodyweightKg: '',
  breathSeconds: '4.5',
  sensationCeiling: '7',
  splitStandard: 'square',
  blocksOwned: '4',
  sessionMinutes: '60',
  goals: [],
  equipment: [],
  days: [],
  bodyWords: [],
};

/** A number as people write it, with a point or a comma; nothing for an empty field, NaN for a word. */
export function parseNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.').replace('−', '-');
  if (plain === '') return null;
  return /^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : NaN;
}

const numeric = [
  'leftLegCm',
  'rightLegCm',
  'hipWidthCm',
  'bodyweightKg',
  'breathSeconds',
  'sensationCeiling',
  'blocksOwned',
  'sessionMinutes',
] as const;
const needed: readonly string[] = [
  'hipWidthCm',
  'breathSeconds',
  'sensationCeiling',
  'blocksOwned',
  'sessionMinutes',
];

/** The body to send, or what cannot be read as a number. */
export function readBody(text: BodyText): { body: Body; problems: FieldProblem[] } {
  const problems: FieldProblem[] = [];
  const numbers = Object.fromEntries(
    numeric.map((key) => {
      const value = parseNumber(text[key]);
      if (Number.isNaN(value)) problems.push({ code: 'notANumber', field: key });
      if (value === null && needed.includes(key)) problems.push({ code: 'required', field: key });
      return [key, value];
    }),
  ) as Pick<Body, (typeof numeric)[number]>;
  const days = text.days.map((day, i) => {
    const minutes = parseNumber(day.minutes);
    if (minutes === null || Number.isNaN(minutes))
      problems.push({ code: minutes === null ? 'required' : 'notANumber', field: `days[${i}].minutes` });
    return {
      weekday: (day.date ? null : day.weekday) as NonNullable<Body['days']>[number]['weekday'],
      date: day.date || null,
      minutes: Math.round(minutes ?? 0),
      half: day.half,
    };
  });
  return {
    problems,
    body: {
      ...numbers,
      name: text.name,
      about: text.about || null,
      birthDate: text.birthDate || null,
      splitStandard: text.splitStandard,
      goals: text.goals,
      equipment: text.equipment,
      days,
      bodyWords: text.bodyWords
        .filter((w) => w.word.trim() !== '')
        .map((w) => ({ tag: w.tag, word: w.word.trim() })),
    },
  };
}

export function writeBody(body: Body): BodyText {
  const text = (value: string | number | null | undefined) => (value == null ? '' : String(value));
  const plain = Object.entries(blankBody).filter(([, value]) => typeof value === 'string');
  return {
    ...(Object.fromEntries(
      plain.map(([key]) => [key, text(body[key as keyof Body] as string | number | null)]),
    ) as Omit<BodyText, 'goals' | 'equipment' | 'days' | 'bodyWords'>),
    goals: [...(body.goals ?? [])],
    equipment: [...(body.equipment ?? [])],
    days: (body.days ?? []).map(writeDay),
    bodyWords: [...(body.bodyWords ?? [])],
  };
}
