<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import { shortDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import Arch from '$lib/skills/Arch.svelte';
  import { courseName } from '$lib/skills/sides';
  import { stateName } from '$lib/skills/gateWords';
  import { actionOf, skillPage, type Action } from '$lib/skills/nextStep';
  import StepLink from '$lib/skills/StepLink.svelte';
  import { nextText } from '$lib/skills/words';
  import { tagName } from './tags';

  interface Props {
    line: Schemas['RosterLine'];
  }

  let { line }: Props = $props();
  const sides = $derived(
    line.skills.flatMap((k) => k.sides.map((s) => ({ ...s, skill: k.skill, ladder: k.ladderName }))),
  );
  const ready = $derived(sides.filter((s) => s.state === 'open'));
  const offLimits = $derived(line.bars.filter((t) => t.level === 'offLimits'));
  const lightOnly = $derived(line.bars.filter((t) => t.level === 'lightOnly'));
  const nearest = $derived(
    sides
      .filter((s) => s.nearest && s.state !== 'waiting')
      .sort((a, b) => b.met / b.tests - a.met / a.tests)[0],
  );
  const urgent = $derived(
    line.unreadable ||
      ready.length > 0 ||
      !line.screened ||
      !line.skills.length ||
      line.absence === 'reBaseline',
  );
  const next = $derived.by(() => {
    if (line.unreadable) return 'Where they stand cannot be worked out: a stored value stands in the way.';
    if (line.screen === 'notScreened') return 'Answer the intake screen first.';
    if (line.screen === 'somethingChanged') return 'Something changed: go through the intake screen again.';
    if (line.screen === 'due') return 'Six months are over: go through the intake screen again.';
    if (!line.skills.length) return 'Read a baseline, then put them on a ladder.';
    if (line.absence === 'reBaseline')
      return `Back after ${line.daysSinceLast} days: take a new baseline, both sides.`;
    if (ready.length)
      return `Decide: ${ready.map((s) => `${s.side ? `${s.side} ` : ''}${s.ladder.toLowerCase()} is ready for stage ${s.stage + 1}`).join(', ')}.`;
    return nearest?.nearest ? nextText(nearest.nearest) : '';
  });
  /** One button that leads to what the line says. */
  const action = $derived.by((): Action | undefined => {
    const id = line.id;
    if (line.unreadable)
      return { text: 'See the readings', href: resolve('/students/[id]/readings', { id }) };
    if (line.screen === 'notScreened')
      return { text: 'Answer the screen', href: resolve('/students/[id]/cautions', { id }) };
    if (line.screen !== 'current')
      return { text: 'Renew the screen', href: resolve('/students/[id]/cautions', { id }) };
    if (!line.skills.length)
      return { text: 'To the baseline', href: resolve('/students/[id]/bench', { id }) };
    if (line.absence === 'reBaseline')
      return { text: 'Take the baseline', href: resolve('/students/[id]/bench', { id }) };
    if (ready[0])
      return { text: 'Decide', href: skillPage({ student: id, skill: ready[0].skill, side: ready[0].side }) };
    return nearest?.nearest
      ? actionOf(nearest.nearest, { student: id, skill: nearest.skill, side: nearest.side })
      : undefined;
  });
  const told = (skill: Schemas['SkillSummary']) =>
    `${skill.ladderName}: ${skill.sides.map((s) => `${courseName(s.side)} stage ${s.stage}`).join(', ')}`;
</script>

<li
  class="ruled grid grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-4 gap-y-1 border-b py-3 md:grid-cols-[6.5rem_minmax(0,13rem)_12rem_minmax(0,1fr)_7.5rem]"
>
  <div class="row-span-3 flex flex-wrap gap-1 md:row-span-1">
    {#each line.skills as skill (skill.skill)}
      <span class={line.skills.length > 1 ? 'w-12' : 'w-18'}>
        <Arch
          stones={skill.arch}
          stages={skill.stages}
          small
          label={told(skill)}
          next={skill.sides.filter((s) => s.state === 'open').map((s) => s.side)}
        />
      </span>
    {:else}
      <span class="text-quiet text-sm">{line.unreadable ? 'unknown' : 'no ladder yet'}</span>
    {/each}
  </div>
  <div class="min-w-0">
    <a
      class="font-head text-xl leading-tight font-semibold wrap-break-word hover:underline"
      href={resolve('/students/[id]', { id: line.id })}>{line.name}</a
    >
    <p class="text-quiet text-sm wrap-break-word">
      {[line.ageYears, line.about].filter((x) => x != null).join(' · ')}
    </p>
  </div>
  <div class="text-sm">
    {#each line.skills as skill (skill.skill)}
      <p class="font-semibold">{skill.ladderName}</p>
      {#each skill.sides as s (s.side)}
        <p>
          <SideMark side={s.side} text="{s.side ?? 'stage'} {s.stageName ? s.stage : '✓'}" /> · {stateName(
            s.state,
          )}
        </p>
      {/each}
      {#if skill.compared !== null && skill.weaker}<p class="text-quiet">{skill.weaker} is weaker</p>{/if}
    {/each}
  </div>
  <div class="min-w-0">
    <p class={[urgent && 'next-thing font-semibold']}>{next}</p>
    {#if action}<p class="mt-1"><StepLink {action} of={line.name} /></p>{/if}
    {#if line.leftOut}<p class="text-sm">
        <strong>Left out:</strong>
        {line.leftOut === 1 ? 'one stored entry' : `${line.leftOut} stored entries`} that cannot be read
      </p>{/if}
    {#if line.screened && offLimits.length}<p class="text-sm">
        <strong>Off limits:</strong>
        {offLimits.map((t) => tagName(t.tag)).join(', ')}
      </p>{/if}
    {#if lightOnly.length}<p class="text-sm">
        <strong>Light only:</strong>
        {lightOnly.map((t) => tagName(t.tag)).join(', ')}
      </p>{/if}
  </div>
  <div class="text-quiet col-start-2 text-sm md:col-start-auto md:text-end">
    {#if line.sessionsAsked}<p>{line.sessionsLately} of {line.sessionsAsked} sessions in 14 days</p>{/if}
    {#if line.lastSessionOn}<p>last {shortDay(line.lastSessionOn)}</p>{/if}
  </div>
</li>
