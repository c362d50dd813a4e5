<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { shortDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import MarginBar from './MarginBar.svelte';
  import { courseName } from './sides';
  import { plateauText, stepBackText } from './gateWords';
  import { actionOf } from './nextStep';
  import StepLink from './StepLink.svelte';
  import { nextText } from './words';

  interface Props {
    entry: Schemas['BoardEntry'];
    chosen: boolean;
    onchoose: () => void;
  }

  let { entry, chosen, onchoose }: Props = $props();
  const line = $derived(entry.line);
  const gate = $derived(line?.gate);
  const action = $derived.by(() => {
    if (!line || !gate) return undefined;
    const where = { student: entry.studentId, skill: line.skill, side: gate.side };
    if (gate.state === 'waiting' || gate.state === 'owned' || gate.state === 'open') return undefined;
    return gate.nearest ? actionOf(gate.nearest, where) : undefined;
  });

  const what = $derived.by(() => {
    if (!line || !gate) return '';
    switch (gate.state) {
      case 'open':
        return 'Every test is met. Advance, or stay.';
      case 'waiting':
        return `One stage ahead. Opens when ${gate.side === 'left' ? 'right' : 'left'} reaches stage ${gate.stage}.`;
      case 'owned':
        return 'Every gate is behind them.';
      default:
        if (line.plateau && line.group === 'stalled') return plateauText(line.plateau);
        return gate.nearest ? nextText(gate.nearest) : '';
    }
  });
</script>

<li class={['ruled border-b', chosen && line && 'bg-base-200']}>
  {#if line && gate}
    <button
      class="hover:bg-base-200 grid w-full cursor-pointer items-center gap-x-4 gap-y-0.5 px-2 py-2.5 text-start sm:grid-cols-[minmax(0,1fr)_auto] md:grid-cols-[minmax(0,11rem)_minmax(0,11rem)_8.5rem_minmax(0,1fr)]"
      aria-pressed={chosen}
      aria-label="{entry.name}, {line.ladderName}, {courseName(gate.side)}: show the evidence"
      onclick={onchoose}
    >
      <strong class="wrap-break-word">{entry.name}</strong>
      <span class="text-sm">
        <span class="me-1 sm:block">{line.ladderName}</span>
        <SideMark
          side={gate.side}
          means={gate.side ? catalogue.ladder(line.skill).sideMeans : undefined}
          text={gate.side ?? 'stage'}
        />
        {gate.stageName ? `${gate.stage} ${gate.stageName}` : '✓'}
      </span>
      <span class="hidden md:block">
        {#if gate.nearest?.margin != null}<MarginBar
            test={gate.nearest}
            side={gate.nearest.readOn ?? gate.side}
          />{/if}
        <span class="text-quiet block text-sm">{gate.tests ? `${gate.met} of ${gate.tests} met` : ''}</span>
      </span>
      <span class="text-sm sm:col-span-2 md:col-span-1">
        {what}
        {#each line.stepBack as reason, i (i)}<span class="block font-semibold"
            >A step back is suggested: {stepBackText(reason)}</span
          >{/each}
        {#if line.enteredAt}<span class="text-quiet block">here since {shortDay(line.enteredAt)}</span>{/if}
      </span>
    </button>
    {#if action}<p class="px-2 pb-2.5"><StepLink {action} of={entry.name} /></p>{/if}
  {:else}
    <p class="px-2 py-2.5">
      <a
        class="font-semibold hover:underline"
        href={resolve('/students/[id]/readings', { id: entry.studentId })}>{entry.name}</a
      >
      <span class="text-sm"
        >{catalogue.ladder(entry.skill).name}{entry.side ? `, ${entry.side}` : ''}: this gate cannot be worked
        out, a stored value stands in its way. Nothing is decided on it.</span
      >
    </p>
  {/if}
</li>
