<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Field from '$lib/parts/Field.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import { nextText } from './words';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  const ladder = $derived(catalogue.ladder('front-split'));
  const approaches = $derived(catalogue.content!.approaches);
  const suggested = $derived(
    ask(
      api.GET('/api/v1/students/{studentId}/skills/{ladder}/placement', {
        params: { path: { studentId: student.id, ladder: 'front-split' } },
      }),
    ),
  );
  const ids = { id: newId(), leftDecisionId: newId(), rightDecisionId: newId() };
  let stages = $state<Partial<Record<Schemas['Side'], number>>>({});
  let approach = $state('long-and-ramped');
  let refusal = $state<Refusal>();

  async function place(sides: Schemas['PlacementSide'][]) {
    const stage = (side: Schemas['Side']) =>
      stages[side] ?? sides.find((s) => s.side === side)!.suggestedStage;
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/skills', {
          params: { path: { studentId: student.id } },
          body: {
            ...ids,
            ladder: 'front-split',
            approach,
            leftStage: stage('left'),
            rightStage: stage('right'),
          },
        }),
      );
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<h2 class="mb-1">Put on the front split</h2>
<p class="mb-5 max-w-prose">
  Each side starts on its own stage. The suggestion is the lowest stage with a test that is not met;
  <a class="link-line" href={resolve('/students/[id]/bench', { id: student.id })}>read both sides</a> first, and
  it gets better.
</p>
<Loaded of={suggested}>
  {#snippet children(placement)}
    <div class="grid gap-6 sm:grid-cols-2">
      {#each placement.sides as side (side.side)}
        <section class="ruled border-t pt-3">
          <h3 class="mb-2"><SideMark side={side.side} /></h3>
          <Field
            label="{side.side === 'left' ? 'Left' : 'Right'} starts at"
            hint="Suggested: stage {side.suggestedStage}"
          >
            {#snippet children({ id, describedBy })}
              <select
                {id}
                class="select w-full"
                aria-describedby={describedBy}
                value={stages[side.side] ?? side.suggestedStage}
                onchange={(event) => (stages[side.side] = Number(event.currentTarget.value))}
              >
                {#each ladder.stages as stage (stage.number)}
                  <option value={stage.number}>{stage.number} {stage.name}</option>
                {/each}
              </select>
            {/snippet}
          </Field>
          <ul class="text-quiet mt-3 grid gap-1 text-sm">
            {#each side.unmet as test, i (i)}<li>{nextText(test)}</li>{/each}
          </ul>
        </section>
      {/each}
      <Field label="Approach" hint={approaches.find((a) => a.key === approach)?.text}>
        {#snippet children({ id, describedBy })}
          <select {id} class="select w-full" aria-describedby={describedBy} bind:value={approach}>
            {#each approaches as a (a.key)}<option value={a.key}>{a.name}</option>{/each}
          </select>
        {/snippet}
      </Field>
    </div>
    {#if refusal}<div class="mt-4"><Notice tone="error">{pageText(refusal.code)}</Notice></div>{/if}
    {#if account.mayWrite}
      <button class="btn btn-primary mt-6" onclick={() => place(placement.sides)}>Confirm the stages</button>
    {/if}
  {/snippet}
</Loaded>
