<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';
  import { Refusal } from '$lib/api/client';
  import NotLoaded from './NotLoaded.svelte';

  interface Props {
    /** What is being asked for. */
    of: Promise<T>;
    children: Snippet<[T]>;
    /** What can be done all the same, below what went wrong. */
    failed?: Snippet<[string]>;
  }

  let { of, children, failed }: Props = $props();

  let shown = $state.raw<{ value: T }>();
  let wrong = $state<string>();

  // What is asked for again stays on the screen until the new answer is there: nothing jumps, and nothing typed below is lost.
  $effect(() => {
    const asked = of;
    let old = false;
    asked.then(
      (value) => {
        if (old) return;
        shown = { value };
        wrong = undefined;
      },
      (error: unknown) => {
        if (old) return;
        wrong = error instanceof Refusal ? error.code : 'unexpected';
        // What is gone, or another's, is not shown; what could only not be asked for again stays.
        if (wrong === 'notFound' || wrong === 'signedOut') shown = undefined;
      },
    );
    return () => (old = true);
  });
</script>

{#if wrong}
  <div class="p-6">
    <NotLoaded code={wrong} />
    {@render failed?.(wrong)}
  </div>
{:else if !shown}
  <p class="text-quiet p-6" aria-live="polite">Loading…</p>
{/if}
{#if shown}
  {@render children(shown.value)}
{/if}
