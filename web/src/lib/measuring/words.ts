import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { chosen, number, withUnit } from '$lib/parts/format';

export const instrumentNames: Record<Schemas['Instrument'], string> = {
  tape: 'Tape',
  blockStack: 'Blocks',
  goniometer: 'Goniometer',
  inclinometer: 'Inclinometer',
  picture: 'Side picture',
  stopwatch: 'Stopwatch',
  count: 'Count',
};

export const groupNames: Record<string, string> = {
  hips: 'Hips and splits',
  squat: 'Ankles and squat',
  trunk: 'Shoulders, trunk, neck',
  holds: 'Wrists, holds and lines',
};

export const faceNames: Record<Schemas['Face'], string> = { low: 'low', middle: 'middle', high: 'tall' };

/** A share of successes as its parts: "7 of 10". */
export const ofAttempts = (successes?: number | null, attempts?: number | null): string =>
  `${successes ?? 0} of ${attempts ?? 0}`;

export const percent = (share: number): string => `${number(share * 100, 0)} %`;

/** A value in its measure's own words: centimetres, degrees, seconds, or attempts held. */
export function valueOf(
  measure: Schemas['Measure'],
  reading: { value: number; successes?: number | null; attempts?: number | null },
): string {
  if (measure.kind === 'rate')
    return reading.attempts != null
      ? ofAttempts(reading.successes, reading.attempts)
      : percent(reading.value);
  return measure.kind === 'step'
    ? chosen(reading.value, measure.unit)
    : withUnit(reading.value, measure.unit);
}

export const levelName = (
  measure: Schemas['Measure'],
  level: string | null | undefined,
): string | undefined => measure.levels.find((l) => l.key === level)?.name;

/** What a sitting reads, in a few words. */
export function scopeName(scope: string): string {
  if (scope === 'needs') return 'What the next gates need';
  if (scope === 'single') return 'Chosen measures';
  return catalogue.content!.batteries.find((b) => b.key === scope)?.name ?? scope;
}

/** What a picture shows. */
export const viewName = (view: string): string =>
  catalogue.content!.measures.find((m) => m.key === view)?.name ??
  catalogue.content!.views.find((v) => v.key === view)?.name ??
  view;

/** Which landmarks a picture asks for. */
export const landmarksOf = (view: string): string[] =>
  (
    catalogue.content!.measures.find((m) => m.key === view)?.picture ??
    catalogue.content!.views.find((v) => v.key === view)?.picture
  )?.landmarks ?? [];

/** The parts of a line, each with what its sign means. */
export function lineParts(angles: Schemas['PlacementAngles']): { name: string; value: string }[] {
  const part = (name: string, deg: number | null | undefined, plus: string, minus: string) =>
    deg == null
      ? []
      : [
          {
            name,
            value: `${withUnit(Math.abs(deg), '°')} ${Math.abs(deg) < 0.05 ? '' : deg > 0 ? plus : minus}`,
          },
        ];
  return [
    ...part('Shoulder', angles.shoulderDeg, 'closed', 'over-open'),
    ...part('Hip', angles.hipDeg, 'arch', 'pike'),
    ...part('Lean', angles.leanDeg, 'to the back', 'to the belly'),
  ];
}
