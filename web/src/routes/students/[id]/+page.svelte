<script lang="ts">
  import { untrack } from 'svelte';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import type { Schemas } from '$lib/api/client';
  import { shortDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import NextSession from '$lib/planning/NextSession.svelte';
  import Arch from '$lib/skills/Arch.svelte';
  import Comparison from '$lib/skills/Comparison.svelte';
  import MoveForm from '$lib/skills/MoveForm.svelte';
  import PlaceForm from '$lib/skills/PlaceForm.svelte';
  import { capital, courseName, sameCourse, type Course } from '$lib/skills/sides';
  import SkillTabs from '$lib/skills/SkillTabs.svelte';
  import TestList from '$lib/skills/TestList.svelte';
  import WhyPanel from '$lib/skills/WhyPanel.svelte';
  import { stateName } from '$lib/skills/gateWords';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const wanted = $derived(page.url.searchParams.get('skill') ?? undefined);
  const adding = $derived(page.url.searchParams.has('add'));

  $effect(() => {
    if (wanted && student.page && student.skill?.skill !== wanted) {
      picked = undefined;
      void untrack(() => student.load(wanted));
    }
  });

  const skill = $derived(adding ? undefined : student.skill);
  const ladder = $derived(skill?.ladder);
  const gate = (side: Course) => skill!.sides.find((s) => sameCourse(s.side, side)) ?? skill!.sides[0]!;
  let picked = $state<{ side: Course; stage: number }>();
  const asked = $derived(
    skill?.sides.find((s) => s.side && s.side === page.url.searchParams.get('side'))?.side,
  );
  const chosen = $derived(picked ?? (asked ? { side: asked, stage: gate(asked).stage } : undefined));

  const stageOf = (side: Course) => ladder!.stages.find((s) => s.number === gate(side).stage);
  const next = $derived(
    skill?.sides.filter((s) => s.state === 'open' || s.state === 'retest').map((s) => s.side) ?? [],
  );
  const whySide = $derived(chosen?.side ?? next[0] ?? skill?.sides[0]?.side ?? null);
  const elsewhere = $derived(
    chosen && skill && chosen.stage !== gate(chosen.side).stage ? chosen : undefined,
  );
  const shownTests = (side: Course) =>
    elsewhere
      ? skill!.stages.find((s) => sameCourse(s.side, side) && s.stage === elsewhere.stage)!.tests
      : gate(side).tests;
  const titleOf = (side: Course) => {
    const number = elsewhere?.stage ?? gate(side).stage;
    return elsewhere
      ? `stage ${number} ${ladder!.stages.find((s) => s.number === number)?.name ?? ''}`
      : 'tests of the gate';
  };
  const short = (side: Course) => `${side ?? 'stage'} ${stageOf(side) ? gate(side).stage : '✓'}`;

  function describe(stone: Schemas['Stone']): string {
    const name = `${courseName(stone.side)} stage ${stone.stage} ${ladder!.stages[stone.stage - 1]?.name}`;
    if (!stone.here) return `${name}, ${stone.look === 'met' ? 'passed' : 'ahead'}`;
    const g = gate(stone.side);
    return `${name}, ${stateName(g.state)}, ${g.metCount} of ${g.tests.length} tests met`;
  }
</script>

{#if student.page && student.page.skills.length}
  <SkillTabs {student} here={skill?.skill} />
{/if}
{#if skill && ladder}
  <div class="grid content-start xl:grid-cols-[minmax(0,1fr)_21rem] xl:grid-rows-[auto_1fr]">
    <div class="px-5 py-5 lg:px-7">
      <div class="grid items-center gap-x-8 gap-y-4 md:grid-cols-[minmax(0,23rem)_minmax(0,1fr)]">
        <div class="relative">
          <Arch
            stones={skill.arch}
            stages={ladder.stages}
            label="{ladder.name}{skill.standard ? `, hips ${skill.standard}` : ''}"
            {next}
            {chosen}
            {describe}
            onchoose={(side, stage) => (picked = { side, stage })}
          />
          <div class="pointer-events-none absolute inset-x-[31%] top-[42%] text-center">
            <p class="font-head text-2xl leading-tight font-semibold wrap-break-word">{ladder.name}</p>
            {#if skill.standard}<p class="text-quiet text-sm">hips {skill.standard}</p>{/if}
            <p class="font-head mt-1 text-lg font-semibold">
              {#each skill.sides as s (s.side)}
                <span class="inline-block px-1.5"><SideMark side={s.side} text={short(s.side)} /></span>
              {/each}
            </p>
          </div>
        </div>
        <div class="grid gap-4">
          {#each skill.sides as s (s.side)}
            <section>
              <h2>
                <SideMark
                  side={s.side}
                  text="{s.side ? `${capital(courseName(s.side, ladder.sideMeans))} · ` : ''}{stageOf(s.side)
                    ? `${s.side ? 'stage' : 'Stage'} ${s.stage} ${stageOf(s.side)!.name}`
                    : 'owned'}"
                />
              </h2>
              <p>{stageOf(s.side)?.work ?? ''}</p>
              <p class="text-quiet text-sm">
                {stateName(s.state)}, {s.metCount} of {s.tests.length} tests met{#if s.enteredAt}, here since
                  {shortDay(s.enteredAt)}{/if}
              </p>
            </section>
          {/each}
          {#if skill.comparison}<Comparison comparison={skill.comparison} />{/if}
          <NextSession {student} />
        </div>
      </div>
    </div>
    <WhyPanel {student} side={whySide} onside={(side) => (picked = { side, stage: gate(side).stage })} />
    <div class="px-5 pb-5 lg:px-7 xl:col-start-1 xl:row-start-2">
      {#if elsewhere}
        <p class="mt-4">
          <button class="link-line" onclick={() => (picked = undefined)}>Back to the present stages</button>
        </p>
      {/if}
      <div class={['mt-5 grid gap-x-8 gap-y-5', skill.sides.length > 1 && 'lg:grid-cols-2']}>
        {#each skill.sides as s (s.side)}
          <TestList
            side={s.side}
            means={ladder.sideMeans}
            title={titleOf(s.side)}
            tests={shownTests(s.side)}
          />
        {/each}
      </div>
      <MoveForm {student} />
    </div>
  </div>
{:else if student.page}
  <div class="max-w-4xl px-5 py-6 lg:px-7">
    {#if !student.page.screened}
      <p class="next-thing mb-5">
        {student.page.screen.state === 'notScreened'
          ? 'The intake screen is not answered yet, and nothing is planned before it is.'
          : 'The intake screen is not up to date, and nothing is planned before it is.'}
        <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}>Go through it</a>
      </p>
    {/if}
    <PlaceForm {student} />
  </div>
{/if}
