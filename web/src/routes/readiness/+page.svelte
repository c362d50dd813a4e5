<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import BoardLine from '$lib/skills/BoardLine.svelte';
  import BoardPanel from '$lib/skills/BoardPanel.svelte';
  import { groupName } from '$lib/skills/gateWords';

  const groups = ['ready', 'nearly', 'stalled', 'blocked', 'training', 'waiting', 'owned'] as const;
  const empty: Record<(typeof groups)[number], string> = {
    ready: 'No gate is open now.',
    nearly: 'Nobody is one test away.',
    stalled: 'Nobody stands still.',
    blocked: 'Nothing bars a gate.',
    training: 'Nobody else is on a ladder.',
    waiting: 'No side waits for the other.',
    owned: 'No skill is owned yet.',
  };

  const skill = $derived(page.url.searchParams.get('skill') ?? undefined);
  const after = $derived(page.url.searchParams.get('after') ?? undefined);
  let turn = $state(0);
  const counts = $derived.by(() => {
    void turn;
    return ask(api.GET('/api/v1/readiness/counts'));
  });
  const asked = $derived(groups.find((g) => g === page.url.searchParams.get('group')));
  /** What was asked for; else the first group, in the order of what presses, with anything in it. */
  const board = $derived(load(counts, asked, skill, after));

  async function load(
    counting: Promise<Schemas['BoardCount'][]>,
    wanted: (typeof groups)[number] | undefined,
    of: string | undefined,
    from: string | undefined,
  ) {
    const all = await counting;
    const group = wanted ?? groups.find((g) => tally(all, g, of) > 0) ?? 'ready';
    const list = await ask(
      api.GET('/api/v1/readiness', { params: { query: { group, skill: of, after: from } } }),
    );
    return { all, group, list };
  }
  let picked = $state<string>();

  const tally = (all: Schemas['BoardCount'][], group: string, of?: string) =>
    all.filter((c) => c.group === group && (!of || c.skill === of)).reduce((sum, c) => sum + c.gates, 0);

  function link(change: { group?: string; skill?: string | null; after?: string }): string {
    const query = [
      ['group', change.group ?? asked],
      ['skill', change.skill === null ? undefined : (change.skill ?? skill)],
      ['after', change.after],
    ].filter(([, value]) => value);
    return `${resolve('/readiness')}?${query.map(([k, v]) => `${k}=${encodeURIComponent(v!)}`).join('&')}`;
  }

  function decided() {
    turn++;
    picked = undefined;
  }
</script>

<svelte:head><title>Readiness · Tensarch</title></svelte:head>

<main class="grid min-w-0 content-start xl:grid-cols-[minmax(0,1fr)_24rem] xl:grid-rows-[1fr]">
  <div class="min-w-0 p-5 lg:p-7">
    <div class="mb-4 flex flex-wrap items-end justify-between gap-3">
      <div>
        <h1 class="mb-1">Readiness</h1>
        <p class="text-quiet">The gate advises; you decide.</p>
      </div>
      <label class="text-sm font-semibold">
        Skill
        <select
          class="select w-56"
          value={skill ?? ''}
          onchange={(event) =>
            // eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved
            goto(link({ skill: event.currentTarget.value || null }))}
        >
          <option value="">All skills</option>
          {#each catalogue.content?.ladders ?? [] as l (l.key)}<option value={l.key}>{l.name}</option>{/each}
        </select>
      </label>
    </div>
    <Loaded of={board}>
      {#snippet children({ all, group, list })}
        <nav aria-label="Groups" class="ruled mb-2 flex flex-wrap gap-x-5 border-b">
          {#each groups as g (g)}
            <!-- eslint-disable svelte/no-navigation-without-resolve -- the path itself is resolved -->
            <a
              href={link({ group: g })}
              aria-current={g === group ? 'page' : undefined}
              class={[
                '-mb-px border-b-2 py-2 whitespace-nowrap',
                g === group ? 'border-base-content font-semibold' : 'text-quiet border-transparent',
              ]}
            >
              {groupName(g)}
              <span class={['figures', g === 'ready' && tally(all, g, skill) > 0 && 'next-thing']}
                >{tally(all, g, skill)}</span
              >
            </a>
            <!-- eslint-enable svelte/no-navigation-without-resolve -->
          {/each}
        </nav>
        {#if all.length === 0}
          <p class="my-4">Nobody is on a ladder yet.</p>
          <a class="btn btn-primary" href={resolve('/students')}>Go to the students</a>
        {:else if list.lines.length === 0}
          <p class="text-quiet py-4">{empty[group]}</p>
        {/if}
        <ul aria-label={groupName(group)}>
          {#each list.lines as entry (entry.id)}
            <BoardLine
              {entry}
              chosen={(picked ?? list.lines[0]!.id) === entry.id}
              onchoose={() => (picked = entry.id)}
            />
          {/each}
        </ul>
        {#if list.next}
          <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
          <a class="btn btn-outline mt-4" href={link({ group, after: list.next })}>More</a>
        {/if}
      {/snippet}
    </Loaded>
  </div>
  {#await board then { list }}
    {@const entry = list.lines.find((l) => l.id === picked) ?? list.lines[0]}
    {#if entry?.line}
      {#key entry.id + turn}<BoardPanel entry={{ ...entry, line: entry.line }} ondecided={decided} />{/key}
    {/if}
  {:catch}<!-- Said above, or of no matter. -->{/await}
</main>
