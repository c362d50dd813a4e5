import { api, ask, type Schemas } from '$lib/api/client';
import { iso } from '$lib/parts/instant';
import type { Place } from './entry';

/** What the core says of the trials captured so far. */
export type Live = {
  preview?: Schemas['PreviewResponse'];
  verdicts?: { need: Schemas['BenchNeed']; answer: Schemas['RomTestResponse'] }[];
  splitAngleDeg?: number;
  straddle?: Schemas['StraddleResponse'];
  /** Against the other side as it stands on the screen, where something is captured there. */
  across?: Schemas['AsymmetryResponse'] & { value: number };
};

type View = Schemas['SittingView'];
type Measure = Schemas['Measure'];

/** Asks the core: value and noise, the gates that ask for it, and the angles that follow from it. */
export async function lookAt(
  studentId: string,
  view: View,
  measure: Measure,
  place: Place,
  body: Schemas['ReadingRequest'],
  across: () => Schemas['PreviewResponse'] | undefined,
): Promise<Live> {
  const preview = await ask(
    api.POST('/api/v1/students/{studentId}/readings/preview', {
      params: { path: { studentId } },
      body: { ...body, quality: null, sensation: null, pain: whole(body.pain, 0, 10) },
    }),
  );
  const [verdicts, splitAngleDeg, straddle, compared] = await Promise.all([
    verdictsOf(measure, place, preview),
    splitAngleOf(view, measure, place, preview.value),
    straddleOf(view, measure, preview.value),
    compare(measure, place, preview, across()),
  ]);
  return { preview, verdicts, splitAngleDeg, straddle, across: compared };
}

/** What is typed and cannot be a number of that range yet says nothing. */
const whole = (value: number | null | undefined, least: number, most: number): number | null =>
  value != null && Number.isInteger(value) && value >= least && value <= most ? value : null;

async function compare(
  measure: Measure,
  place: Place,
  here: Schemas['PreviewResponse'],
  there: Schemas['PreviewResponse'] | undefined,
): Promise<Live['across']> {
  if (!there || measure.kind !== 'range') return undefined;
  const estimate = ({ value, standardError }: Schemas['PreviewResponse']) => ({ value, standardError });
  const [left, right] = place.side === 'left' ? [here, there] : [there, here];
  const answer = await ask(
    api.POST('/api/v1/compute/asymmetry', {
      body: { left: estimate(left), right: estimate(right), better: measure.better },
    }),
  );
  return { ...answer, value: there.value };
}

async function verdictsOf(
  measure: Measure,
  place: Place,
  preview: Schemas['PreviewResponse'],
): Promise<Live['verdicts']> {
  const now = iso(Date.now());
  return Promise.all(
    place.needs.map(async (need) => ({
      need,
      answer: await ask(
        api.POST('/api/v1/compute/rom-test', {
          body: {
            comparison: need.comparison,
            threshold: need.threshold,
            sem: preview.sem,
            betweenDays: preview.tau,
            resolution: preview.resolution,
            shelfDays: measure.shelfDays,
            minTrials: need.minTrials,
            now,
            readings: [...place.recent.filter((r) => r.at <= now), { at: now, trials: preview.trials }],
          },
        }),
      ),
    })),
  );
}

async function splitAngleOf(
  { leftLegCm, rightLegCm }: View,
  measure: Measure,
  place: Place,
  gapCm: number,
): Promise<number | undefined> {
  if (measure.role !== 'splitGap' || leftLegCm == null || rightLegCm == null) return undefined;
  const [frontLegCm, backLegCm] = place.side === 'left' ? [leftLegCm, rightLegCm] : [rightLegCm, leftLegCm];
  const answer = await ask(
    api.POST('/api/v1/compute/split-angle', { body: { gapCm, frontLegCm, backLegCm } }),
  );
  return answer.angleDeg;
}

async function straddleOf(
  { leftLegCm, rightLegCm, hipWidthCm }: View,
  measure: Measure,
  heelDistanceCm: number,
): Promise<Schemas['StraddleResponse'] | undefined> {
  if (measure.role !== 'straddleHeels' || leftLegCm == null || rightLegCm == null) return undefined;
  return ask(
    api.POST('/api/v1/compute/straddle', { body: { leftLegCm, rightLegCm, hipWidthCm, heelDistanceCm } }),
  );
}
