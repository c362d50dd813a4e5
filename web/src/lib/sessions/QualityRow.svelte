<script lang="ts">
  import { keys } from '$lib/parts/keys.svelte';
  import type { Runner } from './runner.svelte';

  interface Props {
    runner: Runner;
  }

  let { runner }: Props = $props();
</script>

<div
  class="flex flex-wrap items-center justify-center gap-2 text-sm"
  role="group"
  aria-label="Quality of what was just done"
>
  <span class="text-quiet">Quality</span>
  {#each [1, 2, 3, 4, 5] as q (q)}
    <button
      class={['btn btn-sm w-10', runner.quality === q ? 'btn-primary' : 'btn-ghost']}
      aria-pressed={runner.quality === q}
      disabled={!runner.last}
      onclick={() => runner.rate(q)}>{q}</button
    >
  {/each}
  <label class="text-quiet ms-4 hidden items-center gap-2 md:flex">
    <input
      type="checkbox"
      class="checkbox checkbox-sm"
      checked={keys.letters}
      onchange={(event) => keys.set(event.currentTarget.checked)}
    />
    Single-letter keys
  </label>
</div>
