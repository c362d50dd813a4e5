<script lang="ts">
  import { number } from '$lib/parts/format';
  import type { Bench } from './bench.svelte';
  import { captured, type Place } from './entry';

  interface Props {
    bench: Bench;
    place: Place;
    /** In the measure's unit, as the core reads them. */
    shown: readonly number[];
    best: number | undefined;
    odd: number | undefined;
  }

  let { bench, place, shown, best, odd }: Props = $props();
  const entry = $derived(bench.entry(place));
  /** Stacks and placements are taken anew, not typed. */
  const typed = $derived(entry.trials.length > 0);
  const edited = $derived(bench.editing?.slot === place.slot ? bench.editing.index : undefined);
</script>

<div
  class="figures flex min-h-11 flex-wrap items-center gap-1.5 text-lg"
  role="group"
  aria-label="Trials taken{place.side ? `, ${place.side}` : ''}"
>
  {#each shown as trial, i (i)}
    <span
      class={[
        'ruled inline-flex items-center border',
        trial === best && 'border-base-content border-2',
        i === odd && 'border-error! border-2',
        i === edited && 'bg-base-200',
      ]}
    >
      {#if typed}
        <button
          data-trial
          class="px-2 py-0.5 hover:underline"
          aria-label="Trial {i + 1}, {number(trial, 1)}: type it anew"
          onclick={() => bench.edit(place, i)}>{number(trial, 1)}</button
        >
      {:else}<span data-trial class="px-2 py-0.5">{number(trial, 1)}</span>{/if}
      <button
        class="text-quiet px-1.5 py-0.5 font-sans text-base"
        aria-label="Take out trial {i + 1}, {number(trial, 1)}"
        onclick={() => bench.remove(place, i)}>×</button
      >
    </span>
  {/each}
  {#if captured(entry) && !shown.length}
    <button class="btn btn-ghost btn-sm font-sans text-sm" onclick={() => bench.drop(place)}>Drop last</button
    >
  {/if}
  {#if edited !== undefined}
    <button class="btn btn-ghost btn-sm font-sans text-sm" onclick={() => bench.leaveEdit(place)}
      >Leave trial {edited + 1} as it was</button
    >
  {/if}
</div>
{#if odd !== undefined && edited === undefined}
  <p class="text-error text-sm font-semibold" role="status">
    Trial {odd + 1} lies far from the others: type it anew, take it out, or confirm it when saving.
  </p>
{/if}
