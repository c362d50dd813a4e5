import { resolve } from '$app/paths';
import type { Schemas } from '$lib/api/client';
import type { Course } from './sides';

type Test = Schemas['TestVerdict'];

/** Where a step leads, and what the button says. */
export type Action = { text: string; href: string };

type Where = { student: string; skill: string; side: Course };

/** A student's own page, at a skill and a side; with the place on it to go to. */
export function skillPage({ student, skill, side }: Where, place = ''): string {
  const query = side ? `?skill=${skill}&side=${side}` : `?skill=${skill}`;
  return `${resolve('/students/[id]', { id: student })}${query}${place ? `#${place}` : ''}`;
}

/** The place on a student's page where a test is written down. */
export const placeOf = (test: Test): string =>
  `seen-${test.test.kind}-${test.readOn ?? 'both'}-${('drill' in test.test && test.test.drill) || 'gate'}`;

/** Leads to exactly what a test asks for next; nothing where it asks for nothing that one could go to. */
export function actionOf(test: Test, where: Where): Action | undefined {
  const id = where.student;
  switch (test.next.code) {
    case 'takeReading':
    case 'moreTrials':
      return bench('Read it now', test, id);
    case 'retest':
      return bench('Re-test it', test, id);
    case 'countAttempts':
      return bench('Count attempts', test, id);
    case 'recordHold':
      return 'measure' in test.test && test.test.measure
        ? bench('Time it now', test, id)
        : { text: 'Write the hold down', href: skillPage(where, placeOf(test)) };
    case 'recordReps':
      return { text: 'Write it down', href: skillPage(where, placeOf(test)) };
    case 'tickForm':
      return { text: 'Tick the form', href: skillPage(where, placeOf(test)) };
    case 'showExit':
      return { text: 'Write the way out down', href: skillPage(where, placeOf(test)) };
    case 'logSessions':
    case 'trainPainFree':
    case 'keepTraining':
      return { text: 'To the next session', href: resolve('/students/[id]/sessions', { id }) };
    case 'measureLegs':
      return { text: 'Measure the legs', href: resolve('/students/[id]/edit', { id }) };
    case 'liftBar':
      return { text: 'See the cautions', href: resolve('/students/[id]/cautions', { id }) };
    default:
      return undefined;
  }
}

/** Begins a sitting of that one measure, at its level, on that side first. */
function bench(text: string, test: Test, id: string): Action | undefined {
  const asked = test.test;
  const measure = 'measure' in asked ? asked.measure : undefined;
  if (!measure) return undefined;
  const query = new URLSearchParams({ read: measure });
  const level = 'level' in asked ? asked.level : undefined;
  if (level) query.set('level', level);
  const side = test.next.side ?? test.readOn;
  if (side) query.set('side', side);
  return { text, href: `${resolve('/students/[id]/bench', { id })}?${query}` };
}

/**
 * What is missing, each once: two tests that ask for sessions are one step, with the greater number of them.
 * @returns The nearest one first.
 */
export function stepsOf(unmet: readonly Test[], nearest: Test | undefined): Test[] {
  const most = (code: string) =>
    unmet
      .filter((t) => t.next.code === code)
      .reduce<Test | undefined>(
        (a, b) => (a && (a.next.count ?? 0) >= (b.next.count ?? 0) ? a : b),
        undefined,
      );
  const sessions = most('logSessions');
  const once = (t: Test) => (t.next.code === 'logSessions' ? sessions! : t);
  const ordered = [...(nearest ? [nearest] : []), ...unmet].map(once);
  return ordered.filter((t, i) => t.next.code !== 'nothing' && ordered.indexOf(t) === i);
}
