<script lang="ts">
  import { number } from '$lib/parts/format';
  import type { Bench } from './bench.svelte';
  import type { Place } from './entry';
  import NumberEntry from './NumberEntry.svelte';
  import type { Stopwatch } from './stopwatch.svelte';

  interface Props {
    bench: Bench;
    place: Place;
    watch: Stopwatch;
    onpress: () => void;
    error?: string;
  }

  let { bench, place, watch, onpress, error }: Props = $props();
  const mine = $derived(place.side === null || bench.side === place.side);
  let typing = $state(false);
  let press = $state<HTMLButtonElement>();

  // A trial that is timed is like one that is typed: the focus is where the next one is taken.
  $effect(() => {
    if (mine && bench.index >= 0 && !bench.complete && !typing) press?.focus();
  });

  /** As in a field that is empty: on to the other side, then save. */
  function enter(event: KeyboardEvent) {
    if (event.key !== 'Enter' || watch.running) return;
    event.preventDefault();
    event.stopPropagation();
    void bench.enter(place);
  }
</script>

{#if mine}
  <p class="figures text-5xl" role="timer" aria-label="Stopwatch">{number(watch.elapsed)} s</p>
  <div class="mt-1 flex flex-wrap gap-2">
    <button
      bind:this={press}
      class={['btn', watch.running ? 'btn-primary' : 'btn-outline']}
      onclick={onpress}
      onkeydown={enter}>{watch.running ? 'Stop' : 'Start'} <kbd class="kbd kbd-xs">Space</kbd></button
    >
    <button class="btn btn-ghost btn-sm" aria-expanded={typing} onclick={() => (typing = !typing)}
      >Type the seconds</button
    >
  </div>
  {#if typing || bench.editing?.slot === place.slot}
    <div class="mt-2"><NumberEntry {bench} {place} {error} /></div>
  {:else if error}<p class="text-error mt-1 text-sm font-semibold">{error}</p>{/if}
{:else}
  <button class="btn btn-outline" onclick={() => place.side && bench.choose(place.side)}
    >Time this side</button
  >
{/if}
