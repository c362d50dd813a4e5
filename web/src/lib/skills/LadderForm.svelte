<script lang="ts">
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Field from '$lib/parts/Field.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText, problemText } from '$lib/parts/problems';
  import { ladderDraft, LadderEditor } from './editor.svelte';
  import NumberBox from './NumberBox.svelte';
  import StageEditor from './StageEditor.svelte';
  import TrialPanel from './TrialPanel.svelte';

  interface Props {
    ladder: Schemas['Ladder'];
  }

  let { ladder }: Props = $props();
  const editor = new LadderEditor(untrack(() => ladder));
  const whole = $derived(
    [
      'everyGate',
      'regions',
      'requiredTags',
      'stages',
      'sideMeasures',
      'skill',
      'perSide',
      'startsAtOne',
      'leadLimit',
    ]
      .map((f) => editor.problem(f))
      .filter((p) => p !== undefined),
  );
  const nameProblem = $derived(editor.problem('name'));

  async function store(event: SubmitEvent) {
    event.preventDefault();
    const stored = await editor.store();
    if (stored)
      await goto(
        resolve('/ladders/[ladder]/[version]', { ladder: stored.key, version: String(stored.version) }),
      );
  }
</script>

<main class="grid min-w-0 content-start xl:grid-cols-[minmax(0,1fr)_20rem] xl:grid-rows-[1fr]">
  <form id="ladder" class="min-w-0 p-5 lg:p-7" onsubmit={store} novalidate>
    <h1 class="mb-1">
      {editor.ladder.version === 1 ? 'A ladder of your own' : `Version ${editor.ladder.version}`}
    </h1>
    <p class="text-quiet mb-4 max-w-prose">
      From {catalogue.ladder(editor.ladder.skill).name.toLowerCase()}. Every gate keeps two tests: no pain
      over 3, and nothing that bars it. What you type stays on this device until you store it.
    </p>
    <div class="mb-5 max-w-md">
      <Field label="Name" error={nameProblem && problemText(nameProblem)}>
        {#snippet children({ id, describedBy, invalid })}
          <input
            {id}
            class="input w-full"
            aria-describedby={describedBy}
            aria-invalid={invalid}
            bind:value={editor.ladder.name}
            oninput={() => editor.changed()}
          />
        {/snippet}
      </Field>
    </div>
    {#if editor.ladder.perSide}
      <div class="mb-5 flex flex-wrap items-center gap-2 text-sm">
        One side may lead the other by
        <NumberBox label="Lead limit" bind:value={editor.ladder.leadLimit} changed={() => editor.changed()} /> stages
      </div>
    {/if}
    {#each whole as p, i (i)}<p class="text-error mb-2 text-sm font-semibold" role="alert">
        {problemText(p)}
      </p>{/each}
    {#each { length: editor.ladder.stages.length }, i (i)}
      <StageEditor {editor} bind:stage={editor.ladder.stages[i]!} />
    {/each}
    {#if editor.refusal}
      <div class="mb-3"><Notice tone="error">{pageText(editor.refusal.code)}</Notice></div>
    {/if}
  </form>
  <TrialPanel {editor}>
    <div class="flex flex-wrap gap-3">
      {#if account.mayWrite}
        <button
          class="btn btn-primary"
          form="ladder"
          disabled={editor.busy || !!editor.trial?.problems.length}
          >Store as version {editor.ladder.version}</button
        >
      {/if}
      <a
        class="btn btn-ghost"
        href={resolve('/ladders')}
        onclick={() => ladderDraft.forget(editor.ladder.key)}>Throw the draft away</a
      >
    </div>
  </TrialPanel>
</main>
