<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import ReadingRow from '$lib/measuring/ReadingRow.svelte';
  import Download from '$lib/parts/Download.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';

  let measure = $state('');
  let takenBy = $state('');
  const members = ask(api.GET('/api/v1/accounts/members'));

  const load = (before?: string) =>
    ask(
      api.GET('/api/v1/readings', {
        params: { query: { measure: measure || undefined, takenBy: takenBy || undefined, before } },
      }),
    );
  let pages = $derived([load()]);
</script>

<svelte:head><title>Readings · Tensarch</title></svelte:head>

<main class="max-w-5xl px-5 py-7 lg:px-7">
  <h1>Readings</h1>
  <p class="text-quiet mb-5">Everything the studio has measured, the newest first.</p>
  <div class="mb-3 flex flex-wrap items-end gap-3">
    <label class="grid gap-1 text-sm font-semibold">
      Measure
      <select class="select w-64" bind:value={measure}>
        <option value="">All</option>
        {#each catalogue.content!.measures as m (m.key)}<option value={m.key}>{m.name}</option>{/each}
      </select>
    </label>
    <Loaded of={members}>
      {#snippet children(list)}
        <label class="grid gap-1 text-sm font-semibold">
          Taken by
          <select class="select w-52" bind:value={takenBy}>
            <option value="">Everyone</option>
            {#each list as member (member.id)}<option value={member.id}>{member.name}</option>{/each}
          </select>
        </label>
      {/snippet}
    </Loaded>
    <div class="ms-auto"><Download path="/api/v1/exchange/readings">Export as CSV</Download></div>
    {#if account.mayWrite}<a class="btn btn-outline" href={resolve('/exchange')}>Import…</a>{/if}
  </div>
  {#each pages as page, i (i)}
    <Loaded of={page}>
      {#snippet children(list)}
        {#if list.readings.length === 0 && i === 0}
          <p>No readings here. Open a student, then the bench.</p>
        {/if}
        <ul class="ruled border-t">
          {#each list.readings as reading (reading.id)}
            <ReadingRow {reading} studentId={reading.student!.id} />
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
</main>
