<script lang="ts">
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Floor from '$lib/sessions/Floor.svelte';
  import { openRun } from '$lib/sessions/openRun';

  const id = $derived(page.params.id!);
  const loaded = $derived(openRun(account.me!.user!.id, id));
</script>

<svelte:head><title>Floor runner · Tensarch</title></svelte:head>

<Loaded of={loaded}>
  {#snippet children(opened)}
    <Floor response={opened.response} said={opened.said} />
  {/snippet}
</Loaded>
