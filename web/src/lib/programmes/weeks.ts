import { number } from '$lib/parts/format';

/** A calendar day so many days later. */
export function dayAfter(day: string, days: number): string {
  const at = new Date(`${day}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}

const names = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

/** Names of the seven days from a day on. */
export const weekdaysFrom = (day: string): string[] =>
  Array.from({ length: 7 }, (_, i) => names[(new Date(`${day}T12:00:00Z`).getUTCDay() + i) % 7]!);

const keys = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];

/** The weekday of a day, by its key. */
export const weekdayOf = (day: string): string => keys[new Date(`${day}T12:00:00Z`).getUTCDay()]!;

export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T12:00:00Z`) - Date.parse(`${from}T12:00:00Z`)) / 86_400_000);

/** The weekday of a day, as it is written. */
export const weekdayName = (day: string): string => weekdayOf(day).replace(/^./, (c) => c.toUpperCase());

/** A load of a week, with no more figures than it has. */
export const loadText = (value: number): string => number(value, value >= 100 ? 0 : 1);

/** How long a bar is drawn. */
export const shareOf = (value: number, most: number): string =>
  `${most > 0 ? Math.min(100, (100 * value) / most) : 0}%`;
