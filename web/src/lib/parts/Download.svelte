<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** Of a file that the server makes: no page of the application. */
    path: string;
    children: Snippet;
  }

  let { path, children }: Props = $props();
</script>

<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -->
<a class="btn btn-outline" href={path} download>{@render children()}</a>
