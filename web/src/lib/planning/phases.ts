import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';

export const phaseTitles: Record<Schemas['SessionPhase'], string> = {
  warm: 'Warm-up',
  fresh: 'Balance, while fresh',
  strong: 'Strength',
  deep: 'End range, light to heavy',
  peak: 'The position',
  neck: 'Neck, last',
  down: 'Calm',
};

/** Tests of the day close the warm-up, except those that are nothing but a test; what leads in heads its phase. */
const phaseOf = (planned: Schemas['PlannedDrill']): Schemas['SessionPhase'] => {
  const drill = catalogue.drill(planned.drill);
  return planned.reason.code === 'dayGate' && !drill.testOnly
    ? 'warm'
    : (planned.reason.phase ?? drill.phase);
};

export interface PhaseBlock {
  phase: Schemas['SessionPhase'];
  title: string;
  drills: Schemas['PlannedDrill'][];
}

/** The drills in their order, a block for each run of one phase. */
export function phaseBlocks(drills: readonly Schemas['PlannedDrill'][]): PhaseBlock[] {
  const blocks: PhaseBlock[] = [];
  for (const planned of drills) {
    const phase = phaseOf(planned);
    const last = blocks.at(-1);
    if (last?.phase === phase) last.drills.push(planned);
    else blocks.push({ phase, title: phaseTitles[phase], drills: [planned] });
  }
  return blocks;
}

/** Both sides do the same. */
export const sameOnBoth = (
  sides: readonly Schemas['PlannedSide'][],
  text: (side: Schemas['PlannedSide']) => string,
) => sides.length > 1 && sides.every((s) => text(s) === text(sides[0]!));

/** The names of what a session is for. */
export const skillNames = (skill: string, beside: readonly string[]): string =>
  [skill, ...beside].map((s) => catalogue.ladder(s).name).join(' and ');

/** How long a planned drill takes, each side for itself. */
export const sideSeconds = (
  parts: readonly Schemas['SheetPart'][],
  planned: Schemas['PlannedDrill'],
): number[] =>
  parts
    .filter((p) => p.id === planned.id || p.id === `${planned.id}-left` || p.id === `${planned.id}-right`)
    .map((p) => p.seconds);
