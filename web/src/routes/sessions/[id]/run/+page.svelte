<script lang="ts">
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api/client';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Floor from '$lib/sessions/Floor.svelte';

  const id = $derived(page.params.id!);
  const loaded = $derived(load(id));

  /** The pack is kept on the device for as long as it is good, so that a reload does not need the server. */
  async function load(sessionId: string): Promise<Schemas['PackResponse']> {
    const key = `pack:${sessionId}`;
    try {
      const fresh = await ask(
        api.GET('/api/v1/sessions/{sessionId}/pack', { params: { path: { sessionId } } }),
      );
      localStorage.setItem(key, JSON.stringify(fresh));
      return fresh;
    } catch (error) {
      const kept = localStorage.getItem(key);
      if ((error as { code?: string }).code === 'unreachable' && kept) {
        const pack = JSON.parse(kept) as Schemas['PackResponse'];
        if (new Date(pack.expiresAt) > new Date()) return pack;
      }
      throw error;
    }
  }
</script>

<svelte:head><title>Floor runner · Tensarch</title></svelte:head>

<Loaded of={loaded}>
  {#snippet children(response)}
    <Floor {response} />
  {/snippet}
</Loaded>
