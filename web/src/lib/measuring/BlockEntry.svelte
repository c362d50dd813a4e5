<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api/client';
  import { chosen, withUnit } from '$lib/parts/format';
  import type { Bench } from './bench.svelte';
  import type { Place } from './entry';
  import { faceNames } from './words';

  interface Props {
    bench: Bench;
    place: Place;
    error?: string;
  }

  let { bench, place, error }: Props = $props();
  const most = 6;
  const faces = ['low', 'middle', 'high'] as const;
  const heights: Record<Schemas['Face'], 'lowCm' | 'middleCm' | 'highCm'> = {
    low: 'lowCm',
    middle: 'middleCm',
    high: 'highCm',
  };
  let stack = $state<Schemas['StackedBlock'][]>([]);
  const kinds = $derived(bench.view!.blocks);
  const height = $derived(
    stack.length
      ? ask(api.POST('/api/v1/compute/blocks', { body: { stack: $state.snapshot(stack) } }))
      : undefined,
  );

  function take() {
    bench.addStack(place, $state.snapshot(stack));
    stack = [];
  }
</script>

<div role="group" aria-label="Blocks under the pelvis">
  {#each kinds as kind (kind.key)}
    <p class="mb-1 text-sm font-semibold">{kind.name}</p>
    <div class="mb-2 flex flex-wrap gap-1">
      {#each faces as face (face)}
        <button
          class="btn btn-outline btn-sm"
          disabled={stack.length >= most}
          onclick={() => (stack = [...stack, { kind: kind.key, face }])}
          >+ {faceNames[face]} {chosen(kind[heights[face]])}</button
        >
      {/each}
    </div>
  {/each}
  <p class="min-h-7 text-sm" aria-live="polite">
    {#if stack.length}
      {stack.map((b) => faceNames[b.face]).join(' + ')}
      {#await height then h}{#if h}= <strong class="figures">{withUnit(h.cm, 'cm')}</strong> ± {chosen(
            h.resolutionCm,
          )}{/if}{:catch}<!-- Said above, or of no matter. -->{/await}
    {:else}On the floor, or tap the sides that the blocks stand on.{/if}
  </p>
  <div class="flex gap-2">
    <button class="btn btn-outline btn-sm" onclick={take}>Take</button>
    {#if stack.length}<button class="btn btn-ghost btn-sm" onclick={() => (stack = [])}>Clear</button>{/if}
  </div>
  {#if error}<p class="text-error mt-1 text-sm font-semibold">{error}</p>{/if}
</div>
