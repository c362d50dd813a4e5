<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { shortDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import Arch from '$lib/skills/Arch.svelte';
  import { nextText, stateName } from '$lib/skills/words';
  import { tagName } from './tags';

  interface Props {
    line: Schemas['RosterLine'];
  }

  let { line }: Props = $props();
  const stages = $derived(catalogue.ladder('front-split').stages);
  const ready = $derived(line.sides.filter((s) => s.state === 'open'));
  const held = $derived(line.cautions.filter((t) => t.level === 'held'));
  const limited = $derived(line.cautions.filter((t) => t.level === 'limited'));
  const nearest = $derived(
    line.sides
      .filter((s) => s.nearest && s.state !== 'waiting')
      .sort((a, b) => b.met / b.tests - a.met / a.tests)[0],
  );
  const urgent = $derived(
    ready.length > 0 || !line.screened || !line.sides.length || line.absence === 'reBaseline',
  );
  const next = $derived.by(() => {
    if (!line.screened) return 'Answer the intake screen first.';
    if (!line.sides.length) return 'Read both sides, then put them on the ladder.';
    if (line.absence === 'reBaseline')
      return `Back after ${line.daysSinceLast} days: take a new baseline, both sides.`;
    if (ready.length)
      return `Decide: ${ready.map((s) => `${s.side} is ready for stage ${s.stage + 1}`).join(', ')}.`;
    return nearest?.nearest ? nextText(nearest.nearest) : '';
  });
</script>

<li
  class="ruled grid grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-4 gap-y-1 border-b py-3 md:grid-cols-[4.5rem_minmax(0,13rem)_11rem_minmax(0,1fr)_7.5rem]"
>
  <div class="row-span-3 w-18 md:row-span-1">
    {#if line.arch.length}
      <Arch
        stones={line.arch}
        {stages}
        small
        label="Front split: left stage {line.sides[0]?.stage}, right stage {line.sides[1]?.stage}"
        next={ready.map((s) => s.side)}
      />
    {:else}
      <span class="text-quiet text-sm">no ladder yet</span>
    {/if}
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
    {#each line.sides as s (s.side)}
      <p><SideMark side={s.side} text="{s.side} {s.stageName ? s.stage : '✓'}" /> · {stateName(s.state)}</p>
    {/each}
    {#if line.sides.length}
      <p class="text-quiet">
        {!line.sidesRead ? 'sides not compared' : line.weaker ? `${line.weaker} is weaker` : 'no weaker side'}
      </p>
    {/if}
  </div>
  <div class="min-w-0">
    <p class={[urgent && 'next-thing font-semibold']}>{next}</p>
    {#if line.screened && held.length}<p class="text-sm">
        <strong>Held:</strong>
        {held.map((t) => tagName(t.tag)).join(', ')}
      </p>{/if}
    {#if limited.length}<p class="text-sm">
        <strong>Limited:</strong>
        {limited.map((t) => tagName(t.tag)).join(', ')}
      </p>{/if}
  </div>
  <div class="text-quiet col-start-2 text-sm md:col-start-auto md:text-end">
    {#if line.sessionsAsked}<p>{line.sessionsLately} of {line.sessionsAsked} sessions in 14 days</p>{/if}
    {#if line.lastSessionOn}<p>last {shortDay(line.lastSessionOn)}</p>{/if}
  </div>
</li>
