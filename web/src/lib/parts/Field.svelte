<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    hint?: string;
    error?: string;
    /** The control; it gets the id for its label and the id of what describes it. */
    children: Snippet<[{ id: string; describedBy: string | undefined; invalid: boolean }]>;
  }

  let { label, hint, error, children }: Props = $props();
  const id = $props.id();
</script>

<div class="grid content-start gap-1">
  <label for={id} class="text-sm font-semibold">{label}</label>
  {@render children({ id, describedBy: hint || error ? `${id}-about` : undefined, invalid: !!error })}
  {#if error || hint}
    <p id="{id}-about" class={['text-sm', error ? 'text-error font-semibold' : 'text-quiet']}>
      {error ?? hint}
    </p>
  {/if}
</div>
