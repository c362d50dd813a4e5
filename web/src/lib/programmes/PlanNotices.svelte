<script lang="ts">
  import type { Refusal, Schemas } from '$lib/api/client';
  import Notice from '$lib/parts/Notice.svelte';
  import { dayAndTime } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';
  import { rulesText } from './ahead';
  import { brokenText, isOfPage } from './words';

  interface Props {
    plan: Schemas['PlanView'] | null;
    /** Another coach kept a version meanwhile. */
    theirs: boolean;
    refusal: Refusal | undefined;
    refused: Schemas['BrokenRule'][];
    onleave: () => void;
    onagain: () => void;
  }

  let { plan, theirs, refusal, refused, onleave, onagain }: Props = $props();
  /** What the solver says cannot be together. */
  const conflict = $derived(rulesText(refusal?.problems[0]?.rules ?? [], plan ?? undefined));
</script>

{#if theirs}
  <Notice tone="error">
    {#if plan?.endedAt}
      Somebody ended this programme meanwhile, on {dayAndTime(plan.endedAt)}. Yours is still here, and begins
      another one when you keep it again.
    {:else}
      Somebody else kept another version of this plan meanwhile: version {plan?.number} by {plan?.by}. Yours
      is still here, planned on top of theirs when you keep it again.
    {/if}
    <button type="button" class="btn btn-sm btn-outline ms-2" onclick={onleave}>Look at theirs</button>
    <button type="button" class="btn btn-sm btn-accent ms-2" onclick={onagain}>Work mine out again</button>
  </Notice>
{:else if conflict.length}
  <Notice tone="error">
    There is no plan: not all of this can be at once. Unpin one of the sessions, or move it.
    <ul class="list-disc ps-5">
      {#each conflict as rule (rule)}<li>{rule}</li>{/each}
    </ul>
  </Notice>
{:else if refusal && isOfPage(refusal)}
  <Notice tone="error">{pageText(refusal.problems[0]?.code ?? refusal.code)}</Notice>
{:else if refusal}
  <Notice tone="error">Something in the programme cannot stand: it is said at its field.</Notice>
{/if}
{#if refused.length}
  <Notice tone="error">
    It stays where it is:
    <ul class="list-disc ps-5">
      {#each refused as broken, i (i)}<li>{brokenText(broken)}</li>{/each}
    </ul>
  </Notice>
{/if}
