<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    /** None for what has no side. */
    side: Schemas['Side'] | null | undefined;
    /** What the side names: the front leg, the supporting arm. */
    means?: string | null;
    /** Shown beside the mark; the side's name when none is given. */
    text?: string;
  }

  let { side, means, text }: Props = $props();
  const code = $derived(
    side === 'left'
      ? { mark: '◐', name: 'Left', colour: 'text-left-side' }
      : side === 'right'
        ? { mark: '◑', name: 'Right', colour: 'text-right-side' }
        : { mark: '●', name: 'Both sides', colour: '' },
  );
</script>

<span class={[!means && 'whitespace-nowrap', code.colour]}>
  <span aria-hidden="true">{code.mark}</span>
  {text ?? code.name}{#if side && means}&nbsp;{means}{/if}
</span>
