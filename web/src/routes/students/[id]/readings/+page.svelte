<script lang="ts">
  import { resolve } from '$app/paths';
  import { api, ask } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import ReadingRow from '$lib/measuring/ReadingRow.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  let measure = $state('');

  const load = (before?: number) =>
    ask(
      api.GET('/api/v1/students/{studentId}/readings', {
        params: { path: { studentId: student.id }, query: { measure: measure || undefined, before } },
      }),
    );

  let pages = $derived([load()]);

  async function changed() {
    pages = [load()];
    await student.load();
  }
</script>

<div class="max-w-4xl px-5 py-5 lg:px-7">
  <div class="mb-3 flex flex-wrap items-center gap-3">
    <label for="measure" class="text-sm font-semibold">Measure</label>
    <select id="measure" class="select w-72" bind:value={measure}>
      <option value="">All</option>
      {#each catalogue.content!.measures as m (m.key)}<option value={m.key}>{m.name}</option>{/each}
    </select>
    <a class="btn btn-outline ms-auto" href={resolve('/students/[id]/bench', { id: student.id })}>Read now</a>
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
