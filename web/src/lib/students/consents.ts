import type { Schemas } from '$lib/api/client';

type Kind = Schemas['ConsentKind'];

const texts: Record<Kind, { name: string; question: string }> = {
  training: { name: 'Training', question: 'They want to train, and may stop at any time.' },
  pictures: { name: 'Pictures', question: 'Side pictures may be taken, kept and shown to the coaches here.' },
  touch: { name: 'Touch', question: 'They may be touched where it helps.' },
  records: { name: 'Records', question: 'They may be measured, and what is seen is written down.' },
  guardian: { name: 'A guardian’s', question: 'A guardian agrees that they train.' },
};

export const consentName = (kind: Kind): string => texts[kind].name;

export const consentQuestion = (kind: Kind): string => texts[kind].question;

/** In the order in which they are asked. */
export const consentKinds = Object.keys(texts) as Kind[];

/** What follows from a no. */
export const refusedText = (kind: Kind): string =>
  kind === 'training' || kind === 'guardian'
    ? 'Nothing is trained.'
    : kind === 'pictures'
      ? 'No picture is taken, and none is shown.'
      : kind === 'touch'
        ? 'Hands off: words and demonstration only.'
        : '';
