<script lang="ts">
  import { pageText } from './problems';
  import { undo } from './undo.svelte';
</script>

<div
  class="no-print pointer-events-none fixed inset-x-0 bottom-4 z-30 flex justify-center px-4 lg:ps-30"
  role="status"
>
  {#if undo.offered}
    <div
      role="group"
      class="bg-neutral text-neutral-content pointer-events-auto flex max-w-full flex-wrap items-center gap-x-4 gap-y-1 rounded-md py-2 ps-4 pe-2 shadow-lg"
      onmouseenter={() => undo.stay()}
      onmouseleave={() => undo.go()}
      onfocusin={() => undo.stay()}
      onfocusout={() => undo.go()}
    >
      <span class="min-w-0 wrap-break-word">{undo.failed ? pageText(undo.failed) : undo.offered.text}</span>
      <button class="btn btn-sm btn-accent" onclick={() => undo.take()}>Undo</button>
    </div>
  {/if}
</div>
