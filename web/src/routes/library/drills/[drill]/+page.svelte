<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Figure from '$lib/measuring/Figure.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { number } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, type Refusal } from '$lib/api/client';
  import { undo } from '$lib/parts/undo.svelte';
  import DrillClips from '$lib/planning/DrillClips.svelte';
  import { doseFields } from '$lib/planning/doseFields';
  import { allDrills, cueWhen, drillsAnew, servesText, type DrillPage } from '$lib/planning/drills';
  import OwnDrillForm from '$lib/planning/OwnDrillForm.svelte';
  import { phaseTitles } from '$lib/planning/phases';
  import { doseText, propName } from '$lib/planning/words';
  import { tagName } from '$lib/students/tags';

  let drills = $state.raw(allDrills());
  let editing = $state(false);
  let problem = $state('');

  const again = async () => {
    drills = Promise.resolve(await drillsAnew());
  };
  const propsOf = (all: DrillPage[]) => [...new Set(all.flatMap((d) => d.props))].sort();

  async function saved(own: DrillPage) {
    await again();
    editing = false;
    await goto(resolve('/library/drills/[drill]', { drill: own.key }));
  }

  /** Out of the library, and back: what is kept of it stays as it was. */
  async function take(d: DrillPage, gone: boolean) {
    problem = '';
    try {
      await ask(
        api.POST('/api/v1/drills', {
          body: {
            id: newId(),
            drill: d.key,
            source: d.copyOf!,
            basedOn: d.version,
            gone,
            own: {
              name: d.name,
              cues: d.cues.map((c) => c.says),
              checks: d.checks,
              stopSigns: d.stopSigns,
              props: d.props,
              variants: d.variants.map((v) => ({
                key: v.key,
                name: v.name,
                dose: Object.fromEntries(doseFields(v.dose).map((f) => [f.field, f.value])),
              })),
              loads: d.variants.flatMap((v) => v.loads),
            },
          },
        }),
      );
      await again();
      if (gone)
        undo.offer('It is out of the library.', async () => {
          const now = (await drills).find((x) => x.key === d.key)!;
          await take(now, false);
        });
    } catch (error) {
      problem = pageText((error as Refusal).code);
    }
  }

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
        {#if d.felt}<p class="mt-1"><span class="text-quiet">Felt:</span> {d.felt}</p>{/if}
        {#if d.copyOf}
          <p class="mt-1">
            Your studio’s own, made of <a
              class="link-line"
              href={resolve('/library/drills/[drill]', { drill: d.copyOf })}
              >{catalogue.drill(d.copyOf).name}</a
            >. You put it into a session by hand.
            {#if d.gone}<strong>It is out of the library.</strong>{/if}
          </p>
        {/if}
        {#if account.mayWrite && !editing}
          <p class="mt-3 flex flex-wrap gap-2">
            {#if !d.copyOf && !catalogue.drill(d.key).testOnly}
              <button class="btn btn-sm btn-outline" onclick={() => (editing = true)}
                >Make a copy of your own</button
              >
            {:else if d.copyOf && !d.gone}
              <button class="btn btn-sm btn-outline" onclick={() => (editing = true)}>Change it</button>
              <button class="btn btn-sm btn-ghost" onclick={() => take(d, true)}
                >Take it out of the library</button
              >
            {:else if d.copyOf}
              <button class="btn btn-sm btn-outline" onclick={() => take(d, false)}>Put it back</button>
            {/if}
          </p>
          {#if problem}<p class="text-error font-semibold" role="alert">{problem}</p>{/if}
        {/if}
        {#if editing}
          <section class="ruled mt-4 border-y py-4" aria-label="Your own">
            {#key d.key + d.version}
              <OwnDrillForm
                drill={d}
                props={propsOf(all)}
                onsaved={saved}
                oncancel={() => (editing = false)}
              />
            {/key}
          </section>
        {/if}
        <div class={['mt-5 grid gap-7', (d.drawn || figure) && 'sm:grid-cols-[minmax(0,1fr)_16rem]']}>
          <div>
            <h2 class="mb-1">What is said</h2>
            <ul class="list-disc ps-5">
              {#each d.cues as cue, i (i)}
                {@const when = cueWhen(cue, d)}
                <li>
                  {cue.says}
                  {#if cue.must}<strong>· in every round, first</strong>{/if}
                  {#if when}<span class="text-quiet">· {when}</span>{/if}
                </li>
              {/each}
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
          {#if d.drawn}
            <Figure figure={d.drawn} label={d.name} />
          {:else if figure}
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
                  {#if v.out}Out in {v.out.seconds} s: {v.out.says.toLowerCase()}.{/if}
                </p>
                {#if d.copyOf}<DrillClips drill={d} variant={v} onchange={again} />{/if}
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
          <dt class="text-quiet">Unwatched</dt>
          <dd>
            {d.alone === 'never'
              ? 'never: somebody is there'
              : d.alone === 'owned'
                ? 'once it is owned'
                : 'may be done'}
          </dd>
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
            <dt class="text-quiet">Asks first</dt>
            <dd>{d.gates.join(', ').toLowerCase()}</dd>
          {/if}
          {#if d.counters.length}
            <dt class="text-quiet">Countered by</dt>
            <dd>
              {#each d.counters as counter, i (counter)}{i > 0 ? ', ' : ''}<a
                  class="link-line"
                  href={resolve('/library/drills/[drill]', { drill: counter })}
                  >{catalogue.drill(counter).name}</a
                >{/each}
            </dd>
          {/if}
          {#if d.quickMeasure}
            <dt class="text-quiet">Read at the last one</dt>
            <dd>
              <a class="link-line" href={resolve('/library/[measure]', { measure: d.quickMeasure })}
                >{catalogue.measure(d.quickMeasure).name}</a
              >, by one’s own hand; no gate reads it
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
