import { newId, type FieldProblem, type Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { parseNumber } from '$lib/students/body';
import { plannedNumbers } from './words';

/** What is typed about one part; empty is as planned. */
export type SaidOfPart = {
  done: boolean;
  rounds: string;
  /** Of all its rounds. */
  number: string;
  /** What was seen of each round, where a gate reads them. */
  seen: string[];
};

export type SaidSignal = {
  signal: Schemas['SignalKind'] | '';
  /** A place of the body. */
  place: string;
  side: Schemas['Side'] | '';
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

export const asPlanned = (): SaidOfPart => ({ done: true, rounds: '', number: '', seen: [] });

export const blankLog = (): LogText => ({ id: newId(), endedAt: '', parts: {}, signals: [], carryOver: '' });

export const isChanged = (said: SaidOfPart | undefined): boolean =>
  said !== undefined &&
  (!said.done || said.rounds.trim() !== '' || said.number.trim() !== '' || seenIn(said) > 0);

/** The place with its region. */
function where(place: string | undefined): { region: Schemas['LoadTag'] | null; place: string | null } {
  const known = catalogue.content?.places.find((p) => p.key === place);
  return { region: known?.region ?? null, place: known?.key ?? null };
}

const seenIn = (said: SaidOfPart): number => said.seen.filter((n) => n.trim() !== '').length;

const mostRounds = 10;

/** For how many rounds there is a field for what was seen: as many as were done, or were planned. */
export function roundsOf(said: SaidOfPart, planned: number | undefined): number {
  const typed = parseNumber(said.rounds);
  return Math.min(mostRounds, Math.max(1, typed !== null && typed > 0 ? Math.round(typed) : (planned ?? 1)));
}

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
    const field = `parts.${part.id}`;
    const { counted, rounds } = plannedNumbers(planned.dose);
    const number = part.proves ? null : numberAt(said!.number, field);
    const seen = said!.seen.slice(0, part.proves ? roundsOf(said!, rounds) : 0).flatMap((typed, i) => {
      const read = numberAt(typed, field);
      return read === null ? [] : [{ round: i + 1, number: read }];
    });
    return [
      {
        part: part.id,
        done: said!.done,
        rounds: numberAt(said!.rounds, field),
        seconds: counted ? null : number,
        cleanReps: counted ? number : null,
        seen,
      },
    ];
  });
  const signals = text.signals.flatMap((s, i) =>
    s.signal === ''
      ? []
      : [
          {
            signal: s.signal,
            ...where(s.place),
            pain: numberAt(s.pain, `signals.${i}`),
            side: s.side || null,
          },
        ],
  );
  return {
    problems,
    body: {
      id: text.id,
      endedAt: null,
      endedLocal: text.endedAt.slice(0, 16) || null,
      parts,
      signals,
      carryOver: text.carryOver.trim() || null,
    },
  };
}
