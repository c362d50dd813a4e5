import type { Schemas } from '$lib/api/client';
import { parseNumber } from '$lib/students/body';
import { writeDay, type DayText } from '$lib/students/intake';

/** A programme as it is typed. */
export type SketchText = {
  start: string;
  weeks: string;
  goals: { skill: string; target: string }[];
  days: DayText[];
  off: string[];
};

export const writeSketch = (sketch: Schemas['ProgrammeSketch']): SketchText => ({
  start: sketch.start,
  weeks: String(sketch.weeks),
  goals: [...sketch.goals]
    .sort((a, b) => a.priority - b.priority)
    .map((g) => ({ skill: g.skill, target: g.target ?? '' })),
  days: sketch.days.map(writeDay),
  off: [...(sketch.off ?? [])],
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
  };
}
