<script lang="ts">
  import { shapes, towards } from './shapes';
  import type { SketchText } from './sketch';

  interface Props {
    text: SketchText;
    minutes: string;
    onchange: () => void;
  }

  let { text = $bindable(), minutes, onchange }: Props = $props();
  let date = $state('');

  function take(part: Partial<SketchText>) {
    text = { ...text, ...part };
    onchange();
  }
</script>

<div>
  <p class="mb-1 text-sm font-semibold">Begin with</p>
  <div class="flex flex-wrap gap-2">
    {#each shapes as shape (shape.name)}
      <button
        type="button"
        class="btn btn-outline btn-sm"
        disabled={!text.start}
        onclick={() => take(shape.of(text, minutes))}>{shape.name}</button
      >
    {/each}
  </div>
  <div class="mt-2 mb-3 flex flex-wrap items-end gap-2">
    <label class="grid text-sm">
      <span>One day to be ready for</span>
      <input type="date" class="input input-sm w-40" min={text.start} bind:value={date} />
    </label>
    <button
      type="button"
      class="btn btn-outline btn-sm"
      disabled={!date || date <= text.start}
      onclick={() => take(towards(date, text, minutes))}>Prepare for it</button
    >
  </div>
</div>
