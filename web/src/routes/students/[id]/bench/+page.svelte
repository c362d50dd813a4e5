<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { groupNames, scopeName } from '$lib/measuring/words';
  import { dayAndTime } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import { theStudent } from '$lib/students/student.svelte';
  import { tagName } from '$lib/students/tags';

  const student = theStudent();
  const offers = $derived.by(() => {
    void student.heard;
    return ask(
      api.GET('/api/v1/students/{studentId}/bench', { params: { path: { studentId: student.id } } }),
    );
  });
  let chosen = $state<string[]>([]);
  let cold = $state(false);
  let problem = $state('');
  let ids = $state<Record<string, string>>({});

  const asked = page.url.searchParams;

  // What a button elsewhere asked for begins at once, and going back does not come here again.
  onMount(() => {
    const read = asked.get('read');
    if (!read || !account.mayWrite) return;
    chosen = [read];
    void start('single', asked.get('level'), asked.get('side'));
  });

  async function start(scope: string, level: string | null = null, side: string | null = null) {
    problem = '';
    const measures = scope === 'single' ? chosen : [];
    const key = JSON.stringify([scope, measures, cold, level]);
    const id = (ids[key] ??= newId());
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/sittings', {
          params: { path: { studentId: student.id } },
          body: { id, scope, measures: $state.snapshot(measures), cold, level },
        }),
      );
      const sitting = resolve('/students/[id]/bench/[sitting]', { id: student.id, sitting: id });
      // eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved
      await goto(side ? `${sitting}?side=${side}` : sitting, { replaceState: asked.has('read') });
    } catch (error) {
      problem = pageText(error instanceof Refusal ? error.code : 'unexpected');
    }
  }

  const names = (items: { measure: string }[]) =>
    [...new Set(items.map((i) => catalogue.measure(i.measure).name))].join('; ');
  const groups = ['hips', 'squat', 'trunk', 'holds'];
</script>

<Loaded of={offers}>
  {#snippet children(bench)}
    <div class="grid max-w-5xl gap-7 px-5 py-5 lg:px-7">
      {#if !bench.screened}
        <p class="next-thing">
          Nothing is read before the intake screen is answered.
          <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}>Answer it</a>
        </p>
      {/if}
      {#each bench.open as sitting (sitting.id)}
        <p class="next-thing flex flex-wrap items-center gap-3">
          <a
            class="btn btn-accent"
            href={resolve('/students/[id]/bench/[sitting]', { id: student.id, sitting: sitting.id })}
            >Go on with the sitting</a
          >
          <span
            >{scopeName(sitting.scope)}, begun {dayAndTime(sitting.startedAt)} by {sitting.by}: {sitting.taken}
            of {sitting.asked}
            read.</span
          >
        </p>
      {/each}
      {#if problem}<Notice tone="error">{problem}</Notice>{/if}
      {#if account.mayWrite && bench.screened}
        <section>
          <h2 class="mb-2">{bench.onLadder ? 'What the next gates still need' : 'The baseline'}</h2>
          {#if bench.needs.items.length}
            <p class="mb-3 max-w-prose">{names(bench.needs.items)}.</p>
            <button
              class={['btn', bench.open.length ? 'btn-outline' : 'btn-accent']}
              onclick={() => start('needs')}
              >Read {bench.needs.items.length}
              {bench.needs.items.length === 1 ? 'measure' : 'measures'}</button
            >
          {:else}<p class="text-quiet">The present gates ask for no reading.</p>{/if}
        </section>
        <section>
          <h2 class="mb-2">A battery</h2>
          <ul class="ruled border-t">
            {#each bench.batteries as battery (battery.scope)}
              <li
                class="ruled grid items-center gap-x-5 gap-y-1 border-b py-2 md:grid-cols-[9rem_minmax(0,1fr)_auto]"
              >
                <strong>{battery.name}</strong>
                <span class="text-sm">
                  {names(battery.items)}.
                  {#if battery.leftOut.length}<span class="text-quiet"
                      >Off limits and left out: {names(battery.leftOut)}.</span
                    >{/if}
                </span>
                <button
                  class="btn btn-outline btn-sm"
                  disabled={!battery.items.length}
                  aria-label="Read the {battery.name} battery"
                  onclick={() => start(battery.scope)}>Read {battery.items.length}</button
                >
              </li>
            {/each}
          </ul>
          <label class="mt-3 flex items-center gap-2">
            <input type="checkbox" class="checkbox checkbox-sm" bind:checked={cold} />
            <span
              >Read the range of motion cold as well, first <span class="text-quiet"
                >(no training for 4 hours)</span
              ></span
            >
          </label>
        </section>
        <section>
          <h2 class="mb-2">Single measures</h2>
          <div class="grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-4">
            {#each groups as group (group)}
              <fieldset>
                <legend class="mb-1 text-sm font-semibold">{groupNames[group]}</legend>
                {#each catalogue.content!.measures.filter((m) => m.group === group) as m (m.key)}
                  {@const barred = bench.barred.find((h) => h.measure === m.key)}
                  <label class={['flex items-start gap-2 py-0.5 text-sm', barred && 'text-quiet']}>
                    <input
                      type="checkbox"
                      class="checkbox checkbox-sm"
                      value={m.key}
                      disabled={!!barred}
                      bind:group={chosen}
                    />
                    <span
                      >{m.name}{#if barred}<span class="block">{tagName(barred.tag)} is off limits</span
                        >{/if}</span
                    >
                  </label>
                {/each}
              </fieldset>
            {/each}
          </div>
          <button class="btn btn-outline mt-3" disabled={!chosen.length} onclick={() => start('single')}
            >Read {chosen.length || ''} chosen</button
          >
        </section>
      {/if}
    </div>
  {/snippet}
</Loaded>
