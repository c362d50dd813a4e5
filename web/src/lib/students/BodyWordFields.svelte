<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { placeName, places } from './tags';

  interface Props {
    words: Schemas['BodyWord'][];
    onchange: () => void;
  }

  let { words = $bindable(), onchange }: Props = $props();
  const free = $derived(places.find((p) => words.every((w) => w.tag !== p)));

  function add() {
    if (free) words = [...words, { tag: free, word: '' }];
    onchange();
  }

  function remove(at: number) {
    words = words.filter((_, i) => i !== at);
    onchange();
  }
</script>

<fieldset class="ruled border-t pt-4">
  <legend class="font-head pe-3 text-xl font-semibold">Their own words</legend>
  <p class="text-quiet mb-2 text-sm">
    What they call a part of their body: shown beside its name when pain is asked for.
  </p>
  {#each words as word, i (i)}
    <div class="mb-2 flex flex-wrap items-center gap-2">
      <select class="select w-48" aria-label="Part {i + 1}" bind:value={word.tag} onchange={() => onchange()}>
        {#each places as place (place)}
          <option value={place} disabled={words.some((w, j) => j !== i && w.tag === place)}
            >{placeName(place)}</option
          >
        {/each}
      </select>
      <input
        class="input w-56"
        maxlength="40"
        aria-label="Their word for part {i + 1}"
        bind:value={word.word}
        oninput={() => onchange()}
      />
      <button
        type="button"
        class="btn btn-ghost btn-sm"
        aria-label="Take out part {i + 1}"
        onclick={() => remove(i)}>Take it out</button
      >
    </div>
  {/each}
  <button type="button" class="btn btn-outline btn-sm" disabled={!free} onclick={add}>Add a word</button>
</fieldset>
