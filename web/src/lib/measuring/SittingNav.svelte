<script module lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import type { Bench } from './bench.svelte';
  import { levelName } from './words';

  /** A measure as it is told apart from the others of the sitting. */
  export function itemName(bench: Bench, item: Schemas['SittingPart']): string {
    const others = bench.view!.items.filter((i) => i.measure === item.measure && i !== item);
    const measure = catalogue.measure(item.measure);
    return [
      measure.name,
      others.some((i) => i.level !== item.level) && levelName(measure, item.level),
      others.some((i) => i.warmth !== item.warmth) && item.warmth,
    ]
      .filter(Boolean)
      .join(', ');
  }
</script>

<script lang="ts">
  import { keyOf } from './sitting.svelte';
  import { scopeName } from './words';

  interface Props {
    bench: Bench;
  }

  let { bench }: Props = $props();
  const view = $derived(bench.view!);
  /** The position is said where it changes. */
  const positionAt = (index: number) => {
    const key = (i: number) => catalogue.measure(bench.view!.items[i]!.measure).position;
    return index > 0 && key(index - 1) === key(index)
      ? undefined
      : catalogue.content!.positions.find((p) => p.key === key(index))?.name;
  };
</script>

<nav aria-label="Measures of this sitting" class="min-w-0">
  <p class="mb-2 text-sm font-semibold">
    {scopeName(view.scope)}
    <span class="text-quiet block font-normal" role="status"
      >{bench.view?.read} of {bench.view?.places} read</span
    >
  </p>
  <ol class="flex gap-1 overflow-x-auto md:grid md:overflow-visible">
    {#each view.items as item, i (keyOf(item))}
      <li class="shrink-0">
        {#if positionAt(i)}<p class="text-quiet hidden px-3 pt-2 text-xs md:block">
            {positionAt(i)}
          </p>{/if}
        <button
          class={[
            'w-full px-3 py-1.5 text-start',
            i === bench.index ? 'bg-base-200 font-semibold' : 'text-quiet',
          ]}
          aria-current={i === bench.index ? 'step' : undefined}
          onclick={() => bench.go(i)}
        >
          <span aria-hidden="true">{bench.isDone(item) ? '✓' : ''}</span>
          {itemName(bench, item)}{#if bench.isDone(item)}<span class="sr-only">, read</span>{/if}
          {#if bench.isPending(item)}<span class="block text-xs">not saved yet</span>{/if}
        </button>
      </li>
    {/each}
  </ol>
  {#if view.leftOut.length}
    <p class="text-quiet mt-3 px-3 text-sm">
      Off limits and left out: {view.leftOut.map((h) => catalogue.measure(h.measure).name).join('; ')}.
    </p>
  {/if}
  {#if view.changed.length}
    <p class="text-quiet mt-3 px-3 text-sm">
      Changed since this began: {view.changed.join('; ')}. A new sitting reads them.
    </p>
  {/if}
  <label class="text-quiet mt-4 hidden items-start gap-2 px-3 text-sm md:flex">
    <input
      type="checkbox"
      class="checkbox checkbox-sm"
      checked={bench.quick}
      onchange={(event) => bench.setQuick(event.currentTarget.checked)}
    />
    Take a trial as soon as its decimal is typed
  </label>
</nav>
