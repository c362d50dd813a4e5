<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Figure from '$lib/measuring/Figure.svelte';
  import OwnMeasureForm from '$lib/measuring/OwnMeasureForm.svelte';
  import { groupNames, instrumentNames } from '$lib/measuring/words';
  import { chosen, number, shortDay } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';

  const measure = $derived(catalogue.content!.measures.find((m) => m.key === page.params.measure));
  const load = (key: string) =>
    ask(api.GET('/api/v1/measures/{measure}', { params: { path: { measure: key } } }));
  let details = $derived(measure && load(measure.key));
  let editing = $state(false);
</script>

<svelte:head><title>{measure?.name ?? 'Library'} · Tensarch</title></svelte:head>

<main class="max-w-4xl px-5 py-7 lg:px-7">
  <p class="mb-2 text-sm"><a class="link-line" href={resolve('/library')}>Library</a></p>
  {#if measure && details}
    {@const m = measure}
    <h1>{m.name}</h1>
    <p class="text-quiet">{groupNames[m.group]}. {m.reads}.</p>
    <div class="mt-5 grid gap-7 sm:grid-cols-[18rem_minmax(0,1fr)]">
      <Figure figure={m.figure} label={m.name} />
      <div>
        <h2 class="mb-1">How it is taken</h2>
        <ol class="list-decimal ps-5">
          {#each m.protocol as step (step)}<li>{step}</li>{/each}
        </ol>
        <p class="mt-2"><span class="text-quiet">From and to:</span> {m.landmarks.join(' · ')}</p>
        {#if m.compensations.length}
          <h2 class="mt-4 mb-1">What fakes it</h2>
          <ul class="list-disc ps-5">
            {#each m.compensations as c (c.key)}
              <li>
                {c.name}{#if c.disqualifies}<span class="text-quiet"
                    >, does not count{c.onlyStandard ? ` when ${c.onlyStandard}` : ''}</span
                  >{/if}
              </li>
            {/each}
          </ul>
        {/if}
      </div>
    </div>
    <dl class="mt-5 grid max-w-2xl grid-cols-[11rem_minmax(0,1fr)] gap-x-3 gap-y-1">
      <dt class="text-quiet">Side</dt>
      <dd>{m.perSide ? `each: the ${m.sideMeans}` : 'none'}</dd>
      <dt class="text-quiet">Mode</dt>
      <dd>{m.mode}</dd>
      {#if m.kind !== 'rate'}
        <dt class="text-quiet">Plausible</dt>
        <dd>{chosen(m.min)} to {chosen(m.max, m.unit)}, in steps of {chosen(m.step ?? m.resolution)}</dd>
      {/if}
      <dt class="text-quiet">SEM of one trial</dt>
      <dd>
        {m.kind === 'rate' ? 'none' : chosen(m.sem, m.unit)}
        {#if m.tau > 0}, day to day {number(m.tau, 2)}{/if}
        <span class="text-quiet block text-sm">{m.source}</span>
      </dd>
      <dt class="text-quiet">Counts for</dt>
      <dd>{m.quick ? 'no gate: it is rough, and shows the trend' : `${m.shelfDays} days`}</dd>
      <dt class="text-quiet">Read with</dt>
      <dd>{m.instruments.map((i) => instrumentNames[i].toLowerCase()).join(', ')}</dd>
      {#if m.levels.length}
        <dt class="text-quiet">Levels</dt>
        <dd>{m.levels.map((l) => l.name.toLowerCase()).join(', ')}</dd>
      {/if}
    </dl>
    <Loaded of={details}>
      {#snippet children(page)}
        {#if page.noises.length}
          <h2 class="mt-6 mb-1">Your own hands</h2>
          <p class="text-quiet mb-2 text-sm">
            Blended with the default as repeats accumulate, never under six tenths of it.
          </p>
          <div class="overflow-x-auto">
            <table class="text-sm">
              <thead>
                <tr class="text-quiet ruled border-b">
                  {#each ['Coach', 'Instrument', 'SEM', 'Your own repeats', 'Day to day', 'Pairs'] as h (h)}
                    <th class="py-1 pe-5 text-start font-normal">{h}</th>
                  {/each}
                </tr>
              </thead>
              <tbody>
                {#each page.noises as n (n.coach + n.instrument)}
                  <tr class="ruled border-b">
                    <td class="py-1 pe-5">{n.coach}</td>
                    <td class="pe-5">{instrumentNames[n.instrument]}</td>
                    <td class="figures pe-5">{number(n.noise.sem, 2)}</td>
                    <td class="figures pe-5">{n.noise.semDof}</td>
                    <td class="figures pe-5">{number(n.noise.tau, 2)}</td>
                    <td class="figures">{n.noise.tauPairs}</td>
                  </tr>
                {/each}
              </tbody>
            </table>
          </div>
        {/if}
        <section class="mt-6">
          <h2 class="mb-1">{page.version.own ? 'Your studio’s version' : 'The shipped version'}</h2>
          {#if page.version.unreadable}
            <div class="mb-3">
              <Notice tone="caution"
                >Version {page.version.version} of your own has a value out of every range: the shipped one is read
                until you make another.</Notice
              >
            </div>
          {/if}
          <p class="text-quiet mb-3 text-sm">
            {#if page.version.own}
              Version {page.version.version}, by {page.version.by} on {shortDay(page.version.at!)}. Readings
              keep the numbers of their day; the shipped one is untouched.
            {:else}
              You can make your own: what is plausible, the SEM, and the wording of the protocol.
            {/if}
          </p>
          {#if editing}
            <OwnMeasureForm
              {measure}
              version={page.version}
              onsaved={async () => {
                editing = false;
                await catalogue.reload();
                details = load(m.key);
              }}
              oncancel={() => (editing = false)}
            />
          {:else if account.mayWrite}
            <button class="btn btn-outline" onclick={() => (editing = true)}
              >{page.version.own ? 'Change it' : 'Make an own version'}</button
            >
          {/if}
        </section>
      {/snippet}
    </Loaded>
  {:else}
    <p>{pageText('notFound')}</p>
  {/if}
</main>
