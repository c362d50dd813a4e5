<script lang="ts">
  import type { Snippet } from 'svelte';
  import Arch from '$lib/skills/Arch.svelte';
  import type { Schemas } from '$lib/api/client';

  interface Props {
    title: string;
    children: Snippet;
  }

  let { title, children }: Props = $props();

  const stages = [1, 2, 3, 4, 5, 6, 7].map((number) => ({ number, name: '' }));
  const reached = { left: 3, right: 4 };
  const stones = (['left', 'right'] as const).flatMap((side) =>
    stages.map(({ number }): Schemas['Stone'] => ({
      side,
      stage: number,
      look: number < reached[side] ? 'met' : number === reached[side] ? 'notMet' : 'ahead',
      here: number === reached[side],
      waiting: false,
      filledShare: number < reached[side] ? 1 : 0,
    })),
  );
</script>

<svelte:head><title>{title} · Tensarch</title></svelte:head>

<main
  class="mx-auto grid min-h-dvh max-w-5xl items-center gap-10 p-6 md:grid-cols-[minmax(0,24rem)_1fr] md:p-12"
>
  <div>
    <p class="font-head mb-6 text-2xl font-semibold">Tensarch</p>
    <h1 class="mb-6">{title}</h1>
    {@render children()}
  </div>
  <div class="hidden justify-self-center md:block md:w-96" aria-hidden="true">
    <Arch {stones} {stages} label="" still />
  </div>
</main>
