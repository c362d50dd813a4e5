<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { dayAndTime } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import TestList from './TestList.svelte';
  import { decisionName, stateName } from './gateWords';

  interface Props {
    decisions: Schemas['DecisionView'][];
  }

  let { decisions }: Props = $props();

  const stages = (d: Schemas['DecisionView']) =>
    d.kind === 'place' || d.fromStage === d.toStage
      ? `stage ${d.toStage}`
      : `stage ${d.fromStage} to ${d.toStage}`;
  const under = (e: Schemas['DecisionEvidence']) =>
    [
      stateName(e.state),
      e.standard && `hips ${e.standard}`,
      e.ladderName && `${e.ladderName}, version ${e.ladderVersion}`,
    ]
      .filter(Boolean)
      .join('; ');
</script>

<ul>
  {#each decisions as d (d.id)}
    <li class="ruled border-b py-3">
      <details>
        <summary class="flex cursor-pointer flex-wrap items-baseline gap-x-3">
          <span>{catalogue.ladder(d.skill).name}</span>
          {#if d.side}<SideMark side={d.side} means={catalogue.ladder(d.skill).sideMeans} />{/if}
          <strong>{decisionName(d.kind)}: {stages(d)}</strong>
          <span class="text-quiet">{dayAndTime(d.at)} · {d.by}</span>
          <span class="link-line ms-auto text-sm">why</span>
        </summary>
        {#if d.evidence}
          <div class="mt-3">
            <TestList
              side={d.side}
              title="what the gate said: {under(d.evidence)}"
              tests={d.evidence.tests}
            />
          </div>
        {/if}
      </details>
      {#if d.reason}<p class="text-quiet mt-1 text-sm">“{d.reason}”</p>{/if}
    </li>
  {/each}
</ul>
