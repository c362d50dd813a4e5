<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask, type Schemas } from '$lib/api/client';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { ladderDraft } from '$lib/skills/editor.svelte';
  import LadderView from '$lib/skills/LadderView.svelte';
  import LadderForm from '$lib/skills/LadderForm.svelte';

  const key = $derived(page.params.ladder!);
  const version = $derived(page.params.version!);
  const drafted = $derived(version === 'new' ? ladderDraft.read(key) : undefined);
  const stored = $derived(
    version === 'new'
      ? undefined
      : Promise.all([
          ask(
            api.GET('/api/v1/ladders/{ladder}/versions/{version}', {
              params: { path: { ladder: key, version: Number(version) } },
            }),
          ),
          ask(api.GET('/api/v1/ladders')),
          ask(api.GET('/api/v1/ladders/{ladder}/followers', { params: { path: { ladder: key } } })),
        ]),
  );

  /** A shipped ladder becomes a copy; an own one its next version. */
  async function edit(ladder: Schemas['Ladder'], line: Schemas['LadderLine'] | undefined) {
    const draft =
      !line || line.shipped
        ? ladderDraft.copy(ladder)
        : { ...structuredClone(ladder), version: line.version + 1 };
    ladderDraft.keep(draft);
    await goto(resolve('/ladders/[ladder]/[version]', { ladder: draft.key, version: 'new' }));
  }
</script>

<svelte:head><title>Ladder · Tensarch</title></svelte:head>

{#if drafted}
  {#key key}<LadderForm ladder={drafted} />{/key}
{:else if stored}
  <Loaded of={stored}>
    {#snippet children([ladder, list, followers])}
      {@const line = list.find((l) => l.key === ladder.key)}
      <LadderView {ladder} {line} {followers} onedit={() => edit(ladder, line)} />
    {/snippet}
  </Loaded>
{:else}
  <main class="p-7">
    <p>
      This draft is not on this device. <a class="link-line" href={resolve('/ladders')}>Back to the ladders</a
      >
    </p>
  </main>
{/if}
