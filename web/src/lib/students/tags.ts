import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';

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
};

export const tagName = (tag: Schemas['LoadTag']): string => names[tag];

/** The regions on which pain is logged. */
export const regions = Object.keys(names).slice(0, 12) as Schemas['LoadTag'][];

/** Why a tag is limited or held, in one sentence. */
export function reasonText(reason: Schemas['CautionReason']): string {
  switch (reason.code) {
    case 'intake':
      return catalogue.question(reason.question!)?.label ?? '';
    case 'review':
      return 'Held by what happened in training, until a coach’s review';
    case 'clinician':
      return 'Held until a clinician’s clearance';
    case 'guardianConsent':
      return 'Under 18: a guardian’s consent comes first';
    default:
      return 'The intake screen is not answered yet';
  }
}
