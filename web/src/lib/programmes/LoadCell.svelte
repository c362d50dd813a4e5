<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { number } from '$lib/parts/format';

  interface Props {
    week: Schemas['LoadOfWeek'];
    most: number;
  }

  let { week, most }: Props = $props();
  const shown = (value: number) => number(value, value >= 100 ? 0 : 1);
  const share = (value: number) => `${most > 0 ? Math.min(100, (100 * value) / most) : 0}%`;
</script>

<div class="grid grid-cols-[minmax(0,1fr)_5.5rem] items-center gap-2">
  <div class="border-base-300 relative h-4 border-b" aria-hidden="true">
    <span class="border-base-content absolute inset-y-0.5 start-0 border" style:width={share(week.load)}
    ></span>
    <span class="bg-base-content absolute inset-y-0.5 start-0" style:width={share(week.done)}></span>
    {#if week.ceiling > 0}
      <span class="bg-error absolute -inset-y-0.5 w-0.5" style:inset-inline-start={share(week.ceiling)}
      ></span>
    {/if}
  </div>
  <span class="figures text-end text-sm whitespace-nowrap">
    {shown(week.load)}
    <span class="text-quiet font-normal">of {week.ceiling > 0 ? shown(week.ceiling) : '–'}</span>
  </span>
</div>
