const names: Record<string, string> = {
  name: 'Name',
  about: 'About',
  birthDate: 'Birth date',
  leftLegCm: 'Left leg, cm',
  rightLegCm: 'Right leg, cm',
  hipWidthCm: 'Between the hip joints, cm',
  bodyweightKg: 'Bodyweight, kg',
  breathSeconds: 'One calm breath, s',
  sensationCeiling: 'Sensation ceiling',
  splitStandard: 'Standard for the split',
  blocksOwned: 'Blocks at hand',
  sessionMinutes: 'Minutes a session',
  guardianConsentOn: 'Guardian’s consent on (asked as a consent now)',
  consentOn: 'Consent on (asked as a consent now)',
  goals: 'Goals',
  equipment: 'At home',
  days: 'Days and minutes',
  bodyWords: 'Their own words',
};

/** A field of the body data, as its label says it. */
export const bodyFieldName = (field: string): string => names[field] ?? field;
