<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import MarginBar from './MarginBar.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import type { Course } from './sides';
  import { asks, shown, status, testName, unitOf } from './words';

  interface Props {
    test: Schemas['TestVerdict'];
    /** The course whose gate it belongs to. */
    side: Course;
  }

  let { test, side }: Props = $props();
  const marks: Record<Schemas['Outcome'], string> = {
    met: '●',
    borderline: '◍',
    stale: '◌',
    noData: '◌',
    notMet: '○',
    blocked: '⊘',
  };
  const otherSide = $derived(test.readOn && test.readOn !== side ? test.readOn : undefined);
  const marked = $derived(test.readOn ?? side);
</script>

<li class="ruled grid grid-cols-[1.25rem_minmax(0,1fr)_6.5rem_3.25rem] items-center gap-x-2 border-t py-1.5">
  <span
    aria-hidden="true"
    class={marked === 'left' ? 'text-left-side' : marked === 'right' ? 'text-right-side' : ''}
    >{marks[test.outcome]}</span
  >
  <span class="min-w-0">
    <span class="block leading-tight font-semibold">
      {testName(test.test)}{#if otherSide}&nbsp;<span class="font-normal"
          ><SideMark side={otherSide} text={otherSide} /></span
        >{/if}
    </span>
    <span class="text-quiet block text-sm leading-tight">{asks(test.test)}</span>
    <span class="block text-sm leading-snug">{status(test)}</span>
  </span>
  <MarginBar {test} side={marked} />
  <span class="figures text-end text-xl">{shown(test)}<span class="sr-only"> {unitOf(test.test)}</span></span>
</li>
