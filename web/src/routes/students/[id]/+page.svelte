<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { shortDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import Arch from '$lib/skills/Arch.svelte';
  import Comparison from '$lib/skills/Comparison.svelte';
  import PlaceForm from '$lib/skills/PlaceForm.svelte';
  import TestList from '$lib/skills/TestList.svelte';
  import WhyPanel from '$lib/skills/WhyPanel.svelte';
  import { stateName } from '$lib/skills/words';
  import NextSession from '$lib/planning/NextSession.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const skill = $derived(student.skill);
  const ladder = $derived(skill && catalogue.ladder(skill.ladder));
  const sides = ['left', 'right'] as const;
  const gate = (side: Schemas['Side']) => skill!.sides.find((s) => s.side === side)!;
  let picked = $state<{ side: Schemas['Side']; stage: number }>();
  const asked = $derived(sides.find((s) => s === page.url.searchParams.get('side')));
  const chosen = $derived(picked ?? (skill && asked ? { side: asked, stage: gate(asked).stage } : undefined));

  const stageOf = (side: Schemas['Side']) => ladder!.stages.find((s) => s.number === gate(side).stage);
  const wanted = $derived(
    skill?.sides.filter((s) => s.state === 'open' || s.state === 'retest').map((s) => s.side) ?? [],
  );
  const whySide = $derived(chosen?.side ?? wanted[0] ?? 'left');
  const elsewhere = $derived(
    chosen && skill && chosen.stage !== gate(chosen.side).stage ? chosen : undefined,
  );
  const shownTests = (side: Schemas['Side']) =>
    elsewhere
      ? skill!.stages.find((s) => s.side === side && s.stage === elsewhere.stage)!.tests
      : gate(side).tests;
  const titleOf = (side: Schemas['Side']) => {
    const number = elsewhere?.stage ?? gate(side).stage;
    return elsewhere
      ? `stage ${number} ${ladder!.stages.find((s) => s.number === number)?.name ?? ''}`
      : 'tests of the gate';
  };

  function describe(stone: Schemas['Stone']): string {
    const name = `${stone.side} stage ${stone.stage} ${ladder!.stages[stone.stage - 1]?.name}`;
    if (!stone.here) return `${name}, ${stone.look === 'met' ? 'passed' : 'ahead'}`;
    const g = gate(stone.side);
    return `${name}, ${stateName(g.state)}, ${g.metCount} of ${g.tests.length} tests met`;
  }
</script>

{#if skill && ladder}
  <div class="grid content-start xl:grid-cols-[minmax(0,1fr)_21rem] xl:grid-rows-[auto_1fr]">
    <div class="px-5 py-5 lg:px-7">
      <div class="grid items-center gap-x-8 gap-y-4 md:grid-cols-[minmax(0,23rem)_minmax(0,1fr)]">
        <div class="relative">
          <Arch
            stones={skill.arch}
            stages={ladder.stages}
            label="{ladder.name}, hips {skill.standard}"
            next={wanted}
            {chosen}
            {describe}
            onchoose={(side, stage) => (picked = { side, stage })}
          />
          <div class="pointer-events-none absolute inset-x-0 top-[44%] text-center">
            <p class="font-head text-2xl leading-tight font-semibold">{ladder.name}</p>
            <p class="text-quiet text-sm">hips {skill.standard}</p>
            <p class="font-head mt-1 text-lg font-semibold">
              <SideMark side="left" text="left {stageOf('left') ? gate('left').stage : '✓'}" />
              <span class="text-quiet">·</span>
              <SideMark side="right" text="right {stageOf('right') ? gate('right').stage : '✓'}" />
            </p>
          </div>
        </div>
        <div class="grid gap-4">
          {#each sides as side (side)}
            <section>
              <h2>
                <SideMark
                  {side}
                  text="{side === 'left' ? 'Left' : 'Right'} · {stageOf(side)
                    ? `stage ${gate(side).stage} ${stageOf(side)!.name}`
                    : 'owned'}"
                />
              </h2>
              <p>{stageOf(side)?.work ?? ''}</p>
              <p class="text-quiet text-sm">
                {stateName(gate(side).state)}, {gate(side).metCount} of {gate(side).tests.length} tests met{#if gate(side).enteredAt},
                  here since
                  {shortDay(gate(side).enteredAt!)}{/if}
              </p>
            </section>
          {/each}
          <Comparison comparison={skill.comparison} />
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
      <div class="mt-5 grid gap-x-8 gap-y-5 lg:grid-cols-2">
        {#each sides as side (side)}
          <TestList {side} title={titleOf(side)} tests={shownTests(side)} />
        {/each}
      </div>
    </div>
  </div>
{:else if student.page}
  <div class="max-w-3xl px-5 py-6 lg:px-7">
    {#if !student.page.screened}
      <p class="next-thing mb-5">
        The intake screen is not answered yet, and nothing is planned before it is.
        <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}>Answer it</a>
      </p>
    {/if}
    <PlaceForm {student} />
  </div>
{/if}
