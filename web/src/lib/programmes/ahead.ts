import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { shortDay } from '$lib/parts/format';
import { tagName } from '$lib/students/tags';
import { loadText } from './weeks';
import { blockText, skillName } from './words';

type Rule = Schemas['PieceRule'];

const times = (count: number, what: string) => `${count} ${count === 1 ? what : `${what}s`}`;
const sideText = (rule: Rule) => (rule.limb ? `, ${rule.limb}` : '');

/** One rule that stands in the way; sessions without time are said together. */
function ruleText(rule: Rule): string {
  switch (rule.kind) {
    case 'exposures':
      return `${times(rule.number ?? 0, 'exposure')} of ${skillName(rule.skill!)} in week ${rule.week}`;
    case 'test':
      return `the test of ${skillName(rule.skill!)} in week ${rule.week}`;
    case 'spacing':
      return `${tagName(rule.tag!).toLowerCase()} at the end of its range on ${shortDay(rule.earlier!)} needs clear days before ${shortDay(rule.day!)}`;
    case 'fresh':
      return `the test on ${shortDay(rule.day!)} wants an easier day before it than ${shortDay(rule.earlier!)}`;
    case 'wristDays':
      return `heavy wrist load on at most ${rule.number} days running, from ${shortDay(rule.day!)}`;
    case 'neckDays':
      return `the neck loaded on at most ${rule.number} days of seven, from ${shortDay(rule.day!)}`;
    case 'weekLoad':
      return `the ceiling of week ${rule.week} for ${tagName(rule.tag!).toLowerCase()}${sideText(rule)}${
        rule.number == null
          ? ''
          : `, ${loadText(rule.number)} ${rule.tag === 'wrist' ? 'bodyweight-seconds' : 'heavy minutes'}`
      }`;
    case 'backOff':
      return `the back-off of week ${rule.week} for ${tagName(rule.tag!).toLowerCase()}${sideText(rule)}`;
    default:
      return '';
  }
}

/** Rules in a coach's words, each once. */
export function rulesText(rules: readonly Rule[], plan?: Schemas['PlanView']): string[] {
  const days = [...new Set(rules.filter((r) => r.kind === 'time').map((r) => r.day!))];
  const minutes = (day: string) =>
    plan?.weeks
      .flatMap((w) => w.days)
      .filter((d) => d.day === day)
      .map((d) => `${d.minutes} min`)
      .join(' and ');
  const said = rules.filter((r) => r.kind !== 'time').map(ruleText);
  if (days.length)
    said.push(
      `no more time than ${days.map((d) => [shortDay(d), minutes(d)].filter(Boolean).join(', ')).join('; ')}`,
    );
  return [...new Set(said)];
}

/** What of a goal does not fit. */
export const shortText = (goal: Schemas['ShortGoal']): string =>
  goal.never
    ? `${skillName(goal.skill)}: none of its core may be trained as things stand; the notes of a session say what is in the way. Other work fills its time.`
    : `${skillName(goal.skill)}: ${times(goal.fewer, 'exposure')} fewer than it asks for, in week${
        goal.weeks.length === 1 ? '' : 's'
      } ${goal.weeks.join(', ')}.`;

/** A goal that is not tested where it should be. */
export const untestedText = (goal: Schemas['UntestedGoal']): string => {
  const weeks = `in week${goal.weeks.length === 1 ? '' : 's'} ${goal.weeks.join(', ')}`;
  return goal.tooShort == null
    ? `${skillName(goal.skill)} is not tested ${weeks}: no session there has an easier day before it and room for it.`
    : `${skillName(goal.skill)} is not tested ${weeks}: a test takes a session of ${goal.tooShort} min at least. One such day lets its gate open.`;
};

/** Why, of the first of the weeks: what was asked, and what leaves no room for it. */
export function whyShort(goal: Schemas['ShortGoal'], plan: Schemas['PlanView']): string | undefined {
  if (goal.never || goal.why.length === 0) return undefined;
  const mine = goal.why.filter((r) => r.kind === 'exposures' && r.skill === goal.skill);
  const others = goal.why.filter((r) => !mine.includes(r));
  const asked = mine.map(ruleText).join(', ') || 'All of it';
  return others.length === 0
    ? `${asked}: no session may have its core then.`
    : `${asked} cannot be, together with: ${rulesText(others, plan).join('; ')}.`;
}

const decides = (what: string | null | undefined) =>
  what
    ? (catalogue.measure(what) ?? catalogue.drill(what)).name.toLowerCase()
    : 'the sessions that it asks for';

/** When a gate may be expected. */
export function gateText(gate: Schemas['ExpectedGate']): string {
  switch (gate.code) {
    case 'openNow':
      return 'open now: yours to decide';
    case 'expected':
      return gate.earliest === gate.latest
        ? `from ${shortDay(gate.earliest!)}, by ${decides(gate.decides)}`
        : gate.latest
          ? `${shortDay(gate.earliest!)} to ${shortDay(gate.latest)}, by ${decides(gate.decides)}`
          : `not before ${shortDay(gate.earliest!)}, by ${decides(gate.decides)}`;
    case 'notAtThisSlope':
      return `not at this slope: ${decides(gate.decides)} does not come nearer fast enough`;
    case 'notEnoughPlanned':
      return 'the plan ends before the sessions that it asks for';
    case 'blocked':
      return 'held by a caution';
    case 'waiting':
      return 'waits for the other side';
    case 'owned':
      return 'owned';
    default:
      return gate.earliest
        ? `not before ${shortDay(gate.earliest)}; too few readings${gate.decides ? ` of ${decides(gate.decides)}` : ''} to say more`
        : 'too few readings to say';
  }
}

/** Whether a target day can be met. */
export function targetText(target: Schemas['TargetVerdict']): string {
  const name = skillName(target.skill);
  const day = shortDay(target.target);
  switch (target.code) {
    case 'reached':
      return `${name} is owned already.`;
    case 'barred':
      return `${name} by ${day} cannot be met while its gate is held by a caution.`;
    case 'tooManyGates':
      return `${name} by ${day} cannot be met: ${times(target.gates, 'gate')} ${target.gates === 1 ? 'is' : 'are'} left, each shown on a test day of its own, the last on ${shortDay(target.earliest!)} at the earliest.`;
    case 'notAtThisSlope':
      return `${name} by ${day} is not to be expected: at the slope of late the present gate opens too late, and ${times(target.gates, 'gate')} ${target.gates === 1 ? 'is' : 'are'} left.`;
    default:
      return `${name} by ${day} can be met: ${times(target.gates, 'gate')} left, ${shortDay(target.earliest!)} at the earliest.`;
  }
}

export const targetFails = (target: Schemas['TargetVerdict']): boolean =>
  target.code !== 'possible' && target.code !== 'reached';

const blocksText = (blocks: readonly Schemas['StoredBlock'][]) =>
  blocks.length ? blocks.map((b) => `${skillName(b.skill)} ${blockText(b)}`).join(' and ') : 'nothing';

const whys: Record<string, string> = {
  timeAdded: 'there is time on it now',
  timeGone: 'there is no time on it any more',
  minutes: 'its minutes changed',
  goals: 'the goals changed',
  theme: 'what the day is for changed',
  pinned: 'a coach put it there',
  barred: 'something in it is off limits or light only by now',
  missed: 'sessions before it were missed',
  around: 'it makes room for what changed around it',
};

/** What of a session changed, and why. */
export function changeText(change: Schemas['DayDifference']): string {
  const why =
    change.why === 'stage'
      ? `the stage of ${skillName(change.skill!)} changed`
      : (whys[change.why] ?? change.why);
  const what =
    change.kind === 'new'
      ? `new, ${blocksText(change.now)}`
      : change.kind === 'gone'
        ? `gone, it was ${blocksText(change.was)}`
        : blocksText(change.was) === blocksText(change.now)
          ? blocksText(change.now)
          : `${blocksText(change.was)} becomes ${blocksText(change.now)}`;
  return `${shortDay(change.day)}${change.half === 'am' ? ', morning' : ''}: ${what}, because ${why}.`;
}

const weekdays: Record<Schemas['DayOfWeek'], string> = {
  monday: 'Mondays',
  tuesday: 'Tuesdays',
  wednesday: 'Wednesdays',
  thursday: 'Thursdays',
  friday: 'Fridays',
  saturday: 'Saturdays',
  sunday: 'Sundays',
};

/** How much more time would do. */
export function roomText(room: Schemas['Room']): string[] {
  if (room.missing === 0) return ['All that is asked for fits.'];
  if (room.would.length === 0)
    return [
      `Neither half an hour more in each session nor one more day fits any of it in the first ${room.weeks} weeks: what is in the way is load or rest, not time.`,
    ];
  return room.would.map((more) => {
    const left =
      more.left === 0
        ? 'all of it fits'
        : `${more.left} instead of ${room.missing} ${room.missing === 1 ? 'exposure is' : 'exposures are'} missing`;
    return more.weekday
      ? `A session of ${more.minutes} min more, on ${weekdays[more.weekday]}: ${left}.`
      : `${more.minutes} minutes more in each session: ${left}.`;
  });
}
