<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { gateText, roomText, shortText, targetFails, targetText, untestedText, whyShort } from './ahead';
  import { skillName } from './words';

  interface Props {
    student: string;
    plan: Schemas['PlanView'];
    /** The programme that more room is looked for in. */
    sketch: Schemas['ProgrammeSketch'];
  }

  let { student, plan, sketch }: Props = $props();
  let room = $state.raw<Schemas['Room']>();
  let refusal = $state.raw<Refusal>();
  let working = $state(false);
  const met = $derived(plan.targets.filter((t) => !targetFails(t)));
  const failed = $derived(plan.targets.filter(targetFails));

  // What was found is about the plan that was looked at.
  $effect(() => {
    void plan;
    room = undefined;
  });

  async function find() {
    working = true;
    refusal = undefined;
    try {
      room = await ask(
        api.POST('/api/v1/students/{studentId}/programme/room', {
          params: { path: { studentId: student } },
          body: sketch,
        }),
      );
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      working = false;
    }
  }
</script>

{#if failed.length}
  <Notice tone="caution">
    <ul>
      {#each failed as target (target.skill)}<li>{targetText(target)}</li>{/each}
    </ul>
  </Notice>
{/if}
<div class="grid gap-x-8 gap-y-4 lg:grid-cols-2">
  {#if plan.gates.length}
    <section aria-label="Gates expected">
      <h3>Gates expected</h3>
      <ul class="ruled mt-1 border-t text-sm">
        {#each plan.gates as gate (gate.skill + gate.side)}
          <li class="ruled border-b py-1">
            <strong>{skillName(gate.skill)}</strong>
            {#if gate.side}<SideMark side={gate.side} />{/if}
            {gate.code === 'owned' ? '' : `stage ${gate.stage}: `}{gateText(gate)}
          </li>
        {/each}
      </ul>
      {#each met as target (target.skill)}<p class="mt-1 text-sm">{targetText(target)}</p>{/each}
    </section>
  {/if}
  {#if plan.untested.length}
    <section aria-label="Tests that are missing">
      <h3>Tests that are missing</h3>
      <ul class="mt-1 list-disc ps-5 text-sm">
        {#each plan.untested as goal (goal.skill)}<li>{untestedText(goal)}</li>{/each}
      </ul>
    </section>
  {/if}
  {#if plan.tooFew.length}
    <section aria-label="What does not fit">
      <h3>What does not fit</h3>
      <ul class="mt-1 list-disc ps-5 text-sm">
        {#each plan.tooFew as goal (goal.skill)}
          <li>
            {shortText(goal)}
            {#if whyShort(goal, plan)}<span class="text-quiet block">{whyShort(goal, plan)}</span>{/if}
          </li>
        {/each}
      </ul>
      <div class="mt-2 text-sm" aria-live="polite">
        {#if room}
          {#each roomText(room) as line (line)}<p>{line}</p>{/each}
        {:else}
          <button
            type="button"
            class="btn btn-sm btn-outline"
            disabled={working || !account.mayWrite}
            onclick={find}>{working ? 'Planning it with more time…' : 'What would make room?'}</button
          >
        {/if}
        {#if refusal}<p class="text-error font-semibold">{pageText(refusal.code)}</p>{/if}
      </div>
    </section>
  {/if}
</div>
