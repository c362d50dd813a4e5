import type { Refusal, Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { pageText, problemText } from '$lib/parts/problems';
import { tagName } from '$lib/students/tags';

const rules: Record<string, (drill: string, tag: string) => string> = {
  offLimitsPlanned: (d, t) => `${d}: ${t || 'what it loads'} is off limits.`,
  lightOnlyHeavy: (d, t) => `${d}: ${t || 'what it loads'} is light only, and this version loads it heavily.`,
  lightOnlyFiller: (d, t) => `${d}: ${t || 'what it loads'} is light only, and fills no session.`,
  lightOnlyNotEasiest: (d, t) => `${d}: ${t || 'what it loads'} is light only; the easiest version is done.`,
  lightOnlyTooMuch: (d, t) => `${d}: ${t || 'what it loads'} is light only; half the work is enough.`,
  wristNotSpared: (d) =>
    `${d || 'The session'}: more weight on the hands than wrists that are light only take.`,
  holdNotShort: (d) => `${d}: passive holds stay at 30 s.`,
  rampOverTop: (d) => `${d}: the effort goes over the student’s top.`,
  overCeiling: (d) => `${d}: one round is over the ceiling of the drill.`,
  notRested: (d) => (d ? `${d}: a round less was asked for.` : 'A round less was asked for.'),
  notEased: (d) => `${d}: after pain or a back-off it is done one version easier.`,
  variantTooHard: (d) =>
    `${d}: a harder version than was done so far; two full sessions of the one before lead to it.`,
  overReturnDose: (d) => `${d}: the way back after the break is shorter.`,
  overFirstWeekDose: (d) => `${d}: more than the dose of a first week.`,
  overStep: (d) => `${d}: more than one step a week.`,
  overWeeksLoad: (_, t) => `${t || 'The load'}: more than this week may hold.`,
  overBackOff: (_, t) => `${t || 'The load'}: a back-off week holds less.`,
  attemptInFirstWeek: (d) => `${d}: no attempt in a first week.`,
  attemptTooEarly: (d) => `${d}: too early for an attempt.`,
  stageNotServed: (d) => `${d} serves no stage that is trained today.`,
  dayGateMissing: (d) => `${d} needs its test of the day before it.`,
  wayOutMissing: (d) => `${d}: the way out was not shown yet.`,
  skillNotTrained: (d) => `${d || 'It'} is for a skill that is not trained here.`,
  regionNotPrepared: (d) => `${d}: nothing before it warms what it loads heavily.`,
  wristsNotPrepared: (d) => `${d}: the wrists are not prepared before weight on the hands.`,
  notCountered: (d) => `${d}: its counter has to follow.`,
  tooSoonForRegion: (d) => `${d}: the same region worked hard too lately.`,
  twoSkillsOnARegion: () => 'Two skills work hard on one region.',
  wristNeedsRest: (d) => `${d}: the wrists worked hard two days running.`,
  neckNeedsRest: (d) => `${d}: the neck was loaded on three days of this week.`,
  outOfOrder: (d) => `${d} stands out of the usual order, light before heavy.`,
  noCalmAtEnd: () => 'It does not end lying still.',
  warmUpTooShort: () => 'The warm-up is shorter than the day asks for.',
  warmUpTooLong: () => 'The warm-up takes a larger part than usual.',
  downTooLong: () => 'Counters and calm take a larger part than usual.',
  mainTooShort: () => 'Less of it than usual is main work.',
  moreRestThanWork: () => 'There is more rest in it than work.',
  tooManyDrills: () => 'More things than are done well in the time.',
  tooManySkills: () => 'More skills than the minutes take.',
  twoRampsOnARegion: () => 'Two ramps on one region.',
  coreMissing: (d) => `${d} is core of the stage and is not in it.`,
  underFilled: () => 'Less than nine tenths of the time are used.',
  overMinutes: () => 'It takes longer than the minutes of the day.',
  weakerNotFirst: () => 'The weaker side does not go first.',
  sideOrder: (d) => `${d}: the sides go in another order than the rest.`,
  sidesUneven: (d) => `${d}: one side does more than half as many rounds again.`,
  notACompanion: (d) => `${d} is no companion of the skill in this version.`,
  noSuchLongestDay: () => 'The minutes are not those of a longest day.',
};

/** What the checker found, in a coach's words. */
export function ruleText(code: string, drill?: string | null, tag?: Schemas['LoadTag'] | null): string {
  const words = rules[code];
  if (!words) return code;
  const text = words(drill ? catalogue.drill(drill).name : '', tag ? tagName(tag) : '');
  // Of no drill that is named, the rule alone.
  const alone = text.replace(/^[\s:]+/, '');
  return alone.charAt(0).toUpperCase() + alone.slice(1);
}

/** Why a command on a session was refused: each rule that stands against it, or what else is in the way. */
export function refusedText(refusal: Refusal): string {
  const [first] = refusal.problems;
  if (!first) return pageText(refusal.code);
  return first.code === 'editRefused'
    ? refusal.problems.map((p) => ruleText(p.field)).join(' ')
    : problemText(first);
}
