<script lang="ts">
  import { resolve } from '$app/paths';
  import { api, ask, type Schemas } from '$lib/api/client';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import Decide from './Decide.svelte';
  import DecisionList from './DecisionList.svelte';
  import { sameCourse } from './sides';
  import TestRow from './TestRow.svelte';
  import { plateauText, stepBackText, whyTitle } from './gateWords';

  interface Props {
    /** One whose gate is worked out. */
    entry: Schemas['BoardEntry'] & { line: Schemas['BoardLine'] };
    ondecided: () => void;
  }

  let { entry, ondecided }: Props = $props();
  const path = $derived({ studentId: entry.studentId, skill: entry.line.skill });

  const evidence = $derived(
    Promise.all([
      ask(api.GET('/api/v1/students/{studentId}/skills/{skill}', { params: { path } })),
      ask(
        api.GET('/api/v1/students/{studentId}/decisions', {
          params: { path: { studentId: entry.studentId }, query: { skill: entry.line.skill } },
        }),
      ),
    ]),
  );
  const link = $derived(
    `${resolve('/students/[id]', { id: entry.studentId })}?skill=${entry.line.skill}${
      entry.line.gate.side ? `&side=${entry.line.gate.side}` : ''
    }`,
  );
</script>

<aside
  class="ruled bg-base-200 min-w-0 border-y px-5 py-5 xl:border-y-0 xl:border-s"
  aria-label="Evidence for {entry.name}"
>
  <h2 class="mb-1 wrap-break-word">
    <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
    <a class="hover:underline" href={link}>{entry.name}</a>
  </h2>
  <p class="mb-3 text-sm">
    {entry.line.ladderName} ·
    <SideMark
      side={entry.line.gate.side}
      text="{entry.line.gate.side ?? 'stage'} {entry.line.gate.stage} {entry.line.gate.stageName ?? ''}"
    />
  </p>
  <Loaded of={evidence}>
    {#snippet children([skill, log])}
      {@const gate = skill.sides.find((s) => sameCourse(s.side, entry.line.gate.side))!}
      <h3 class="mb-2 text-lg">{whyTitle(gate.side, gate.state, skill.ladder.sideMeans)}</h3>
      {#if gate.plateau && gate.group === 'stalled'}<p class="mb-2 border-s-4 ps-3 text-sm">
          {plateauText(gate.plateau)}
        </p>{/if}
      {#each gate.stepBack as reason, i (i)}<p class="mb-2 border-s-4 ps-3 text-sm">
          <strong>A step back is suggested.</strong>
          {stepBackText(reason)}
        </p>{/each}
      <div class="mb-4">
        <Decide studentId={entry.studentId} skill={skill.skill} {gate} name={entry.name} {ondecided} />
      </div>
      <ul aria-label="Tests of the gate">
        {#each gate.tests as test, i (i)}<TestRow {test} side={gate.side} />{/each}
      </ul>
      <h3 class="mt-5 mb-1 text-lg">Decisions so far</h3>
      <DecisionList decisions={log.decisions.filter((d) => sameCourse(d.side, entry.line.gate.side))} />
    {/snippet}
  </Loaded>
</aside>
