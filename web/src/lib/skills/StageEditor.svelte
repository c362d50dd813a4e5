<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { problemText } from '$lib/parts/problems';
  import type { LadderEditor } from './editor.svelte';
  import TestEditor from './TestEditor.svelte';
  import { blankTest, testKinds } from './testKinds';

  interface Props {
    editor: LadderEditor;
    stage: Schemas['Stage'];
  }

  let { editor, stage = $bindable() }: Props = $props();
  const path = $derived(`stages[${stage.number - 1}]`);
  const shipped = $derived(catalogue.ladder(editor.ladder.skill).stages);
  const problems = $derived(
    ['name', 'number', 'tests', 'trainsAs']
      .map((f) => editor.problem(`${path}.${f}`))
      .filter((p) => p !== undefined),
  );
</script>

<section class="mb-6" aria-label="Stage {stage.number}">
  <div class="mb-1 flex flex-wrap items-center gap-2">
    <span class="figures text-2xl">{stage.number}</span>
    <input
      class="input w-52 font-semibold"
      aria-label="Name of stage {stage.number}"
      bind:value={stage.name}
      oninput={() => editor.changed()}
    />
    <input
      class="input min-w-40 grow"
      aria-label="Work of stage {stage.number}"
      bind:value={stage.work}
      oninput={() => editor.changed()}
    />
  </div>
  <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
    <label>
      trains as
      <select class="select select-sm w-44" bind:value={stage.trainsAs} onchange={() => editor.changed()}>
        {#each shipped as s (s.number)}<option value={s.number}>{s.number} {s.name}</option>{/each}
      </select>
    </label>
    <button type="button" class="btn btn-ghost btn-sm" onclick={() => editor.addStage(stage.number)}
      >Add a stage after it</button
    >
    {#if editor.ladder.stages.length > 1}
      <button type="button" class="btn btn-ghost btn-sm" onclick={() => editor.removeStage(stage.number)}
        >Remove<span class="sr-only"> stage {stage.number}</span></button
      >
    {/if}
  </div>
  {#each problems as p, i (i)}<p class="text-error text-sm font-semibold" role="alert">
      {problemText(p)}
    </p>{/each}
  {#each { length: stage.tests.length }, i (i)}
    <TestEditor
      {editor}
      bind:test={stage.tests[i]!}
      path="{path}.tests[{i}]"
      onremove={() => editor.removeTest(stage.number, i)}
    />
  {/each}
  <label class="ruled block border-t pt-2 text-sm">
    Add a test
    <select
      class="select select-sm w-44"
      value=""
      onchange={(event) => {
        const kind = testKinds.find((k) => k.kind === event.currentTarget.value);
        if (kind) editor.addTest(stage.number, blankTest(kind.kind, editor.ladder));
        event.currentTarget.value = '';
      }}
    >
      <option value="">Choose a kind</option>
      {#each testKinds as k (k.kind)}<option value={k.kind}>{k.name}</option>{/each}
    </select>
  </label>
</section>
