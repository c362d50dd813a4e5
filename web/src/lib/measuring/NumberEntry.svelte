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

  const editing = $derived(bench.editing?.slot === place.slot);
  const mine = $derived(place.side === null || bench.side === place.side);

  $effect(() => {
    if (mine && bench.index >= 0 && !bench.complete) field?.focus();
  });

  // What was refused, and what is typed anew, is selected: the next key replaces it.
  $effect(() => {
    if (mine && (error || (editing && bench.editing!.index >= 0))) {
      field?.focus();
      field?.select();
    }
  });

  function key(event: KeyboardEvent) {
    if (event.key === 'Enter') {
      event.preventDefault();
      void bench.enter(place);
    } else if (event.key === 'Escape' && editing) {
      bench.leaveEdit(place);
    } else if (event.key === 'Backspace' && entry.typed === '' && entry.trials.length) {
      event.preventDefault();
      bench.drop(place);
    }
  }
</script>

<Field
  label="Trial {editing ? bench.editing!.index + 1 : Math.min(entry.trials.length + 1, mostTrials)}, {bench
    .measure.unit}"
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
      <button class="btn btn-outline" onclick={() => bench.enter(place)}
        >{editing ? 'Put it in' : 'Take'}</button
      >
    </div>
  {/snippet}
</Field>
