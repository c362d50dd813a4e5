<script lang="ts">
  import { resolve } from '$app/paths';
  import Notice from './Notice.svelte';
  import { pageText } from './problems';

  interface Props {
    code: string;
  }

  let { code }: Props = $props();
  // Nothing was typed where nothing could be shown.
  const text = $derived(pageText(code).replace(/ What you typed is still here.*$/, ''));
</script>

<Notice tone="error">
  {text}
  {#if code === 'notFound'}
    <a class="link-line" href={resolve('/students')}>Back to the students</a>
  {:else if code !== 'signedOut'}
    <button class="link-line" onclick={() => location.reload()}>Load it again</button>
  {/if}
</Notice>
