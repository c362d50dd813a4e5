import type { Schemas } from '$lib/api/client';
import { draftKey } from '$lib/parts/draft.svelte';
import { blankBody, type BodyText } from './body';

/** An intake as it is typed: of one new person, under the id that they will have. */
export type Intake = {
  /** When the newest of it was typed, in milliseconds. */
  at: number;
  body: BodyText;
  /** By question. */
  answers: Record<string, boolean>;
  /** What was told of a question that is counted. */
  signs: Record<string, string[]>;
  consents: Partial<Record<Schemas['ConsentKind'], boolean>>;
  /** Who spoke for someone under 18. */
  guardian: string;
};

/** An intake that was begun on this device and is not saved. */
export type Unfinished = { id: string; name: string; at: number; answered: number };

const days = 24 * 3600 * 1000;
/** Nobody goes on with one that is older: what it holds of a person does not stay here. */
const oldest = 30 * days;

/** Where an intake lies: whose it is stands in it, so that nobody else who signs in here sees it. */
export const intakeKey = (author: string, id: string) => draftKey('new-student', id, author);

export const blankIntake = (): Intake => ({
  at: 0,
  body: { ...blankBody },
  answers: {},
  signs: {},
  consents: {},
  guardian: '',
});

/** The intakes that a coach left half-way on this device, the newest first. */
export function unfinishedIntakes(author: string, now: number): Unfinished[] {
  const prefix = intakeKey(author, '');
  const found: Unfinished[] = [];
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith(prefix))) {
    const intake = read(localStorage.getItem(key));
    if (!intake || intake.at < now - oldest) localStorage.removeItem(key);
    else
      found.push({
        id: key.slice(prefix.length),
        name: intake.body.name.trim(),
        at: intake.at,
        answered: Object.keys(intake.answers).length,
      });
  }
  return found.sort((a, b) => b.at - a.at);
}

/** One intake as text, to be put back where it was. */
export const rawIntake = (author: string, id: string) => localStorage.getItem(intakeKey(author, id));

export const dropIntake = (author: string, id: string) => localStorage.removeItem(intakeKey(author, id));

/** The one draft that the application of before kept, whoever it was about, becomes an unfinished intake of its own. */
export function takeOverIntake(author: string, now: number): void {
  const old = localStorage.getItem('draft:student');
  localStorage.removeItem('draft:student');
  const intake = read(old);
  const id = (JSON.parse(intake ? old! : '{}') as { id?: string }).id;
  if (intake && id) localStorage.setItem(intakeKey(author, id), JSON.stringify({ ...intake, at: now }));
}

function read(text: string | null): Intake | undefined {
  try {
    const kept = JSON.parse(text ?? 'null') as Partial<Intake> | null;
    return kept?.body ? { ...blankIntake(), ...kept, body: { ...blankBody, ...kept.body } } : undefined;
  } catch {
    return undefined;
  }
}
