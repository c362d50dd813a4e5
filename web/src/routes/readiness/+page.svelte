<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api/client';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import Decide from '$lib/skills/Decide.svelte';
  import MarginBar from '$lib/skills/MarginBar.svelte';
  import { nextText } from '$lib/skills/words';

  const after = $derived(page.url.searchParams.get('after') ?? undefined);
  let board = $derived(load(after));

  function load(from: string | undefined) {
    return ask(api.GET('/api/v1/readiness', { params: { query: { after: from } } }));
  }

  const groups: { state: Schemas['GateState']; title: string; empty?: string }[] = [
    { state: 'open', title: 'Ready: decide', empty: 'No gate is open now.' },
    { state: 'retest', title: 'Re-test' },
    { state: 'closed', title: 'Keep training' },
    { state: 'waiting', title: 'Waits for the other side' },
    { state: 'blocked', title: 'Held by a caution' },
    { state: 'owned', title: 'Owned' },
  ];

  function what(line: Schemas['ReadinessLine']): string {
    const gate = line.gate;
    switch (gate.state) {
      case 'open':
        return 'Every test is met. Advance, or stay.';
      case 'waiting':
        return `One stage ahead. Opens when ${gate.side === 'left' ? 'right' : 'left'} reaches stage ${gate.stage}.`;
      case 'owned':
        return 'Every gate is behind this side.';
      default:
        return gate.nearest ? nextText(gate.nearest) : '';
    }
  }
</script>

<svelte:head><title>Readiness · Tensarch</title></svelte:head>

<main class="p-5 lg:p-7">
  <h1 class="mb-1">Readiness</h1>
  <p class="text-quiet mb-5">
    Front split. Every side’s gate, the ones to decide first. The gate advises; you decide.
  </p>
  <Loaded of={board}>
    {#snippet children(list)}
      {#if list.lines.length === 0}
        <p class="mb-4">Nobody is on a ladder yet.</p>
        <a class="btn btn-primary" href={resolve('/students')}>Go to the students</a>
      {/if}
      {#each groups as group (group.state)}
        {@const lines = list.lines.filter((l) => l.gate.state === group.state)}
        {#if lines.length || (group.empty && list.lines.length)}
          <section class="mb-6" aria-label={group.title}>
            <h2 class={['mb-1', group.state === 'open' && lines.length && 'next-thing']}>{group.title}</h2>
            <ul class="ruled border-t">
              {#each lines as line (line.studentId + line.gate.side)}
                <li class="ruled border-b">
                  <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
                  <a
                    class="hover:bg-base-200 grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 py-2 md:grid-cols-[minmax(0,12rem)_10rem_6rem_8.5rem_minmax(0,1fr)]"
                    href="{resolve('/students/[id]', { id: line.studentId })}?side={line.gate.side}"
                  >
                    <strong class="wrap-break-word">{line.name}</strong>
                    <SideMark
                      side={line.gate.side}
                      text="{line.gate.side} {line.gate.stageName
                        ? `${line.gate.stage} ${line.gate.stageName}`
                        : ''}"
                    />
                    <span class="text-quiet text-sm"
                      >{#if line.gate.tests}{line.gate.met} of {line.gate.tests} met{/if}</span
                    >
                    <span class="hidden md:block"
                      >{#if line.gate.nearest?.margin != null}<MarginBar
                          test={line.gate.nearest}
                          side={line.gate.side}
                        />{/if}</span
                    >
                    <span class="col-span-2 text-sm md:col-span-1">{what(line)}</span>
                  </a>
                  {#if group.state === 'open'}
                    <div class="pb-3">
                      <Decide
                        studentId={line.studentId}
                        ladder="front-split"
                        gate={line.gate}
                        name={line.name}
                        ondecided={() => (board = load(after))}
                      />
                    </div>
                  {/if}
                </li>
              {:else}
                <li class="text-quiet py-2">{group.empty}</li>
              {/each}
            </ul>
          </section>
        {/if}
      {/each}
      {#if list.next}
        <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
        <a class="btn btn-outline" href="{resolve('/readiness')}?after={list.next}">More students</a>
      {/if}
    {/snippet}
  </Loaded>
</main>
