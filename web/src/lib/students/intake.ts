import type { Schemas } from '$lib/api/client';

type Day = NonNullable<Schemas['StudentBody']['days']>[number];

/** What a student has at home, besides blocks. */
export const equipment: { key: string; name: string }[] = [
  { key: 'folded-blanket', name: 'Folded blanket' },
  { key: 'cushion', name: 'Cushion' },
  { key: 'bolster', name: 'Bolster' },
  { key: 'strap', name: 'Strap' },
  { key: 'wedge-2-5', name: 'Wedge 2.5 cm' },
  { key: 'wedge-5', name: 'Wedge 5 cm' },
  { key: 'chair', name: 'Chair' },
  { key: 'bench', name: 'Bench 45 cm' },
  { key: 'wall', name: 'Free wall' },
  { key: 'knee-pad', name: 'Knee pad' },
  { key: 'sliders', name: 'Sliders' },
];

export const weekdays: { key: NonNullable<Day['weekday']>; name: string }[] = [
  { key: 'monday', name: 'Monday' },
  { key: 'tuesday', name: 'Tuesday' },
  { key: 'wednesday', name: 'Wednesday' },
  { key: 'thursday', name: 'Thursday' },
  { key: 'friday', name: 'Friday' },
  { key: 'saturday', name: 'Saturday' },
  { key: 'sunday', name: 'Sunday' },
];

/** A day as it is typed. */
export type DayText = { weekday: string; date: string; minutes: string; half: Day['half'] };

export const blankDay = (minutes: string): DayText => ({ weekday: 'monday', date: '', minutes, half: 'pm' });

export const writeDay = (day: Day): DayText => ({
  weekday: day.weekday ?? '',
  date: day.date ?? '',
  minutes: String(day.minutes),
  half: day.half,
});
