<script lang="ts">
  import type { Bench } from './bench.svelte';
  import { mostAttempts, type Place } from './entry';
  import { ofAttempts } from './words';

  interface Props {
    bench: Bench;
    place: Place;
    error?: string;
  }

  let { bench, place, error }: Props = $props();
  const entry = $derived(bench.entry(place));
  const mine = $derived(place.side === null || bench.side === place.side);
</script>

<p class="figures text-4xl" aria-live="polite">
  {ofAttempts(entry.hits.filter((h) => h).length, entry.hits.length)}
</p>
<div class="my-1 flex flex-wrap gap-2">
  <button
    class="btn btn-outline"
    disabled={entry.hits.length >= mostAttempts}
    onclick={() => bench.addHit(place, true)}
    >Held {#if mine}<kbd class="kbd kbd-xs">H</kbd>{/if}</button
  >
  <button
    class="btn btn-outline"
    disabled={entry.hits.length >= mostAttempts}
    onclick={() => bench.addHit(place, false)}
    >Missed {#if mine}<kbd class="kbd kbd-xs">M</kbd>{/if}</button
  >
</div>
<p class="figures flex min-h-6 flex-wrap gap-1" aria-label="Attempts in order">
  {#each entry.hits as hit, i (i)}<span title={hit ? 'held' : 'missed'}>{hit ? '●' : '○'}</span>{/each}
</p>
{#if error}<p class="text-error text-sm font-semibold">{error}</p>{/if}
