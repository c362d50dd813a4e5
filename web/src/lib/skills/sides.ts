import type { Schemas } from '$lib/api/client';

/** A course of a ladder: a side, or none where left and right climb as one. */
export type Course = Schemas['Side'] | null;

/** How a course is called in a sentence: with what its side names, where the ladder says so. */
export const courseName = (side: Course | undefined, means?: string | null): string =>
  side ? (means ? `${side} ${means}` : side) : 'both sides';

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The class that carries the colour of a course. */
export const courseClass = (side: Course | undefined): string => side ?? 'both';

export const sameCourse = (a: Course | undefined, b: Course | undefined): boolean =>
  (a ?? null) === (b ?? null);
