<script lang="ts">
  import Field from '$lib/parts/Field.svelte';
  import type { Bench } from './bench.svelte';
  import { mostTrials, readTrial, type Place } from './entry';

  interface Props {
    bench: Bench;
    place: Place;
    error?: string;
  }

  let { bench, place, error }: Props = $props();
  const entry = $derived(bench.entry(place));
  const short = $derived(
    /^[.,]\d$/.test(entry.typed) ? readTrial(entry.typed, entry.trials.at(-1)) : undefined,
  );
  let field = $state<HTMLInputElement>();

  $effect(() => {
    if ((place.side === null || bench.side === place.side) && bench.index >= 0) field?.focus();
  });

  function key(event: KeyboardEvent) {
    if (event.key === 'Enter') {
      event.preventDefault();
      void bench.enter(place);
    } else if (event.key === 'Backspace' && entry.typed === '' && entry.trials.length) {
      event.preventDefault();
      bench.drop(place);
    }
  }
</script>

<Field
  label="Trial {Math.min(entry.trials.length + 1, mostTrials)}, {bench.measure.unit}"
  {error}
  hint={short == null || Number.isNaN(short) ? undefined : `reads ${short}`}
>
  {#snippet children({ id, describedBy, invalid })}
    <div class="flex gap-2">
      <input
        bind:this={field}
        {id}
        class="input figures w-28 text-2xl"
        inputmode="decimal"
        autocomplete="off"
        aria-describedby={describedBy}
        aria-invalid={invalid}
        bind:value={() => entry.typed, (typed) => bench.type(place, typed)}
        onkeydown={key}
        onfocus={() => place.side && bench.choose(place.side)}
      />
      <button class="btn btn-outline" onclick={() => bench.enter(place)}>Take</button>
    </div>
  {/snippet}
</Field>
