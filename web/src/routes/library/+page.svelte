<script lang="ts">
  import { resolve } from '$app/paths';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Figure from '$lib/measuring/Figure.svelte';
  import { groupNames } from '$lib/measuring/words';
  import LibraryTabs from '$lib/planning/LibraryTabs.svelte';
  import { chosen } from '$lib/parts/format';

  const groups = ['hips', 'squat', 'trunk', 'holds'];
</script>

<svelte:head><title>Library · Tensarch</title></svelte:head>

<main class="max-w-6xl px-5 py-7 lg:px-7">
  <h1>Library</h1>
  <LibraryTabs at="measures" />
  <p class="text-quiet mb-5">Every measure: how it is taken, and how far one trial can be trusted.</p>
  {#each groups as group (group)}
    <section class="mb-7">
      <h2 class="ruled mb-3 border-b pb-1">{groupNames[group]}</h2>
      <ul class="grid grid-cols-2 gap-x-5 gap-y-4 sm:grid-cols-3 lg:grid-cols-5">
        {#each catalogue.content!.measures.filter((m) => m.group === group) as m (m.key)}
          <li class="min-w-0">
            <Figure figure={m.figure} label={m.name} />
            <a class="link-line font-semibold" href={resolve('/library/[measure]', { measure: m.key })}
              >{m.name}</a
            >
            <p class="text-quiet text-sm">
              {m.perSide ? 'each side' : 'no sides'}{#if m.kind === 'range'}, SEM {chosen(m.sem, m.unit)}{/if}
            </p>
          </li>
        {/each}
      </ul>
    </section>
  {/each}
  <section class="max-w-2xl">
    <h2 class="ruled mb-3 border-b pb-1">Blocks of the house</h2>
    <p>
      Their heights stand in the <a class="link-line" href={resolve('/settings/studio')}>studio’s settings</a
      >.
    </p>
  </section>
</main>
