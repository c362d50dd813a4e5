<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask } from '$lib/api/client';
  import DecisionList from '$lib/skills/DecisionList.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const before = $derived(page.url.searchParams.get('before') ?? undefined);
  const decisions = $derived.by(() => {
    void student.heard;
    return ask(
      api.GET('/api/v1/students/{studentId}/decisions', {
        params: { path: { studentId: student.id }, query: { before } },
      }),
    );
  });
</script>

<div class="max-w-3xl px-5 py-5 lg:px-7">
  <Loaded of={decisions}>
    {#snippet children(list)}
      {#if list.decisions.length === 0}
        <p>
          No decision yet. The first one is where each side starts:
          <a class="link-line" href={resolve('/students/[id]', { id: student.id })}>put on a ladder</a>.
        </p>
      {/if}
      <DecisionList decisions={list.decisions} />
      {#if list.next}
        <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
        <a
          class="btn btn-outline mt-4"
          href="{resolve('/students/[id]/decisions', { id: student.id })}?before={list.next}"
          >Older decisions</a
        >
      {/if}
    {/snippet}
  </Loaded>
</div>
