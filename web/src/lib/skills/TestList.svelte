<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import SideMark from '$lib/parts/SideMark.svelte';
  import TestRow from './TestRow.svelte';

  interface Props {
    side: Schemas['Side'];
    title: string;
    work?: string;
    tests: Schemas['TestVerdict'][];
  }

  let { side, title, work, tests }: Props = $props();
</script>

<section aria-label="{side} {title}">
  <h3 class="text-lg"><SideMark {side} text="{side === 'left' ? 'Left' : 'Right'} · {title}" /></h3>
  {#if work}<p class="text-quiet mb-2 text-sm">{work}</p>{/if}
  <ul>
    {#each tests as test, i (i)}
      <TestRow {test} {side} />
    {/each}
  </ul>
</section>
