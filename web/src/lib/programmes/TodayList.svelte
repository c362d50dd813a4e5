<script lang="ts" generics="T">
  import type { Snippet } from 'svelte';

  /** What waits for somebody: a line for each, with its one action. Where nothing does, it is not there. */
  let {
    id,
    title,
    of,
    key,
    line,
    action,
  }: {
    id: string;
    title: string;
    of: readonly T[];
    key: (item: T) => string;
    line: Snippet<[T]>;
    action: Snippet<[T]>;
  } = $props();
</script>

{#if of.length}
  <section aria-labelledby={id}>
    <h2 {id}>{title}</h2>
    <ul class="ruled mt-2 border-t">
      {#each of as item (key(item))}
        <li class="ruled flex flex-wrap items-baseline gap-x-3 border-b py-2">
          <span class="min-w-0 grow wrap-break-word">{@render line(item)}</span>
          {@render action(item)}
        </li>
      {/each}
    </ul>
  </section>
{/if}
