<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import SeriesChart from '$lib/measuring/SeriesChart.svelte';
  import { levelName } from '$lib/measuring/words';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const measure = $derived(catalogue.measure(page.params.measure!));
  /** The path names the warmth, then the level or the standard, whichever the measure has. */
  const query = $derived.by(() => {
    const [warmth, ...rest] = page.params.series!.split('-');
    const variant = rest.join('-') || undefined;
    const level = measure.levels.find((l) => l.key === variant)?.key;
    return { warmth: warmth as Schemas['Warmth'], level, standard: level ? undefined : variant };
  });
  const load = (before?: string) =>
    ask(
      api.GET('/api/v1/students/{studentId}/series/{measure}', {
        params: { path: { studentId: student.id, measure: measure.key }, query: { ...query, before } },
      }),
    );
  const points = $derived.by(() => {
    void student.heard;
    return load();
  });
</script>

<div class="max-w-5xl px-5 py-5 lg:px-7">
  <p class="mb-2 text-sm">
    <a class="link-line" href={resolve('/students/[id]/readings', { id: student.id })}>All series</a>
  </p>
  <h2 class="text-2xl">{measure.name}</h2>
  <p class="text-quiet mb-4">
    {[levelName(measure, query.level), query.warmth, query.standard].filter(Boolean).join(', ')}.
    {measure.better === 'up' ? 'Higher is better.' : measure.better === 'down' ? 'Lower is better.' : ''}
    {measure.kind === 'range'
      ? 'Bars: one standard error.'
      : measure.kind === 'rate'
        ? 'Bars: 95 % Wilson interval.'
        : ''}
    {#if measure.perSide}<SideMark side="left" /> round, <SideMark side="right" /> square.{/if}
  </p>
  <Loaded of={points}>
    {#snippet children(series)}
      {#if series.points.length}
        <SeriesChart {measure} {series} />
        {#if series.next}<p class="text-quiet text-sm">The newest {series.points.length} readings.</p>{/if}
      {:else}<p>Nothing has been read in this series.</p>{/if}
    {/snippet}
  </Loaded>
</div>
