<script lang="ts">
  import { SvelteSet } from 'svelte/reactivity';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask } from '$lib/api/client';
  import { draftKey } from '$lib/parts/draft.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { theme } from '$lib/parts/theme.svelte';
  import SheetPaper from '$lib/planning/SheetPaper.svelte';

  const id = $derived(page.params.id!);
  const sheet = $derived(
    ask(api.GET('/api/v1/sessions/{sessionId}', { params: { path: { sessionId: id } } })),
  );

  /** What is ticked is kept on this device: a list to work down, not a log. */
  const key = $derived(draftKey('ticked', id));
  const ticked = $derived(new SvelteSet<string>(read(key)));

  function read(from: string): string[] {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(from) ?? '[]');
      return Array.isArray(stored) ? stored.filter((s) => typeof s === 'string') : [];
    } catch {
      return [];
    }
  }

  function tick(drill: string) {
    if (!ticked.delete(drill)) ticked.add(drill);
    localStorage.setItem(key, JSON.stringify([...ticked]));
  }
</script>

<svelte:head><title>Sheet · Tensarch</title></svelte:head>

<main class="px-4 py-4 lg:px-7 print:p-0">
  <h1 class="sr-only">Sheet</h1>
  <div class="no-print mb-3 flex flex-wrap items-center gap-2">
    <a class="btn btn-sm btn-ghost" href={resolve('/sessions/[id]', { id })}>Back to the session</a>
    <button class="btn btn-sm btn-outline" onclick={() => window.print()}>Print on one page</button>
    <button class="btn btn-sm btn-outline" aria-pressed={theme.dark} onclick={() => theme.toggle()}
      >{theme.dark ? 'Light' : 'For a dark room'}</button
    >
  </div>
  <Loaded of={sheet}>
    {#snippet children(s)}
      <div class="print:hidden"><SheetPaper session={s} {ticked} ontick={tick} /></div>
      <div class="hidden print:block"><SheetPaper session={s} /></div>
    {/snippet}
  </Loaded>
</main>
