import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { chosen, number, shortDay } from '$lib/parts/format';
import { faceNames } from '$lib/measuring/words';
import { tagName } from '$lib/students/tags';

/** A dose as a coach says it. */
export function doseText(dose: Schemas['Dose']): string {
  switch (dose.kind) {
    case 'ramped':
      return (
        `settle ${dose.settleSeconds} s, then ${dose.rounds} × press ${dose.pressSeconds} s, lift ${dose.liftSeconds} s ` +
        `(${dose.fromPercent}–${dose.toPercent} %), relax ${dose.resettleSeconds} s`
      );
    case 'hold':
      return `${dose.rounds > 1 ? `${dose.rounds} × ` : ''}${dose.seconds ? `${dose.seconds} s` : `${dose.breaths} breaths`}${
        dose.rounds > 1 && dose.restSeconds ? `, rest ${dose.restSeconds} s` : ''
      }`;
    case 'reps':
      return `${dose.sets > 1 ? `${dose.sets} × ` : ''}${dose.reps} repetitions`;
    case 'rhythm':
      return `${dose.reps} slow repetitions, one breath each`;
    case 'supportLadder':
      return `${dose.rounds > 1 ? `${dose.rounds} × ` : ''}${dose.rungs.map((r) => `${r.name.toLowerCase()} for ${r.seconds} s`).join(', ')}`;
    case 'attempts':
      return `${dose.attempts} attempts, ${dose.maxSeconds} s at most`;
    case 'flow':
      return `${dose.rounds} × (${dose.positions
        .map(
          (p) =>
            `${p.name.toLowerCase()} ${p.seconds ? `${p.seconds} s` : `${p.breaths} ${p.breaths === 1 ? 'breath' : 'breaths'}`}`,
        )
        .join(', ')})`;
    default:
      return '';
  }
}

/** What of a dose can be said otherwise after a lesson: how often, and how long or how many. */
export function plannedNumbers(dose: Schemas['Dose']): {
  rounds: number | undefined;
  number: number | undefined;
  counted: boolean;
} {
  switch (dose.kind) {
    case 'hold':
      return { rounds: dose.rounds, number: dose.seconds ?? undefined, counted: false };
    case 'reps':
      return { rounds: dose.sets, number: dose.reps, counted: true };
    case 'rhythm':
      return { rounds: undefined, number: dose.reps, counted: true };
    case 'attempts':
      return { rounds: dose.attempts, number: dose.maxSeconds, counted: false };
    case 'ramped':
    case 'supportLadder':
    case 'flow':
      return { rounds: dose.rounds, number: undefined, counted: false };
    default:
      return { rounds: undefined, number: undefined, counted: false };
  }
}

const propNames: Record<string, string> = {
  block: 'Blocks',
  'folded-blanket': 'Folded blanket',
  'knee-pad': 'Knee pad',
  bench: 'Bench, 45 cm',
  wall: 'A free wall',
};

/** A prop by its key. */
export const propName = (prop: string): string =>
  propNames[prop] ?? `${prop[0]!.toUpperCase()}${prop.slice(1).replaceAll('-', ' ')}`;

/** What a session needs, and what stands in for it at home. */
export const packingText = (lines: readonly Schemas['PackingLine'][]): string =>
  `${lines
    .map((line, i) => {
      const name = i ? propName(line.prop).toLowerCase() : propName(line.prop);
      const counted = line.count != null && line.count !== 1 ? `${line.count} ${name.toLowerCase()}` : name;
      return line.instead ? `${counted} (at home: ${line.instead})` : counted;
    })
    .join('; ')}.`;

export function propText(props: Schemas['PropAdvice'] | null | undefined): string {
  if (!props) return '';
  switch (props.code) {
    case 'floor':
      return 'hands on the floor';
    case 'chairs':
      return 'two chairs or a bench, against a wall';
    case 'nearestAbove':
      return props.faces.length
        ? `nearest above: ${faces(props)} under each hand, ${chosen(props.heightCm, 'cm')}`
        : 'no blocks fit: two chairs or a bench, against a wall';
    default:
      return `${faces(props)} under each hand, ${chosen(props.heightCm, 'cm')}`;
  }
}

/** Blocks by how they stand. */
const faces = (props: Schemas['PropAdvice']) => {
  const sides = props.faces.map((f) => faceNames[f]);
  return sides.length === 1
    ? `a block on its ${sides[0]} side`
    : `blocks stacked, ${sides.join(' and ')} side`;
};

/** Why a drill is in the session. */
export function drillReason(reason: Schemas['DrillReason']): string {
  switch (reason.code) {
    case 'warmUp':
      return 'Warms the whole body first.';
    case 'preparesRegions':
      return 'Prepares the regions that are loaded later.';
    case 'wristsBeforeHands':
      return 'Wrists come before weight on the hands.';
    case 'stageWork':
      return `Work of stage ${reason.stage}.`;
    case 'core':
      return `Core of stage ${reason.stage}.`;
    case 'leadIn':
      return `Leads into ${catalogue.drill(reason.for ?? '').name.toLowerCase()}: one easy round.`;
    case 'standIn':
      return 'In place of the position itself, which is not for today.';
    case 'practice':
      return reason.best
        ? `Three quarters of ${reason.side ? `the ${reason.side} ` : 'the '}best, ${reason.best} s; the gate asks for two holds of ${reason.number} s.`
        : `The ${reason.side ? `${reason.side} ` : ''}gate asks for two holds of ${reason.number} s: at most half of it, until there is a best.`;
    case 'practiceReps':
      return `Practice toward the ${reason.number} clean repetitions that the gate asks for.`;
    case 'wayOut':
      return 'The way out, before the way in.';
    case 'companion':
      return 'Goes well beside it, in its easiest version; it counts for no gate.';
    case 'strengthForStage':
      return `Strength for stage ${reason.stage}.`;
    case 'gateAsksHold':
      return `The ${reason.side ? `${reason.side} ` : ''}gate asks for two holds of ${reason.number} s: this is the test.`;
    case 'gateAsksReps':
      return `The ${reason.side ? `${reason.side} ` : ''}gate asks for ${reason.number} clean repetitions: count them.`;
    case 'dayGate':
      return 'Today’s test, before what needs it.';
    case 'attempt':
      return 'The position itself, now that the delay is over.';
    case 'counter':
      return 'Undoes what came before.';
    default:
      return 'Calm at the end.';
  }
}

/** A rule that shaped the session; of one skill among several it says which. */
export function noteText(note: Schemas['PlanNote'], several = false): string {
  const text = ruleText(note);
  return several && note.skill && note.code !== 'skillLeftOut' && note.code !== 'otherSkillHeavy'
    ? `${catalogue.ladder(note.skill).name}: ${text[0]!.toLowerCase()}${text.slice(1)}`
    : text;
}

function ruleText(note: Schemas['PlanNote']): string {
  const drill = note.drill ? catalogue.drill(note.drill).name : '';
  const tag = note.tag ? tagName(note.tag) : '';
  const n = note.number == null ? '' : number(note.number, 0);
  switch (note.code) {
    case 'offLimits':
      return `${drill} is left out: ${tag} is off limits.`;
    case 'lightOnly':
      return `${drill} is left out: ${tag} is light only.`;
    case 'lightWork':
      return `Light only: ${tag}. The easiest version, half the work, sensation at most ${n} of 10.`;
    case 'lightDay':
      return `${drill} waits: this is a light day for it.`;
    case 'weekLoad':
      return `${drill} waits: this week leaves no more load for the ${tag}.`;
    case 'eased':
      return `${drill} is easier than the stage’s own version, for a caution${note.side ? `, ${note.side}` : ''}.`;
    case 'spacing':
      return `${drill} is left out: ${tag} worked hard less than ${n} days ago. From ${note.date ? shortDay(note.date) : ''} again.`;
    case 'firstWeek':
      return 'First week of this skill: the first-week dose, and no attempts.';
    case 'attemptDelay':
      return `No attempt yet: first ${n} sessions, and not before ${note.date ? shortDay(note.date) : ''}.`;
    case 'weakerFirst':
      return `${note.side === 'left' ? 'Left' : 'Right'} is weaker and goes first.`;
    case 'extraRound':
      return `${drill}: one more round on ${note.side}, the weaker side.`;
    case 'sidesAlternate':
      return `No side is weaker beyond noise: the sides take turns, ${note.side} first today.`;
    case 'reBaseline':
      return `${n} days away: first-week dose and no attempts. Take a new baseline; one stage lower is suggested.`;
    case 'lighterAfterBreak':
      return `${n} days away: the dose starts 30 % lower and comes back session by session. Re-test first.`;
    case 'repeatLastWeek':
      return `${n} days away: last week’s dose again, nothing grows.`;
    case 'wayBack':
      return note.number === 1
        ? 'The last session of the way back.'
        : `The way back takes ${n} sessions, this one among them.`;
    case 'easierAfterPain':
      return `${tag}: one version easier after pain, until two sessions went without.`;
    case 'easierAfterBackOff':
      return `${drill}: one version easier after a back-off, until two sessions went without.`;
    case 'shorterAfterCeiling':
      return `${drill}: half the settling after it went over the ceiling, until two sessions went without.`;
    case 'oneRoundFewer':
      return note.tag
        ? `Sore: one round fewer of what loads the ${tag}.`
        : 'A bad night or other hard training: one round fewer of everything.';
    case 'noStep':
      return `${tag}: too much on the day after, so no step this week.`;
    case 'lighterAfterPain':
      return `${tag}: 40 % less for two weeks after the review.`;
    case 'notPrepared':
      return `${drill} is left out: what prepares it is off limits or does not fit this stage.`;
    case 'wristRest':
      return `${drill} is left out: the wrists worked hard ${n} days running.`;
    case 'neckRest':
      return `${drill} is left out: the neck was loaded on ${n} of the last days.`;
    case 'wayOutFirst':
      return `${drill} is left out: the way out comes before the way in.`;
    case 'longestDay':
      return `What is trained here fills ${n} minutes sensibly: another skill would use the rest.`;
    case 'otherSkillHeavy':
      return `${drill} is left out: another skill of the day loads the ${tag} heavily already.`;
    case 'skillLeftOut':
      return note.number
        ? `${catalogue.ladder(note.skill!).name} is for another day: from ${n} minutes on there is room for it.`
        : `${catalogue.ladder(note.skill!).name} is for another day: nothing of it may be done beside the rest.`;
    case 'lowerStage':
      return `Stage ${n} is trained${note.side ? `, ${note.side}` : ''}: nothing of the present stage’s core is allowed today. It counts for no gate.`;
    case 'notEnoughToDo':
      return `The rules leave ${n} minutes of work: the rest of the time stays free.`;
    case 'didNotFit':
      return `${drill} did not fit: ${n} more minutes would do.`;
    default:
      return '';
  }
}

/** Why a planned session is not run today, in the coach's words; what is not listed is a rule that it breaks by now. */
const outdated: Record<string, string> = {
  otherFormat: 'an older version of the application made it',
  otherDay: 'it was made for another day',
  otherLadder: 'the student follows another ladder by now',
  otherApproach: 'the approach changed',
  stageChanged: 'the stage changed',
  offLimitsPlanned: 'something in it is off limits by now',
  lightOnlyHeavy: 'something in it is light only by now',
  lightOnlyFiller: 'something that is light only by now fills it',
  lightOnlyNotEasiest: 'something in it is light only by now, and there is an easier version',
  lightOnlyTooMuch: 'something in it is light only by now: half of it is enough',
  wristNotSpared: 'the wrists are light only by now',
  holdNotShort: 'passive holds stay short by now',
  rampOverTop: 'its effort is over the student’s top',
  twoSkillsOnARegion: 'two skills load one region heavily',
  tooSoonForRegion: 'the same region was trained too lately',
  wristNeedsRest: 'the wrists were loaded two days running',
  neckNeedsRest: 'the neck was loaded on three days of this week',
  overFirstWeekDose: 'it is over the dose of a first week or of the way back',
  overReturnDose: 'it was planned before the break, and the way back begins shorter',
  overStep: 'it is more than one step a week',
  variantTooHard: 'a version in it is harder than what was done so far',
  notRested: 'a round less was asked for before the start',
  notEased: 'after pain or a back-off it is done easier',
  attemptInFirstWeek: 'it attempts the position in a first week or on the way back',
  attemptTooEarly: 'it attempts the position too early',
  weakerNotFirst: 'another side is the weaker one by now',
  sideOrder: 'another side is the weaker one by now',
  wayOutMissing: 'the way out was not shown',
};

export function outdatedText(codes: readonly string[]): string {
  const reasons = [...new Set(codes.map((c) => outdated[c] ?? 'it breaks a rule by now'))];
  return `This session is not run today: ${reasons.join('; ')}.`;
}
