import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';

export type Felt = Schemas['FeltItem'];
type Kind = Felt['kind'];

const kinds: Record<Kind, string> = {
  sore: 'sore',
  pain: 'painful',
  injury: 'injured in the last 14 days',
  soreAfter: 'sore on the day after',
  painAfter: 'painful on the day after',
};

export const feltName = (kind: Kind): string => kinds[kind];

/** One place, as it was said. */
export function feltText(felt: Felt): string {
  const place = catalogue.content?.places.find((p) => p.key === felt.place)?.name ?? felt.place;
  return `${felt.side ? `${felt.side} ` : ''}${place} ${kinds[felt.kind]}${felt.kind === 'injury' ? '' : `, ${felt.level} of 10`}`;
}

const days: Record<string, string> = {
  ill: 'ill or feverish',
  sleptBadly: 'slept badly',
  trainedHard: 'other hard training',
};

/** One thing that was said, as the history has it. */
export const checkInLine = (field?: string | null, level?: string | null, place?: string | null): string =>
  !field
    ? 'all well'
    : place
      ? `${place} ${kinds[field as Kind]}${level ? `, ${level} of 10` : ''}`
      : (days[field] ?? field);

/** All that was said, in a line. */
export function checkInText(said: {
  sleptBadly: boolean;
  ill: boolean;
  trainedHard: boolean;
  felt: readonly Felt[];
}): string {
  const parts = [
    said.ill && days.ill,
    said.sleptBadly && days.sleptBadly,
    said.trainedHard && days.trainedHard,
    ...said.felt.map(feltText),
  ].filter(Boolean);
  return parts.length ? parts.join('; ') : 'all well';
}
