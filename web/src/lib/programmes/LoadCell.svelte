<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { loadText, shareOf } from './weeks';

  interface Props {
    week: Schemas['LoadOfWeek'];
    most: number;
  }

  let { week, most }: Props = $props();
</script>

<div class="grid grid-cols-[minmax(0,1fr)_5.5rem] items-center gap-2">
  <div class="border-base-300 relative h-4 border-b" aria-hidden="true">
    <span
      class="border-base-content absolute inset-y-0.5 start-0 border"
      style:width={shareOf(week.load, most)}
    ></span>
    <span class="bg-base-content absolute inset-y-0.5 start-0" style:width={shareOf(week.done, most)}></span>
    {#if week.ceiling > 0}
      <span
        class="bg-error absolute -inset-y-0.5 w-0.5"
        style:inset-inline-start={shareOf(week.ceiling, most)}
      ></span>
    {/if}
  </div>
  <span class="figures text-end text-sm whitespace-nowrap">
    {loadText(week.load)}
    {#if week.ceiling > 0}<span class="text-quiet font-normal">of {loadText(week.ceiling)}</span>{/if}
  </span>
</div>
