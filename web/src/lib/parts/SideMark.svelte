<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    side: Schemas['Side'];
    /** Shown beside the mark; the side's name when none is given. */
    text?: string;
  }

  let { side, text }: Props = $props();
</script>

<span class={['whitespace-nowrap', side === 'left' ? 'text-left-side' : 'text-right-side']}>
  <span aria-hidden="true">{side === 'left' ? '◐' : '◑'}</span>
  {text ?? (side === 'left' ? 'Left' : 'Right')}
</span>
