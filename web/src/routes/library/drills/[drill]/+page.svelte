<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Figure from '$lib/measuring/Figure.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { number } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';
  import { allDrills, servesText, type DrillPage } from '$lib/planning/drills';
  import { phaseTitles } from '$lib/planning/phases';
  import { doseText, propName } from '$lib/planning/words';
  import { tagName } from '$lib/students/tags';

  const drills = allDrills();

  const sidesText = (d: DrillPage) =>
    d.sides === 'both'
      ? 'none'
      : `${d.sides === 'each' ? 'one after the other' : 'in turn, counted as one'}${d.sideMeans ? `: the ${d.sideMeans}` : ''}`;
  const loadText = (loads: DrillPage['variants'][number]['loads']) =>
    loads.length
      ? loads.map((l) => `${tagName(l.tag)}${l.level === 'heavy' ? ', heavily' : ''}`).join(' · ')
      : 'nothing that a bar could lie on';
</script>

<svelte:head><title>{catalogue.drill(page.params.drill!).name} · Tensarch</title></svelte:head>

<main class="max-w-4xl px-5 py-7 lg:px-7">
  <p class="mb-2 text-sm"><a class="link-line" href={resolve('/library/drills')}>Drills</a></p>
  <Loaded of={drills}>
    {#snippet children(all)}
      {@const d = all.find((x) => x.key === page.params.drill)}
      {#if d}
        {@const figure = catalogue.content!.measures.find((m) => m.key === d.figure)}
        <h1>{d.name}</h1>
        <p class="text-quiet">{phaseTitles[d.phase]}. {d.purpose}</p>
        <div class={['mt-5 grid gap-7', figure && 'sm:grid-cols-[minmax(0,1fr)_16rem]']}>
          <div>
            <h2 class="mb-1">What is said</h2>
            <ul class="list-disc ps-5">
              {#each d.cues as cue (cue)}<li>{cue}</li>{/each}
            </ul>
            {#if d.checks.length}
              <h2 class="mt-4 mb-1">What to look at</h2>
              <ul class="list-disc ps-5">
                {#each d.checks as check (check)}<li>{check}</li>{/each}
              </ul>
            {/if}
            {#if d.stopSigns.length}
              <h2 class="mt-4 mb-1">When to stop</h2>
              <ul class="list-disc ps-5">
                {#each d.stopSigns as sign (sign)}<li>{sign}</li>{/each}
              </ul>
            {/if}
          </div>
          {#if figure}
            <div>
              <Figure figure={figure.figure} label={figure.name} />
              <p class="text-quiet text-sm">As it is read: {figure.name.toLowerCase()}.</p>
            </div>
          {/if}
        </div>
        <h2 class="mt-6 mb-1">Versions, easiest first</h2>
        <ol class="ruled border-t">
          {#each d.variants as v (v.key)}
            <li class="ruled grid gap-x-4 border-b py-2 sm:grid-cols-[14rem_minmax(0,1fr)]">
              <strong>{v.name}</strong>
              <div>
                <p>{doseText(v.dose)}</p>
                <p class="text-quiet text-sm">
                  Loads {loadText(v.loads)}{#if v.handShare > 0}; {number(100 * v.handShare, 0)} % of the body on
                    the hands{/if}. Set-up {v.setUpSeconds} s.
                </p>
              </div>
            </li>
          {/each}
        </ol>
        <dl class="mt-5 grid max-w-2xl grid-cols-[9rem_minmax(0,1fr)] gap-x-3 gap-y-1">
          <dt class="text-quiet">Serves</dt>
          <dd>
            {#if d.everywhere}every ladder{/if}
            {#each d.serves as s (s.ladder)}<span class="block"
                >{servesText(s, catalogue.ladder(s.ladder).name)}</span
              >{/each}
          </dd>
          <dt class="text-quiet">Sides</dt>
          <dd>{sidesText(d)}</dd>
          <dt class="text-quiet">Props</dt>
          <dd>{d.props.length ? d.props.map((p) => propName(p).toLowerCase()).join(', ') : 'none'}</dd>
          {#if d.ceiling}
            <dt class="text-quiet">Grows to</dt>
            <dd>{d.ceiling} in one round, never more</dd>
          {/if}
          {#if d.warms !== 'none'}
            <dt class="text-quiet">Wants</dt>
            <dd>{d.warms === 'thorough' ? 'a thorough warm-up first' : 'a warm body first'}</dd>
          {/if}
          {#if d.gates.length}
            <dt class="text-quiet">Needs today’s test</dt>
            <dd>{d.gates.join(', ').toLowerCase()}</dd>
          {/if}
          {#if d.counter}
            <dt class="text-quiet">Countered by</dt>
            <dd>
              <a class="link-line" href={resolve('/library/drills/[drill]', { drill: d.counter })}
                >{catalogue.drill(d.counter).name}</a
              >
            </dd>
          {/if}
          {#if d.standsInFor}
            <dt class="text-quiet">Stands in for</dt>
            <dd>
              <a class="link-line" href={resolve('/library/drills/[drill]', { drill: d.standsInFor })}
                >{catalogue.drill(d.standsInFor).name}</a
              >
            </dd>
          {/if}
        </dl>
      {:else}
        <p>{pageText('notFound')}</p>
      {/if}
    {/snippet}
  </Loaded>
</main>
