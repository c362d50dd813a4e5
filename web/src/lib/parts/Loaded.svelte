<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import { Refusal } from '$lib/api/client';
  import Notice from './Notice.svelte';
  import { pageText } from './problems';

  interface Props {
    /** What is being asked for. */
    of: Promise<T>;
    children: Snippet<[T]>;
    /** What can be done all the same, below what went wrong. */
    failed?: Snippet<[string]>;
  }

  let { of, children, failed }: Props = $props();

  const codeOf = (error: unknown) => (error instanceof Refusal ? error.code : 'unexpected');
</script>

{#await of}
  <p class="text-quiet p-6" aria-live="polite">Loading…</p>
{:then value}
  {@render children(value)}
{:catch error}
  <div class="p-6">
    <Notice tone="error">{pageText(codeOf(error))}</Notice>
    {@render failed?.(codeOf(error))}
  </div>
{/await}
