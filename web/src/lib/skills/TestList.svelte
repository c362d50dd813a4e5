<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { capital, courseName, type Course } from './sides';
  import TestRow from './TestRow.svelte';

  interface Props {
    side: Course;
    title: string;
    work?: string;
    /** What the side names. */
    means?: string | null;
    tests: Schemas['TestVerdict'][];
  }

  let { side, title, work, means, tests }: Props = $props();
</script>

<section aria-label="{courseName(side)} {title}">
  <h3 class="text-lg">
    <SideMark {side} text={side ? `${capital(courseName(side, means))} · ${title}` : capital(title)} />
  </h3>
  {#if work}<p class="text-quiet mb-2 text-sm">{work}</p>{/if}
  <ul>
    {#each tests as test, i (i)}
      <TestRow {test} {side} />
    {/each}
  </ul>
</section>
