import type { Refusal, Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { shortDay } from '$lib/parts/format';
import { ruleText } from '$lib/planning/verdicts';
import { tagName } from '$lib/students/tags';
import { loadText } from './weeks';

type Day = Schemas['PlanDayView'];
type Block = Schemas['StoredBlock'];

export const skillName = (skill: string) => catalogue.ladder(skill).name;

/** What was refused for nothing that is typed in the form. */
export const isOfPage = (refusal: Refusal): boolean =>
  refusal.problems.every((p) => ['', 'locks', 'edit'].includes(p.field) || p.field.startsWith('edit.'));

/** Why a plan should be made again, in one sentence. */
export function newsText(news: Schemas['PlanNews']): string {
  switch (news.code) {
    case 'stageChanged':
      return `${skillName(news.skill!)}: the stage changed; the plan still trains stage ${news.number}.`;
    case 'missed': {
      const missed = news.number === 1 ? 'One session was missed' : `${news.number} sessions were missed`;
      switch (news.band) {
        case 'shift':
          return `${missed}: what matters most is moved into the days that are left.`;
        case 'repeat':
          return `${missed}, ${news.days} days since the last one: last week’s dose again.`;
        case 'lighter':
          return `${missed}, ${news.days} days since the last one: 30 % less, and re-test first.`;
        default:
          return news.days == null
            ? `${missed}.`
            : `${missed}, ${news.days} days since the last one: take a new baseline; one stage lower is suggested.`;
      }
    }
    case 'barred':
      return `Something planned is off limits or light only by now, first on ${shortDay(news.day!)}.`;
    case 'outdated':
      return `A rule no longer fits what is planned, first on ${shortDay(news.day!)}.`;
    case 'twice':
      return `${shortDay(news.day!)} has two sessions: one of these weeks, and one that was made by itself. Delete the one that will not be done.`;
    default:
      return 'The programme is over.';
  }
}

/** What a change by hand would break, in one sentence. */
export function brokenText(broken: Schemas['BrokenRule']): string {
  const tag = broken.tag ? tagName(broken.tag) : '';
  const side = broken.side ? `, ${broken.side}` : '';
  const unit = broken.tag === 'wrist' ? 'bodyweight-seconds' : 'minutes';
  if (broken.load != null && broken.most != null)
    return `Week of ${shortDay(broken.day)}: ${tag}${side} would carry ${loadText(broken.load)} ${unit}; ${
      broken.code === 'overBackOff' ? 'a back-off week' : 'this week'
    } allows ${loadText(broken.most)}.`;
  return `${shortDay(broken.day)}: ${ruleText(broken.code, broken.drill, broken.tag)}`;
}

const levels: Record<number, string> = {
  100: 'at this week’s step',
  80: 'a step less',
  60: 'at a first week’s dose',
  90: 'at this week’s step, in a part of the week’s load',
};

/** At the week’s step, all of it or a part of the load. */
export const atStep = (block: Block): boolean => block.level >= 90;

/** What a block is. */
export const blockText = (block: Block): string =>
  block.kind === 'light'
    ? 'lightly'
    : block.kind === 'test'
      ? `tested, ${levels[block.level] ?? ''}`
      : (levels[block.level] ?? '');

export const minutesOf = (seconds: number): string => `${Math.round(seconds / 60)} min`;

/** A few letters for a skill, so that a stone can carry them. */
export const initials = (skill: string): string =>
  skillName(skill)
    .split(/[\s-]+/)
    .filter((w) => w !== 'and')
    .map((w) => w[0]!.toUpperCase())
    .join('')
    .slice(0, 2);

const states: Record<Schemas['PlanDayState'], string> = {
  planned: 'planned',
  running: 'under way',
  done: 'done',
  missed: 'missed',
  barred: 'nothing may be done',
  dropped: 'thrown away',
};

/** A stone for those who hear it. */
export function stoneText(day: Day): string {
  const skills = day.blocks.map((b) => `${skillName(b.skill)} ${blockText(b)}`).join(', ');
  return [
    `${shortDay(day.day)}, ${day.half === 'am' ? 'morning' : 'afternoon'}, ${day.minutes} minutes`,
    skills,
    states[day.state],
    day.tested.length ? 'test day' : '',
    day.pinned ? 'pinned' : '',
    day.change === 'new' ? 'new' : day.change === 'changed' ? 'changed' : '',
  ]
    .filter(Boolean)
    .join('; ');
}

const themes: Record<Schemas['DayTheme'], string> = {
  hips: 'the hips',
  hamstrings: 'the hamstrings',
  care: 'care of wrists and shoulders',
  test: 'tests',
};

/** Why a session is as it is, in one sentence. */
export function reasonText(reason: Schemas['DayReason']): string {
  const name = reason.skill ? skillName(reason.skill) : '';
  const tag = reason.tag ? `${tagName(reason.tag)}${reason.limb ? `, ${reason.limb}` : ''}` : '';
  const unit = reason.tag === 'wrist' ? 'bodyweight-seconds' : 'heavy minutes';
  const more = `No more of ${name}`;
  switch (reason.kind) {
    case 'backOff':
      return 'Back-off week: at most 60 % of the week before, at a first week’s dose, one exposure fewer.';
    case 'exposure':
      return reason.of === 1
        ? `The one exposure of ${name} this week.`
        : `Exposure ${reason.number} of ${reason.of} of ${name} this week.`;
    case 'tested':
      return `${name} is tested, after an easier day${reason.number ? `; ${reason.number} min to measure, warm` : ''}.`;
    case 'theme':
      return `A day for ${themes[reason.theme!]}.`;
    case 'lightDay':
      return 'A light day, as it is set.';
    case 'spacing':
      return `${more}: ${tag} needs ${reason.number} days between, and ${shortDay(reason.day!)} loads it heavily.`;
    case 'fresh':
      return `${more}: ${tag} stays fresh for the test, with ${shortDay(reason.day!)} next to it.`;
    case 'wristDays':
      return `${more}: the hands would be loaded heavily on more than ${reason.number} days running.`;
    case 'neckDays':
      return `${more}: the neck would be loaded on more than ${reason.number} days of ${reason.of}.`;
    case 'weekLoad':
      return `${more}: ${tag} would be over the ${loadText(reason.of!)} ${unit} that the week may carry.`;
    case 'hardDays':
      return `${more}: it would be a second hard day beside ${shortDay(reason.day!)}.`;
    case 'enough':
      return `${more}: it has what it asks for this week.`;
    case 'largestWeek':
      return `${more}: ${tag} has ${loadText(reason.of!)} ${unit} at most in each of these weeks, and all of it here would be over that.`;
    case 'others':
      return `${more}: another session of these weeks would lose more than this one gains.`;
    case 'noMore':
      return `${more} may be on this day, whatever stands around it.`;
    case 'nearCeiling':
      return `The week is near its ceiling: ${tag} ${loadText(reason.number!)} of ${loadText(reason.of!)} ${unit}.`;
    case 'pinned':
      return 'Pinned: it stays as it is when the rest is planned again.';
    case 'byHand':
      return 'Changed by hand.';
    case 'bent':
      return `Pinned over a rule: ${ruleText(reason.code!, null, null)}`;
  }
}

/** A session of a plan, by its day and half. */
export function dayAt(plan: Schemas['PlanView'] | undefined, key: string | undefined) {
  for (const week of plan?.weeks ?? [])
    for (const day of week.days) if (`${day.day}/${day.half}` === key) return { week, day };
  return undefined;
}

const versions: Record<string, string> = {
  first: 'the first plan',
  again: 'planned again',
  byHand: 'changed by hand',
  roster: 'planned again with the whole roster',
};

/** How a version came to be. */
export const versionText = (why: string): string => versions[why] ?? why;
