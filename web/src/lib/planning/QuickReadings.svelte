<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import QuickReading from './QuickReading.svelte';

  interface Props {
    student: string;
    /** What was done, in its order. */
    done: readonly { drill: string; side: Schemas['Side'] | null }[];
    at?: string | null;
  }

  let { student, done, at }: Props = $props();
  const readings = $derived(
    done
      .flatMap(({ drill, side }) => {
        const measure = catalogue.drill(drill).quickMeasure;
        return measure ? [{ measure, side: catalogue.measure(measure).perSide ? side : null }] : [];
      })
      .filter((r, i, all) => all.findIndex((o) => o.measure === r.measure && o.side === r.side) === i),
  );
</script>

{#if readings.length}
  <section class="mt-4 grid gap-2 text-start" aria-label="At the last repetition">
    <h3 class="font-semibold">At the last repetition</h3>
    <p class="text-quiet text-sm">By your own hand, if you like: it shows the trend, and no gate reads it.</p>
    {#each readings as r (`${r.measure} ${r.side}`)}
      <QuickReading {student} measure={r.measure} side={r.side} {at} />
    {/each}
  </section>
{/if}
