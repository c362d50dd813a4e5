<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { sideName } from '$lib/students/tags';
  import type { Felt } from './run';

  interface Props {
    stops: Schemas['PackStop'][];
    /** What the student calls parts of their body. */
    words: Schemas['BodyWord'][];
    /** The side that is worked: where it hurts, until somebody says otherwise. */
    side: Schemas['Side'] | null;
    onsignal: (stop: Schemas['PackStop'], what: Felt) => void;
    onclose: () => void;
  }

  let { stops, words, side, onsignal, onclose }: Props = $props();
  let stop = $state<Schemas['PackStop']>();
  let place = $state<Schemas['BodyPlace']>();
  let chosen = $state<Schemas['Side'] | null>();
  const on = $derived(!place?.sided ? null : chosen === undefined ? side : chosen);
  let pain = $state<number>();
  let panel = $state<HTMLDialogElement>();
  /** A dull pain needs its number, for the number decides how it is met; anything sharp is told with or without one. */
  const complete = $derived(
    stop && (!stop.asksRegion || place) && (stop.worseFrom == null || pain !== undefined),
  );

  // The browser keeps the focus inside, and Escape goes on.
  $effect(() => panel!.showModal());

  const places = catalogue.content!.places;
  /** The student's own word stands at the first place of its region. */
  const named = (at: Schemas['BodyPlace']) => {
    const word =
      places.find((p) => p.region === at.region) === at && words.find((w) => w.tag === at.region)?.word;
    return word ? `${at.name} (“${word}”)` : at.name;
  };

  /** Pain of six and more is met as another signal, whatever was chosen: the pack says which. */
  const met = $derived(
    stop?.worseFrom != null && pain !== undefined && pain >= stop.worseFrom
      ? stops.find((s) => s.signal === stop!.worse)
      : stop,
  );
</script>

<dialog
  bind:this={panel}
  class="bg-base-100 text-base-content m-0 h-dvh max-h-none w-full max-w-none overflow-y-auto"
  aria-label="What does the body say?"
  {onclose}
>
  <div class="mx-auto grid max-w-3xl gap-4 p-4">
    <h2 class="text-2xl">What does the body say?</h2>
    <div class="grid gap-2 sm:grid-cols-2">
      {#each stops as s (s.signal)}
        <button
          class={[
            'btn h-auto justify-start py-3 text-start',
            stop?.signal === s.signal ? 'btn-primary' : 'btn-outline',
          ]}
          onclick={() => (stop = s)}
        >
          {s.name}
        </button>
      {/each}
    </div>
    {#if stop?.asksRegion}
      <div role="group" aria-label="Where?">
        <p class="mb-2 font-semibold">Where?</p>
        <div class="flex flex-wrap gap-2">
          {#each places as p (p.key)}
            <button
              class={['btn btn-sm', place === p ? 'btn-primary' : 'btn-outline']}
              aria-pressed={place === p}
              onclick={() => (place = p)}>{named(p)}</button
            >
          {/each}
        </div>
        {#if place?.sided}
          <div class="mt-3 flex flex-wrap items-center gap-2" role="group" aria-label="Which side?">
            <span class="font-semibold">Which side?</span>
            {#each ['left', 'right', null] as const as s (s)}
              <button
                class={['btn btn-sm', on === s ? 'btn-primary' : 'btn-outline']}
                aria-pressed={on === s}
                onclick={() => (chosen = s)}>{sideName(s)}</button
              >
            {/each}
          </div>
        {/if}
      </div>
    {/if}
    {#if stop?.asksPain}
      <div role="group" aria-label="Pain, of 10">
        <p class="mb-2 font-semibold">Pain, of 10{stop.worseFrom == null ? ', if it has a number' : ''}</p>
        <div class="flex flex-wrap gap-2">
          {#each Array.from({ length: 11 }, (_, i) => i) as p (p)}
            <button
              class={['btn btn-sm w-11', pain === p ? 'btn-primary' : 'btn-outline']}
              aria-pressed={pain === p}
              onclick={() => (pain = p)}>{p}</button
            >
          {/each}
        </div>
      </div>
    {/if}
    {#if met}<p class="border-s-4 ps-3">{met.advice}</p>{/if}
    <div class="flex gap-3">
      <button
        class="btn btn-error"
        disabled={!complete}
        onclick={() =>
          onsignal(stop!, {
            region: (stop!.asksRegion && place?.region) || null,
            place: (stop!.asksRegion && place?.key) || null,
            side: stop!.asksRegion ? on : side,
            pain: pain ?? null,
          })}>Write it down</button
      >
      <button class="btn btn-ghost" onclick={onclose}>Nothing, go on</button>
    </div>
  </div>
</dialog>
