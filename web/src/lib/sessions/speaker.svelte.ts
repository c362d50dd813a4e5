import type { Runner } from './runner.svelte';
import { hush, speak } from './speech';
import { takenOutText } from './takenOut';

/** Speaks what comes: what to get ready for, and the cue of each stretch of work. To be called while a component is made. */
export function speaks(runner: Runner, silent: () => boolean): void {
  const taken = $derived(runner.taken ? takenOutText(runner.taken) : '');
  const aloud = $derived(
    taken
      ? taken
      : !runner.running || runner.run.over
        ? ''
        : runner.segment.kind === 'setUp'
          ? [runner.version.name, runner.version.side].filter(Boolean).join(', ')
          : runner.cue,
  );
  const stretch = $derived(
    runner.run.over ? '' : `${runner.run.at}/${runner.version.id}/${runner.run.segment}`,
  );

  $effect(() => {
    void stretch;
    if (silent() || !aloud) hush();
    else speak(aloud);
    return hush;
  });
}
