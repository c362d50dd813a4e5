<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import Field from './Field.svelte';

  interface Props extends Omit<HTMLInputAttributes, 'value' | 'id'> {
    label: string;
    hint?: string;
    error?: string;
    value: string | null | undefined;
    /** Width of the input. */
    width?: string;
  }

  let { label, hint, error, value = $bindable(), width = 'w-full', ...rest }: Props = $props();
</script>

<Field {label} {hint} {error}>
  {#snippet children({ id, describedBy, invalid })}
    <input
      {id}
      class={['input', width]}
      aria-describedby={describedBy}
      aria-invalid={invalid}
      bind:value
      {...rest}
    />
  {/snippet}
</Field>
