import { api, ask, type Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { phaseTitles } from '$lib/planning/phases';
import { workNames } from '$lib/sessions/words';

export type DrillPage = Schemas['DrillPage'];

let loading: Promise<DrillPage[]> | undefined;

/** All that is known of every drill: asked for once, when the library is opened. */
export const allDrills = (): Promise<DrillPage[]> =>
  (loading ??= ask(api.GET('/api/v1/drills')).catch((error: unknown) => {
    loading = undefined;
    throw error;
  }));

/** Asked for anew after the studio has changed one of its own. */
export async function drillsAnew(): Promise<DrillPage[]> {
  loading = undefined;
  await catalogue.reload();
  return allDrills();
}

export const drillPhases = Object.keys(phaseTitles) as Schemas['SessionPhase'][];

/** Where a drill is work of a stage: on one ladder, or on all. */
export const servesText = (serves: DrillPage['serves'][number], ladder: string): string =>
  `${ladder}, ${serves.fromStage === serves.toStage ? `stage ${serves.fromStage}` : `stages ${serves.fromStage} to ${serves.toStage}`}` +
  (serves.core.length ? `; core of ${serves.core.join(', ')}` : '');

/** Whether a drill is found by what is typed: its name, purpose or a variant's name. */
export function foundBy(drill: DrillPage, typed: string): boolean {
  const words = typed.trim().toLowerCase();
  return [drill.name, drill.purpose, ...drill.variants.map((v) => v.name)].some((t) =>
    t.toLowerCase().includes(words),
  );
}

const breaths: Record<Schemas['CueBreath'], string> = { free: '', in: 'breathe in', out: 'breathe out' };

/** When a cue is said, and with which breath: its phase or position, its version. */
export const cueWhen = (cue: Schemas['Cue'], drill: DrillPage): string =>
  [
    cue.position === cue.says ? '' : (cue.position ?? (cue.at ? workNames[cue.at] : '')),
    breaths[cue.breath ?? 'free'],
    drill.variants.find((v) => v.key === cue.variant)?.name ?? '',
  ]
    .filter(Boolean)
    .join(', ')
    .toLowerCase();
