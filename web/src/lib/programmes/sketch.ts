import type { Schemas } from '$lib/api/client';
import { parseNumber } from '$lib/students/body';
import { writeDay, type DayText } from '$lib/students/intake';
import { weekdayOf } from './weeks';

/** A programme as it is typed. */
export type SketchText = {
  start: string;
  weeks: string;
  goals: { skill: string; target: string }[];
  days: DayText[];
  off: string[];
  themes: ThemeText[];
  /** Parts of days from which a session has moved away: not typed, and kept. */
  moved: Schemas['DayPart'][];
};

/** A day that is for something of its own; on a weekday, or on a date where no weekday is chosen. */
export type ThemeText = { weekday: string; date: string; theme: string; light: boolean };

export const writeSketch = (sketch: Schemas['ProgrammeSketch']): SketchText => ({
  start: sketch.start,
  weeks: String(sketch.weeks),
  goals: [...sketch.goals]
    .sort((a, b) => a.priority - b.priority)
    .map((g) => ({ skill: g.skill, target: g.target ?? '' })),
  days: sketch.days.map(writeDay),
  off: [...(sketch.off ?? [])],
  themes: (sketch.themes ?? []).map((t) => ({
    weekday: t.weekday ?? '',
    date: t.date ?? '',
    theme: t.theme ?? '',
    light: t.light ?? false,
  })),
  moved: [...(sketch.moved ?? [])],
});

/** None where the minutes are no number. */
export function readDay(day: DayText): Schemas['AvailableDay'] | undefined {
  const minutes = parseNumber(day.minutes);
  return minutes === null || Number.isNaN(minutes)
    ? undefined
    : {
        weekday: (day.weekday || null) as Schemas['AvailableDay']['weekday'],
        date: day.weekday ? null : day.date || null,
        minutes: Math.round(minutes),
        half: day.half,
      };
}

/** None where something that is needed is missing or is no number. */
export function readSketch(text: SketchText): Schemas['ProgrammeSketch'] | undefined {
  const weeks = parseNumber(text.weeks);
  const days = text.days.map(readDay);
  if (!text.start || weeks === null || Number.isNaN(weeks) || days.some((d) => !d)) return undefined;
  return {
    start: text.start,
    weeks: Math.round(weeks),
    goals: text.goals.map((g, i) => ({ skill: g.skill, priority: i + 1, target: g.target || null })),
    days: days as Schemas['AvailableDay'][],
    off: text.off.filter(Boolean),
    themes: text.themes
      .filter((t) => (t.weekday || t.date) && (t.theme || t.light))
      .map((t) => ({
        weekday: (t.weekday || null) as Schemas['AvailableDay']['weekday'],
        date: t.weekday ? null : t.date,
        theme: (t.theme || null) as Schemas['ThemedDay']['theme'],
        light: t.light,
      })),
    moved: text.moved,
  };
}

const mostMinutes = 120;

/** The same programme with so many minutes more on the weekday of a day, or on the day itself where its time is its own. */
export function longer(text: SketchText, day: string, half: DayText['half'], minutes: number): SketchText {
  const its = (d: DayText) => d.half === half && (d.date === day || d.weekday === weekdayOf(day));
  const own = text.days.some((d) => its(d) && d.date === day);
  return {
    ...text,
    days: text.days.map((d) =>
      its(d) && (own ? d.date === day : true)
        ? { ...d, minutes: String(Math.min(mostMinutes, Number(d.minutes) + minutes)) }
        : d,
    ),
  };
}
