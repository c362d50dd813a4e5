<script lang="ts">
  import { untrack } from 'svelte';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Floor from '$lib/sessions/Floor.svelte';
  import { OneTab } from '$lib/sessions/oneTab.svelte';
  import { openRun } from '$lib/sessions/openRun';

  const id = $derived(page.params.id!);
  const tab = $derived(new OneTab(id));
  const author = untrack(() => account.me!.user!.id);

  $effect(() => {
    const held = tab;
    return () => held.release();
  });
</script>

<svelte:head><title>Floor runner · Tensarch</title></svelte:head>

{#if tab.state === 'ours'}
  <Loaded of={openRun(author, id)}>
    {#snippet children(opened)}
      <Floor response={opened.response} said={opened.said} />
    {/snippet}
  </Loaded>
{:else if tab.state === 'elsewhere'}
  <main class="m-auto grid max-w-xl gap-4 p-6 text-center">
    <h1 class="text-3xl">This session runs in another tab</h1>
    <p>Only one tab runs it at a time. Taken over here, it goes on where it stands.</p>
    <button class="btn btn-accent btn-lg" onclick={() => tab.takeOver()}>Run it here</button>
  </main>
{:else}
  <p class="text-quiet p-6" aria-live="polite">Loading…</p>
{/if}
