<script lang="ts">
  import { resolve } from '$app/paths';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import LibraryTabs from '$lib/planning/LibraryTabs.svelte';
  import { allDrills, drillPhases, foundBy } from '$lib/planning/drills';
  import { phaseTitles } from '$lib/planning/phases';

  const drills = allDrills();
  let typed = $state('');
  let ladder = $state('');
</script>

<svelte:head><title>Drills · Tensarch</title></svelte:head>

<main class="max-w-6xl px-5 py-7 lg:px-7">
  <h1>Library</h1>
  <LibraryTabs at="drills" />
  <div class="mb-5 flex flex-wrap items-end gap-4">
    <label class="grid gap-1 text-sm font-semibold">
      Find a drill
      <input class="input w-64" type="search" bind:value={typed} />
    </label>
    <label class="grid gap-1 text-sm font-semibold">
      Serves
      <select class="select w-56" bind:value={ladder}>
        <option value="">Every ladder</option>
        {#each catalogue.content!.ladders as l (l.key)}<option value={l.key}>{l.name}</option>{/each}
      </select>
    </label>
  </div>
  <Loaded of={drills}>
    {#snippet children(all)}
      {@const found = all.filter(
        (d) =>
          !d.gone &&
          foundBy(d, typed) &&
          (!ladder || d.everywhere || d.serves.some((s) => s.ladder === ladder)),
      )}
      <p class="text-quiet mb-3 text-sm" role="status">
        {found.length} of {all.filter((d) => !d.gone).length} drills
      </p>
      {#each drillPhases as phase (phase)}
        {@const some = found.filter((d) => d.phase === phase)}
        {#if some.length}
          <section class="mb-6" aria-label={phaseTitles[phase]}>
            <h2 class="ruled mb-1 border-b pb-1">{phaseTitles[phase]}</h2>
            <ul>
              {#each some as d (d.key)}
                <li
                  class="ruled grid gap-x-4 border-b py-2 sm:grid-cols-[16rem_minmax(0,1fr)_minmax(0,18rem)]"
                >
                  <a
                    class="link-line font-semibold"
                    href={resolve('/library/drills/[drill]', { drill: d.key })}>{d.name}</a
                  >
                  <span
                    >{d.purpose}{#if d.copyOf}<span class="text-quiet"> · your own</span>{/if}</span
                  >
                  <span class="text-quiet text-sm"
                    >{d.everywhere
                      ? 'every ladder'
                      : d.serves.map((s) => catalogue.ladder(s.ladder).name.toLowerCase()).join(', ')}</span
                  >
                </li>
              {/each}
            </ul>
          </section>
        {/if}
      {:else}<p>Nothing is called so.</p>{/each}
    {/snippet}
  </Loaded>
</main>
