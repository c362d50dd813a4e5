<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    tone?: 'error' | 'caution' | 'plain';
    children: Snippet;
  }

  let { tone = 'plain', children }: Props = $props();
</script>

<div
  role={tone === 'error' ? 'alert' : 'note'}
  class={[
    'bg-base-200 border-s-4 px-4 py-3',
    tone === 'error' && 'border-error',
    tone === 'caution' && 'border-base-content',
    tone === 'plain' && 'ruled',
  ]}
>
  {@render children()}
</div>
