<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import ReadingRow from '$lib/measuring/ReadingRow.svelte';
  import { levelName, valueOf } from '$lib/measuring/words';
  import { shortDay, signed } from '$lib/parts/format';
  import Download from '$lib/parts/Download.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const path = { studentId: student.id };
  let measure = $state('');

  const load = (before?: string) =>
    ask(
      api.GET('/api/v1/students/{studentId}/readings', {
        params: { path, query: { measure: measure || undefined, before } },
      }),
    );
  const loadSeries = () => ask(api.GET('/api/v1/students/{studentId}/series', { params: { path } }));

  const fresh = <T,>(read: () => T): T => {
    void student.heard;
    return read();
  };
  let pages = $derived(fresh(() => [load()]));
  let series = $derived(fresh(loadSeries));

  async function changed() {
    pages = [load()];
    series = loadSeries();
    await student.load();
  }

  /** One line for both sides of a series. */
  function paired(lines: Schemas['SeriesLine'][]): Schemas['SeriesLine'][][] {
    const key = (l: Schemas['SeriesLine']) => [l.measure, l.level, l.warmth, l.standard].join('|');
    return Object.values(Object.groupBy(lines, key)).map((group) => group!);
  }

  /** A series in a path: its warmth, and its level and standard where it has them. */
  const seriesOf = (line: Schemas['SeriesLine']) =>
    [line.warmth, line.level, line.standard].filter(Boolean).join('-');
</script>

<div class="max-w-5xl px-5 py-5 lg:px-7">
  <div class="mb-5 flex flex-wrap items-center gap-3">
    {#if account.mayWrite}
      <a class="btn btn-primary" href={resolve('/students/[id]/bench', { id: student.id })}>Read now</a>
      <a class="btn btn-outline" href={resolve('/students/[id]/exchange', { id: student.id })}>Import…</a>
    {/if}
    <Download path="/api/v1/students/{student.id}/exchange/readings">Export as CSV</Download>
  </div>
  <Loaded of={series}>
    {#snippet children(list)}
      {#if list.series.length}
        <h2 class="mb-2">Series</h2>
        <table class="mb-7 w-full text-sm">
          <thead>
            <tr class="text-quiet ruled border-b text-start">
              <th class="py-1 text-start font-normal">Measure</th>
              <th class="text-start font-normal">Last value</th>
              <th class="text-start font-normal max-sm:hidden">Since the one before</th>
            </tr>
          </thead>
          <tbody>
            {#each paired(list.series) as lines, i (i)}
              {@const m = catalogue.measure(lines[0]!.measure)}
              <tr class="ruled border-b align-top">
                <th class="py-2 pe-3 text-start font-semibold">
                  <a
                    class="link-line"
                    href={resolve('/students/[id]/readings/[measure]/[series]', {
                      id: student.id,
                      measure: m.key,
                      series: seriesOf(lines[0]!),
                    })}>{m.name}</a
                  >
                  <span class="text-quiet block font-normal"
                    >{[levelName(m, lines[0]!.level), lines[0]!.warmth, lines[0]!.standard]
                      .filter(Boolean)
                      .join(', ')}</span
                  >
                </th>
                <td class="py-2">
                  {#each lines as line (line.side)}
                    <span class="block">
                      {#if line.side}<SideMark side={line.side} />{/if}
                      {#if m.kind !== 'rate'}<strong class="figures text-base"
                          >{valueOf(m, { value: line.lastValue })}</strong
                        >,{/if}
                      {shortDay(line.lastAt)}
                    </span>
                  {/each}
                </td>
                <td class="py-2 max-sm:hidden">
                  {#each lines as line (line.side)}
                    <span class="block">
                      {#if line.change == null || m.kind === 'rate'}{line.count === 1 ? 'the first' : ''}
                      {:else}{signed(line.change, m.unit)}{#if m.kind === 'range' && !line.detectable}, no
                          detectable change{/if}{/if}
                    </span>
                  {/each}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    {/snippet}
  </Loaded>
  <div class="mb-3 flex flex-wrap items-center gap-3">
    <h2>All readings</h2>
    <label for="measure" class="ms-auto text-sm font-semibold">Measure</label>
    <select id="measure" class="select w-72" bind:value={measure}>
      <option value="">All</option>
      {#each catalogue.content!.measures as m (m.key)}<option value={m.key}>{m.name}</option>{/each}
    </select>
  </div>
  {#each pages as page, i (i)}
    <Loaded of={page}>
      {#snippet children(list)}
        {#if list.readings.length === 0 && i === 0}
          <p>No readings yet. The bench takes both sides of a measure in one sitting.</p>
        {/if}
        <ul class="ruled border-t">
          {#each list.readings as reading (reading.id)}
            <ReadingRow {reading} studentId={student.id} onchange={changed} />
          {/each}
        </ul>
        {#if list.next && i === pages.length - 1}
          <button class="btn btn-outline mt-4" onclick={() => (pages = [...pages, load(list.next!)])}
            >Older readings</button
          >
        {/if}
      {/snippet}
    </Loaded>
  {/each}
</div>
