import { newId, type FieldProblem, type Schemas } from '$lib/api/client';
import { parseNumber } from '$lib/students/body';
import { plannedNumbers } from './words';

/** What is typed about one part; empty is as planned. */
export type SaidOfPart = { done: boolean; rounds: string; number: string };

export type SaidSignal = {
  signal: Schemas['SignalKind'] | '';
  region: Schemas['LoadTag'] | '';
  pain: string;
};

/** A lesson that is being written down, as it is typed. */
export type LogText = {
  id: string;
  endedAt: string;
  parts: Record<string, SaidOfPart>;
  signals: SaidSignal[];
  carryOver: string;
};

export const asPlanned = (): SaidOfPart => ({ done: true, rounds: '', number: '' });

export const blankLog = (): LogText => ({ id: newId(), endedAt: '', parts: {}, signals: [], carryOver: '' });

export const isChanged = (said: SaidOfPart | undefined): boolean =>
  said !== undefined && (!said.done || said.rounds.trim() !== '' || said.number.trim() !== '');

/** Each planned side with the part that it is on the sheet: both stand in the order of the plan. */
export const partsOf = (
  sheet: Schemas['SessionSheet'],
): { part: Schemas['SheetPart']; planned: Schemas['PlannedSide'] }[] =>
  sheet.plan.drills.flatMap((d) => d.sides).map((planned, i) => ({ part: sheet.parts[i]!, planned }));

/** The body to send, or what cannot be read. */
export function readLog(
  text: LogText,
  sheet: Schemas['SessionSheet'],
): { body: Schemas['LogRequest']; problems: FieldProblem[] } {
  const problems: FieldProblem[] = [];
  const numberAt = (value: string, field: string): number | null => {
    const read = parseNumber(value);
    if (Number.isNaN(read)) problems.push({ code: 'notANumber', field });
    return read;
  };
  const parts = partsOf(sheet).flatMap(({ part, planned }) => {
    const said = text.parts[part.id];
    if (!isChanged(said)) return [];
    const number = numberAt(said!.number, `parts.${part.id}`);
    const { counted } = plannedNumbers(planned.dose);
    return [
      {
        part: part.id,
        done: said!.done,
        rounds: numberAt(said!.rounds, `parts.${part.id}`),
        seconds: counted ? null : number,
        cleanReps: counted ? number : null,
      },
    ];
  });
  const signals = text.signals.flatMap((s, i) =>
    s.signal === ''
      ? []
      : [
          {
            signal: s.signal,
            region: s.region === '' ? null : s.region,
            pain: numberAt(s.pain, `signals.${i}`),
            side: null,
          },
        ],
  );
  return {
    problems,
    body: {
      id: text.id,
      endedAt: text.endedAt ? new Date(text.endedAt).toISOString() : null,
      parts,
      signals,
      carryOver: text.carryOver.trim() || null,
    },
  };
}
