import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { number, withUnit } from '$lib/parts/format';
import { placeName } from '$lib/students/tags';
import { capital, courseName, type Course } from './sides';

const states: Record<Schemas['GateState'], string> = {
  open: 'ready',
  retest: 're-test',
  closed: 'keep training',
  waiting: 'waiting',
  blocked: 'barred',
  owned: 'owned',
};

export const stateName = (state: Schemas['GateState']): string => states[state];

/** The heading of the "why" panel. */
export function whyTitle(side: Course, state: Schemas['GateState'], means?: string | null): string {
  const gate = !side ? 'the gate' : means ? `the gate of the ${courseName(side, means)}` : `the ${side} gate`;
  switch (state) {
    case 'open':
      return `Why ${gate} is open`;
    case 'retest':
      return `Why ${gate} says re-test`;
    case 'waiting':
      return `Why ${means ? 'the ' : ''}${courseName(side, means)} is waiting`;
    case 'blocked':
      return `Why ${gate} is barred`;
    case 'owned':
      return side ? `${capital(courseName(side, means))} owns it` : 'The skill is owned';
    default:
      return `Why ${gate} is closed`;
  }
}

export function plateauText(plateau: Schemas['Plateau']): string {
  const measure = catalogue.measure(plateau.measure);
  return `${measure.name}${plateau.side ? `, ${plateau.side}` : ''} has not moved for ${plateau.days} days: ${withUnit(
    Math.abs(plateau.change),
    measure.unit,
  )} over ${plateau.tests} tests, noise ${withUnit(plateau.mdc95, measure.unit)}. Change something.`;
}

export function stepBackText(reason: Schemas['StepBackReason']): string {
  switch (reason.code) {
    case 'painEvents':
      return `${number(reason.number, 0)} pain events within 14 days${reason.region ? `: ${placeName(reason.region)}` : ''}.`;
    case 'rangeLost':
      return `${catalogue.measure(reason.measure!).name}${reason.side ? `, ${reason.side},` : ''} has dropped ${withUnit(reason.number, catalogue.measure(reason.measure!).unit)} below what opened this stage, on two tests.`;
    default:
      return `${number(reason.number, 0)} days since the last session.`;
  }
}

const kinds: Record<Schemas['DecisionKind'], string> = {
  place: 'Placed',
  advance: 'Advanced',
  stay: 'Stayed',
  stepBack: 'Stepped back',
  override: 'Advanced by override',
  move: 'Moved to another version',
};

export const decisionName = (kind: Schemas['DecisionKind']): string => kinds[kind];

const groups: Record<Schemas['ReadinessGroup'], string> = {
  ready: 'Ready to decide',
  nearly: 'Nearly',
  stalled: 'Stalled',
  blocked: 'Barred',
  training: 'In training',
  waiting: 'Waiting',
  owned: 'Owned',
};

export const groupName = (group: Schemas['ReadinessGroup']): string => groups[group];
