import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { number, shortDay } from '$lib/parts/format';
import { ruleText } from '$lib/planning/verdicts';
import { tagName } from '$lib/students/tags';

type Day = Schemas['PlanDayView'];
type Block = Schemas['StoredBlock'];

export const skillName = (skill: string) => catalogue.ladder(skill).name;

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
    return `Week of ${shortDay(broken.day)}: ${tag}${side} would carry ${number(broken.load)} ${unit}; ${
      broken.code === 'overBackOff' ? 'a back-off week' : 'this week'
    } allows ${number(broken.most)}.`;
  return `${shortDay(broken.day)}: ${ruleText(broken.code, broken.drill, broken.tag)}`;
}

const levels: Record<number, string> = {
  100: 'at this week’s step',
  80: 'a step less',
  60: 'at a first week’s dose',
};

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

/** Why the day is as it is, each reason in one sentence. */
export function reasonsOf(day: Day, week: Schemas['PlanWeek'], plan: Schemas['PlanView']): string[] {
  const reasons: string[] = [];
  if (week.backOff)
    reasons.push(
      'Back-off week: at most 60 % of the week before, at a first week’s dose, one exposure fewer.',
    );
  for (const block of day.blocks) {
    const name = skillName(block.skill);
    const had = week.days.filter((d) => d.blocks.some((b) => b.skill === block.skill && b.exposes)).length;
    if (block.kind === 'light')
      reasons.push(
        `${name} is light: a heavy day would be too near another one, or the week’s load is used.`,
      );
    else if (block.level < 100 && !week.backOff)
      reasons.push(`${name} is ${levels[block.level]}: the week’s load leaves no more.`);
    if (block.exposes)
      reasons.push(`One of ${had} ${had === 1 ? 'exposure' : 'exposures'} of ${name} this week.`);
  }
  if (day.tested.length)
    reasons.push(
      `Test day: ${day.tested.map(skillName).join(' and ')}, after an easier day${
        day.testMinutes ? `; ${day.testMinutes} min to measure, warm` : ''
      }.`,
    );
  const near = plan.loads
    .map((l) => ({ l, w: l.weeks[week.number - 1]! }))
    .filter(({ w }) => w.ceiling > 0 && w.load >= 0.85 * w.ceiling)
    .slice(0, 3)
    .map(
      ({ l, w }) =>
        `${tagName(l.tag)}${l.side ? `, ${l.side}` : ''} ${number(w.load)} of ${number(w.ceiling)}`,
    );
  if (near.length) reasons.push(`Near the week’s ceiling: ${near.join('; ')}.`);
  if (day.pinned) reasons.push('Pinned: it stays as it is when the rest is planned again.');
  if (day.byHand) reasons.push('Changed by hand.');
  for (const code of day.broken) reasons.push(`Pinned over a rule: ${ruleText(code, null, null)}`);
  return reasons;
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
