<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import { chosen, longDay, number, withUnit } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import Decide from './Decide.svelte';
  import EvidenceForms from './EvidenceForms.svelte';
  import { capital, sameCourse, type Course } from './sides';
  import { plateauText, stepBackText, whyTitle } from './gateWords';
  import { actionOf, stepsOf } from './nextStep';
  import StepLink from './StepLink.svelte';
  import { nextText, testName, unitOf } from './words';

  interface Props {
    student: OpenStudent;
    side: Course;
    onside: (side: Course) => void;
  }

  let { student, side, onside }: Props = $props();
  const skill = $derived(student.skill!);
  const gate = $derived(skill.sides.find((s) => sameCourse(s.side, side)) ?? skill.sides[0]!);
  const other = $derived(skill.sides.find((s) => !sameCourse(s.side, side)));
  const nearest = $derived(gate.nearestMiss == null ? undefined : gate.tests[gate.nearestMiss]);
  const steps = $derived(
    stepsOf(
      gate.tests.filter((t) => t.outcome !== 'met'),
      nearest,
    ),
  );
  const where = $derived({ student: student.id, skill: skill.skill, side: gate.side });

  function told(test: Schemas['TestVerdict']): string {
    if (test.test.kind !== 'rom' || test.value == null || !test.at) return '';
    const unit = unitOf(test.test);
    const way = test.margin! >= 0 ? 'past it' : 'short of it';
    const noise = test.noise
      ? `, and one test alone needs ${withUnit(test.noise, unit)} to rise above its noise.`
      : '.';
    return (
      `${testName(test.test)}${test.readOn ? `, ${test.readOn}` : ''}, warm: ${withUnit(test.value, unit)} on ${longDay(test.at)}. ` +
      `The line is ${chosen(test.threshold!, unit)}; this is ${withUnit(Math.abs(test.margin!), unit)} ${way}${noise}`
    );
  }
</script>

<aside
  class="ruled bg-base-200 border-y px-5 py-5 xl:col-start-2 xl:row-span-2 xl:row-start-1 xl:min-h-[calc(100dvh-8.7rem)] xl:border-y-0 xl:border-s"
  aria-label="Why"
>
  {#if other}
    <div class="join mb-4" role="group" aria-label="Side">
      {#each skill.sides as s (s.side)}
        <button
          class={['join-item btn btn-sm', sameCourse(s.side, gate.side) && 'bg-base-100']}
          aria-pressed={sameCourse(s.side, gate.side)}
          onclick={() => onside(s.side)}
        >
          <SideMark side={s.side} means={skill.ladder.sideMeans} />
        </button>
      {/each}
    </div>
  {/if}
  <h2 class="mb-2">{whyTitle(gate.side, gate.state, skill.ladder.sideMeans)}</h2>
  <div class="grid gap-2 text-[0.95rem]">
    {#if student.page!.absence === 'reBaseline'}
      <p class="next-thing font-semibold">
        {student.page!.daysSinceLast} days since the last session.
        <a class="link-line" href={resolve('/students/[id]/bench', { id: student.id })}>Take a new baseline</a
        >, both sides.
      </p>
    {/if}
    {#if gate.state === 'open'}
      <p>
        All {gate.tests.length} tests are met, none of them by luck or noise alone. The decision is yours.
      </p>
    {:else if gate.state === 'waiting' && other}
      <p>
        {capital(gate.side!)} is {number(gate.stage - other.stage, 0)} stage ahead, and {skill.ladder
          .leadLimit}
        is this ladder’s limit. It opens when {other.side} reaches stage {gate.stage}.
      </p>
      <p>{gate.metCount} of {gate.tests.length} tests are met meanwhile.</p>
    {:else if gate.state === 'blocked'}
      <p>
        A bar lies on what this ladder loads. Nothing gets around it, an override included.
        <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}
          >See what holds it</a
        >
      </p>
    {:else if gate.state === 'owned'}
      <p>Every gate of this ladder is behind {gate.side ? 'this side' : 'the student'}.</p>
    {/if}
    {#if nearest && gate.state !== 'blocked'}
      {#if told(nearest)}<p>{told(nearest)}</p>{/if}
    {/if}
    {#if steps[0] && gate.state !== 'blocked' && gate.state !== 'waiting'}
      <p class="next-thing font-semibold">{nextText(steps[0])}</p>
      <p><StepLink primary action={actionOf(steps[0], where)} /></p>
    {/if}
    {#if steps.length > 1 && gate.state !== 'blocked'}
      <p class="text-quiet">Also missing:</p>
      <ul class="ruled border-t">
        {#each steps.slice(1) as test, i (i)}
          <li class="ruled flex flex-wrap items-center justify-between gap-2 border-b py-1.5">
            <span class="min-w-0">{nextText(test)}</span>
            <StepLink action={actionOf(test, where)} />
          </li>
        {/each}
      </ul>
    {/if}
    {#if gate.plateau && gate.group === 'stalled'}
      <p class="border-s-4 ps-3"><strong>Stalled.</strong> {plateauText(gate.plateau)}</p>
    {/if}
    {#each gate.stepBack as reason, i (i)}
      <p class="border-s-4 ps-3"><strong>A step back is suggested.</strong> {stepBackText(reason)}</p>
    {/each}
  </div>
  {#key `${skill.skill}${gate.side}`}
    <div class="mt-5">
      <Decide studentId={student.id} skill={skill.skill} {gate} ondecided={() => student.load()} />
    </div>
    {#key gate.stage}<EvidenceForms {student} {gate} />{/key}
  {/key}
</aside>
