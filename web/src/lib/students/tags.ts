import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { longDay, shortDay } from '$lib/parts/format';

const names: Record<Schemas['LoadTag'], string> = {
  neck: 'neck',
  wrist: 'wrist',
  shoulder: 'shoulder',
  elbow: 'elbow',
  'low-back': 'lower back',
  'hip-front': 'front of the hip',
  'hip-deep-flexion': 'deep hip bend',
  hamstring: 'hamstring',
  adductor: 'inner thigh',
  'knee-deep-flexion': 'deep knee bend',
  'knee-twist': 'knee twist',
  ankle: 'ankle',
  inverted: 'inverted',
  'head-down': 'head-down',
  'passive-end-range': 'passive end range',
  'fall-risk': 'risk of falling',
  'breath-strain': 'breath strain',
  supine: 'lying on the back',
  prone: 'lying face down',
  twist: 'twisting',
  impact: 'running and jumping',
  'spine-flexion': 'rounding the spine',
};

/** Where it hurts, as one points at it: a tag may be a movement, a place is a part of the body. */
export function placeName(tag: Schemas['LoadTag'], place?: string | null): string {
  const all = catalogue.content?.places ?? [];
  return (
    (all.find((p) => p.key === place && p.region === tag) ?? all.find((p) => p.region === tag))?.name ??
    names[tag]
  );
}

/** A place with its side. */
export const placeOn = (
  tag: Schemas['LoadTag'],
  place: string | null | undefined,
  side: Schemas['Side'] | null | undefined,
): string => `${side ? `${side} ` : ''}${placeName(tag, place)}`;

export const sideName = (side: Schemas['Side'] | null): string =>
  side === null ? 'Both, or the middle' : side === 'left' ? 'Left' : 'Right';

export const tagName = (tag: Schemas['LoadTag']): string => names[tag];

/** The regions on which pain is logged. */
export const places = Object.keys(names).slice(0, 12) as Schemas['LoadTag'][];

const signals: Record<Schemas['SignalKind'], string> = {
  dullPain: 'dull pain',
  sharpPain: 'sharp pain',
  numbness: 'numbness or tingling',
  headPressure: 'pressure in head or eyes, or dizziness',
  fall: 'an uncontrolled fall',
  fallWithHeadContact: 'head or neck contact',
  breathHeld: 'held breath',
  overCeiling: 'sensation over the ceiling',
  pinch: 'a pinch in a joint',
  pop: 'a pop with pain, weakness or swelling',
  strengthLost: 'sudden loss of strength',
  bailed: 'out by the way out',
  click: 'a click without pain',
  chestTightness: 'a tight chest, breathlessness or fainting',
  saddleNumbness: 'numbness around the saddle or in both legs',
};

export const signalKinds = Object.keys(signals) as Schemas['SignalKind'][];

export const signalName = (signal: Schemas['SignalKind']): string => signals[signal];

/** What was said, with its place, side and number: the same words wherever it stands. */
export function signalLine(said: {
  kind: Schemas['SignalKind'];
  region: Schemas['LoadTag'] | null;
  place: string | null;
  side: Schemas['Side'] | null;
  pain: number | null;
}): string {
  const name = signals[said.kind];
  const where = said.region ? `, ${placeOn(said.region, said.place, said.side)}` : '';
  return `${name[0]!.toUpperCase()}${name.slice(1)}${where}${said.pain == null ? '' : `, ${said.pain} of 10`}`;
}

/** Why a tag is barred: where it comes from. */
export function reasonText(reason: Schemas['BarReason']): string {
  switch (reason.code) {
    case 'intake':
      return catalogue.question(reason.question!)?.label ?? '';
    case 'painEvents':
      return `Two pain events within 14 days${reason.since ? `, the last on ${shortDay(reason.since)}` : ''}`;
    case 'stopRule':
      return `In a session${reason.since ? ` on ${shortDay(reason.since)}` : ''}: ${signals[reason.signal!]}`;
    case 'needsClearance':
      return `${catalogue.question(reason.question!)?.label ?? ''}: nothing before a clearance`;
    case 'tooYoung':
      return 'Under 12: no programmes';
    case 'under16':
      return 'Under 16: short holds, and nothing heavy on the neck';
    case 'trainingConsent':
      return 'No consent to train on record';
    case 'injury':
      return `Injured, as was said${reason.since ? ` on ${shortDay(reason.since)}` : ''}`;
    case 'ill':
      return 'Ill or feverish today: rest';
    case 'newInjury':
      return 'Injured in the last 14 days, as was said today';
    case 'painToday':
      return 'Painful today, as was said before the start';
    case 'soreToday':
      return 'Very sore today, as was said before the start';
    case 'guardianConsent':
      return 'Under 18, and no guardian’s consent on record';
    case 'screenDue':
      return 'The intake screen is six months old';
    case 'somethingChanged':
      return 'Something changed since the intake screen';
    default:
      return 'The intake screen is not answered yet';
  }
}

/** Several tags in a line. */
export const tagList = (tags: readonly Schemas['LoadTag'][]): string =>
  tags.length === Object.keys(names).length ? 'everything' : tags.map(tagName).join(', ');

/** What lifts it, or that it is lifted today. */
export function liftText(reason: Schemas['BarReason']): string {
  if (reason.clearedUntil) return `lifted by a clearance until ${longDay(reason.clearedUntil)}`;
  if (reason.clearedBefore)
    return 'the clearance is older than this and says nothing about it; one recorded from now on lifts it';
  if (reason.lapsedOn)
    return `a clearance lapsed on ${longDay(reason.lapsedOn)} and the bar is back; a new clearance lifts it`;
  switch (reason.liftedBy) {
    case 'clearance':
      return 'a licensed clinician’s clearance lifts it';
    case 'trainingConsent':
      return 'their own consent lifts it';
    case 'nextDay':
      return 'it is of today alone';
    case 'review':
      if (reason.code === 'injury') return 'a coach’s review lifts it';
      return 'a coach’s review lifts it, after two pain-free sessions';
    case 'anyClearance':
      return 'a licensed clinician’s clearance to train lifts it; what it does not name stays barred';
    case 'age':
      return 'it ends with a birthday';
    case 'guardianConsent':
      return 'a guardian’s consent lifts it';
    default:
      return 'going through the screen lifts it';
  }
}
