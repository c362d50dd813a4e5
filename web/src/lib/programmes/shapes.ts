import type { DayText } from '$lib/students/intake';
import { weekdays } from '$lib/students/intake';
import type { SketchText, ThemeText } from './sketch';
import { dayAfter, daysBetween, weekdayOf } from './weeks';

type Half = DayText['half'];

const on = (weekday: string, half: Half, minutes: string): DayText => ({ weekday, date: '', minutes, half });
const steady = (minutes: string): DayText[] => [
  on('monday', 'pm', minutes),
  on('wednesday', 'pm', minutes),
  on('saturday', 'am', minutes),
];
const none = {
  days: [] as DayText[],
  off: [] as string[],
  themes: [] as ThemeText[],
  moved: [] as SketchText['moved'],
};

/** What the days of a series are for, in turn. */
const turns = ['hips', 'hamstrings', 'care', 'hips', 'hamstrings', 'care', 'test'];
const lightDays = 7;
/** In the light week there is nothing to test yet. */
const turnOf = (i: number) => (i < lightDays && turns[i % 7] === 'test' ? 'care' : turns[i % 7]!);
const themed = (date: string, theme: string, light: boolean): ThemeText => ({
  weekday: '',
  date,
  theme,
  light,
});

export type Shape = { name: string; of: (text: SketchText, minutes: string) => Partial<SketchText> };

/** Programmes to start from; all of it can be changed afterwards. */
export const shapes: Shape[] = [
  { name: 'Three steady days', of: (_, minutes) => ({ ...none, days: steady(minutes) }) },
  {
    name: 'Four steady days',
    of: (_, minutes) => ({
      ...none,
      days: [
        on('monday', 'pm', minutes),
        on('tuesday', 'pm', minutes),
        on('thursday', 'pm', minutes),
        on('saturday', 'am', minutes),
      ],
    }),
  },
  {
    name: 'Two short sessions a day',
    of: () => ({
      ...none,
      days: ['monday', 'wednesday', 'friday'].flatMap((d) => [on(d, 'am', '25'), on(d, 'pm', '25')]),
    }),
  },
  {
    // Ten days running, the first week of it light; then steady days, so that it is not lost again.
    name: '10-day series',
    of: ({ start }, minutes) => ({
      ...none,
      weeks: '4',
      days: [
        ...Array.from({ length: 10 }, (_, i) => ({
          weekday: '',
          date: dayAfter(start, i),
          minutes,
          half: 'pm' as Half,
        })),
        // In the afternoon as the ten are: a day of both is one session.
        ...steady(minutes).map((d) => ({ ...d, half: 'pm' as Half })),
      ],
      themes: Array.from({ length: 10 }, (_, i) => themed(dayAfter(start, i), turnOf(i), i < lightDays)),
    }),
  },
  {
    name: '30-day series',
    of: ({ start }, minutes) => ({
      weeks: '5',
      days: weekdays.map((d) => on(d.key, 'pm', minutes)),
      off: Array.from({ length: 5 }, (_, i) => dayAfter(start, 30 + i)),
      themes: [
        ...Array.from({ length: lightDays }, (_, i) => themed(dayAfter(start, i), turnOf(i), true)),
        ...turns.map((theme, i) => ({
          weekday: weekdayOf(dayAfter(start, i)),
          date: '',
          theme,
          light: false,
        })),
      ],
    }),
  },
];

const taperDays = 6;
const mostWeeks = 16;
const fewestWeeks = 4;

/** Steady weeks up to one day, by which all goals are hoped for; the last days before it are light. */
export function towards(date: string, text: SketchText, minutes: string): Partial<SketchText> {
  const weeks = Math.min(
    mostWeeks,
    Math.max(fewestWeeks, Math.ceil((daysBetween(text.start, date) + 1) / 7)),
  );
  // The day itself is what it is all for; nothing is trained on it and after it.
  const after = Math.max(0, 7 * weeks - daysBetween(text.start, date));
  return {
    weeks: String(weeks),
    days: steady(minutes),
    off: Array.from({ length: after }, (_, i) => dayAfter(date, i)),
    goals: text.goals.map((g) => ({ ...g, target: date })),
    themes: Array.from({ length: taperDays }, (_, i) => themed(dayAfter(date, i - taperDays), '', true)),
  };
}
