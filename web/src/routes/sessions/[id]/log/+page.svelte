<script lang="ts">
  import { untrack } from 'svelte';
  import { page } from '$app/state';
  import { api, ask } from '$lib/api/client';
  import Loaded from '$lib/parts/Loaded.svelte';
  import LogForm from '$lib/planning/LogForm.svelte';

  const id = untrack(() => page.params.id!);
  const sheet = ask(api.GET('/api/v1/sessions/{sessionId}', { params: { path: { sessionId: id } } }));
</script>

<svelte:head><title>Log a lesson · Tensarch</title></svelte:head>

<main class="min-w-0">
  <Loaded of={sheet}>
    {#snippet children(s)}<LogForm sheet={s} />{/snippet}
  </Loaded>
</main>
