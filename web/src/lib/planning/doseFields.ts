import type { Schemas } from '$lib/api/client';

export interface DoseField {
  field: keyof Schemas['DoseChange'];
  label: string;
  value: number;
}

const number = (field: DoseField['field'], label: string, value: number | null | undefined): DoseField[] =>
  value == null ? [] : [{ field, label, value }];

/** The numbers of a dose that a hand may change. */
export function doseFields(dose: Schemas['Dose']): DoseField[] {
  switch (dose.kind) {
    case 'hold':
      return [
        ...number('rounds', 'Rounds', dose.rounds),
        ...number('seconds', 'Seconds', dose.seconds),
        ...number('breaths', 'Breaths', dose.breaths),
        ...(dose.rounds > 1 ? number('restSeconds', 'Rest, s', dose.restSeconds) : []),
      ];
    case 'ramped':
      return [
        ...number('rounds', 'Rounds', dose.rounds),
        ...number('settleSeconds', 'Settle, s', dose.settleSeconds),
        ...number('pressSeconds', 'Press, s', dose.pressSeconds),
        ...number('liftSeconds', 'Lift, s', dose.liftSeconds),
        ...number('resettleSeconds', 'Relax, s', dose.resettleSeconds),
        ...number('toPercent', 'Effort to, %', dose.toPercent),
      ];
    case 'reps':
      return [
        ...number('rounds', 'Sets', dose.sets),
        ...number('reps', 'Repetitions', dose.reps),
        ...(dose.sets > 1 ? number('restSeconds', 'Rest, s', dose.restSeconds) : []),
      ];
    case 'rhythm':
      return number('reps', 'Repetitions', dose.reps);
    case 'supportLadder':
      return [
        ...number('rounds', 'Rounds', dose.rounds),
        ...number('seconds', 'Last support, s', dose.rungs.at(-1)?.seconds),
        ...(dose.rounds > 1 ? number('restSeconds', 'Rest, s', dose.restSeconds) : []),
      ];
    case 'attempts':
      return [
        ...number('rounds', 'Attempts', dose.attempts),
        ...number('seconds', 'Seconds at most', dose.maxSeconds),
        ...number('restSeconds', 'Rest, s', dose.restSeconds),
      ];
    case 'flow':
      return number('rounds', 'Rounds', dose.rounds);
    default:
      return [];
  }
}
