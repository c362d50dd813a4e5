<script lang="ts">
  import type { Snippet } from 'svelte';
  import { problemText } from '$lib/parts/problems';
  import type { LadderEditor } from './editor.svelte';
  import { placeOf } from './testKinds';
  import VerdictChanges from './VerdictChanges.svelte';

  interface Props {
    editor: LadderEditor;
    /** What to do with the draft. */
    children: Snippet;
  }

  let { editor, children }: Props = $props();
  const trial = $derived(editor.trial);
</script>

<aside class="ruled bg-base-200 border-y p-5 xl:border-y-0 xl:border-s" aria-label="On your students">
  <div class="xl:sticky xl:top-5">
    {@render children()}
    <h2 class="mt-5 mb-2">On your students</h2>
    <div aria-live="polite" class="xl:max-h-[70vh] xl:overflow-y-auto">
      {#if !trial}
        <p class="text-quiet text-sm">Asking…</p>
      {:else if trial.problems.length}
        <p class="next-thing mb-2 font-semibold">
          {trial.problems.length === 1 ? 'One thing' : `${trial.problems.length} things`} to mend first.
        </p>
        <ul class="text-sm">
          {#each trial.problems as p, i (i)}<li class="ruled border-t py-1">
              <span class="text-quiet">{placeOf(editor.ladder, p.field)}</span><br />{problemText(p)}
            </li>{/each}
        </ul>
      {:else}
        <p class="mb-2 text-sm">
          {trial.tried === 0
            ? 'Nobody is on this skill.'
            : trial.changes.length === 0
              ? `None of ${trial.tried} gates would say anything else.`
              : `${trial.changes.length} of ${trial.tried} gates would say something else:`}
        </p>
        <VerdictChanges changes={trial.changes} />
      {/if}
    </div>
  </div>
</aside>
