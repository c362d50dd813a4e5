<script lang="ts">
  import { api, ask } from '$lib/api/client';
  import { dayAndTime } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import TestList from '$lib/skills/TestList.svelte';
  import { decisionName, stateName } from '$lib/skills/words';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const decisions = ask(
    api.GET('/api/v1/students/{studentId}/skills/{ladder}/decisions', {
      params: { path: { studentId: student.id, ladder: 'front-split' } },
    }),
  );
</script>

<div class="max-w-3xl px-5 py-5 lg:px-7">
  <Loaded of={decisions}>
    {#snippet children(list)}
      {#if list.length === 0}
        <p>No decision yet. The first one is where each side starts.</p>
      {/if}
      <ul>
        {#each list as d (d.id)}
          <li class="ruled border-b py-3">
            <details>
              <summary class="flex cursor-pointer flex-wrap items-baseline gap-x-3">
                {#if d.side}<SideMark side={d.side} />{/if}
                <strong
                  >{decisionName(d.kind)}: {d.kind === 'place'
                    ? `stage ${d.toStage}`
                    : d.fromStage === d.toStage
                      ? `stage ${d.toStage}`
                      : `stage ${d.fromStage} to ${d.toStage}`}</strong
                >
                <span class="text-quiet">{dayAndTime(d.at)} · {d.by}</span>
                <span class="link-line ms-auto text-sm">why</span>
              </summary>
              {#if d.evidence && d.side}
                <div class="mt-3">
                  <TestList
                    side={d.side}
                    title="what the gate said: {stateName(d.evidence.state)}, hips {d.evidence.standard}"
                    tests={d.evidence.tests}
                  />
                </div>
              {/if}
            </details>
            {#if d.reason}<p class="text-quiet mt-1 text-sm">“{d.reason}”</p>{/if}
          </li>
        {/each}
      </ul>
    {/snippet}
  </Loaded>
</div>
