<script lang="ts">
  import { resolve } from '$app/paths';

  interface Props {
    at: 'measures' | 'drills';
  }

  let { at }: Props = $props();
</script>

<nav class="mb-5 flex gap-4" aria-label="Library">
  <a
    class={['py-2', at === 'measures' ? 'border-b-2 border-current font-semibold' : 'link-line']}
    href={resolve('/library')}
    aria-current={at === 'measures' ? 'page' : undefined}>Measures</a
  >
  <a
    class={['py-2', at === 'drills' ? 'border-b-2 border-current font-semibold' : 'link-line']}
    href={resolve('/library/drills')}
    aria-current={at === 'drills' ? 'page' : undefined}>Drills</a
  >
</nav>
