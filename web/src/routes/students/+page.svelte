<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask } from '$lib/api/client';
  import Loaded from '$lib/parts/Loaded.svelte';
  import RosterRow from '$lib/students/RosterRow.svelte';

  const find = $derived(page.url.searchParams.get('find') ?? '');
  const archived = $derived(page.url.searchParams.get('archived') === 'yes');
  const after = $derived(page.url.searchParams.get('after') ?? undefined);
  const roster = $derived(
    ask(api.GET('/api/v1/students', { params: { query: { find: find || undefined, after, archived } } })),
  );

  function at(query: Record<string, string | undefined>): string {
    const kept = Object.entries({
      find: find || undefined,
      archived: archived ? 'yes' : undefined,
      ...query,
    });
    const text = kept.flatMap(([k, v]) => (v ? [`${k}=${encodeURIComponent(v)}`] : [])).join('&');
    return `${resolve('/students')}${text ? `?${text}` : ''}`;
  }

  const show = (query: Record<string, string | undefined>) =>
    // eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved in at()
    goto(at(query), { keepFocus: true, replaceState: true });

  let searchField = $state<HTMLInputElement>();

  $effect(() => {
    if (page.state.find) searchField?.focus();
  });
</script>

<svelte:head><title>Students · Tensarch</title></svelte:head>

<main class="p-5 lg:p-7">
  <div class="mb-5 flex flex-wrap items-center gap-x-5 gap-y-3">
    <h1>Students</h1>
    <input
      bind:this={searchField}
      class="input w-56"
      type="search"
      placeholder="Find a student  /"
      aria-label="Find a student"
      value={find}
      oninput={(event) => show({ find: event.currentTarget.value || undefined })}
    />
    <label class="flex items-center gap-2">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={archived}
        onchange={() => show({ archived: archived ? undefined : 'yes' })}
      />
      Archived
    </label>
    {#if account.mayWrite}
      <a class="btn btn-primary ms-auto" href={resolve('/students/new')}>Add a student</a>
    {/if}
  </div>
  <Loaded of={roster}>
    {#snippet children(list)}
      {#if list.students.length === 0}
        <div class="ruled border-t py-10">
          {#if find || archived}
            <p>Nobody here by that name.</p>
          {:else}
            <p class="mb-4 max-w-prose">
              Nobody is here yet. Add a student, answer the intake screen with them, and read both sides.
            </p>
          {/if}
        </div>
      {:else}
        <ul class="ruled border-t">
          {#each list.students as line (line.id)}
            <RosterRow {line} />
          {/each}
        </ul>
        {#if list.next}
          <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved in at() -->
          <a class="btn btn-outline mt-4" href={at({ after: list.next })}>More students</a>
        {/if}
      {/if}
    {/snippet}
  </Loaded>
</main>
