<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { atStep, blockText, initials, stoneText } from './words';

  interface Props {
    day: Schemas['PlanDayView'];
    /** The longest session of the plan: a stone as wide as its place. */
    most: number;
    chosen: boolean;
    thin: boolean;
    onpick: () => void;
    ondrag?: () => void;
  }

  let { day, most, chosen, thin, onpick, ondrag }: Props = $props();
  const solid = $derived(day.state === 'done' || day.state === 'running');
  const frame = $derived(day.frameSeconds / 2);
  const gone = $derived(day.state === 'missed' || day.state === 'dropped' || day.state === 'barred');
</script>

<button
  type="button"
  aria-label={stoneText(day)}
  aria-pressed={chosen}
  draggable={!!ondrag}
  ondragstart={(event) => {
    event.dataTransfer?.setData('text/plain', day.day);
    ondrag?.();
  }}
  onclick={onpick}
  style:width="{Math.max(34, (100 * day.minutes) / most)}%"
  class={[
    'relative flex min-w-0 items-stretch overflow-hidden rounded-xs border text-start',
    thin ? 'h-7' : 'h-10',
    gone
      ? 'border-base-content/40 text-quiet border-dashed'
      : solid
        ? 'bg-base-content text-base-100 border-base-content'
        : 'border-base-content bg-base-100',
    day.change !== 'same' && 'ring-accent ring-2',
    chosen && 'outline-base-content outline-2 outline-offset-2',
  ]}
>
  {#if day.firstSide}
    <span class={['w-1 shrink-0', day.firstSide === 'left' ? 'bg-left-side' : 'bg-right-side']}></span>
  {/if}
  {#if !gone}
    <span class="shrink-0 opacity-40" style:flex="{frame} 0 0"></span>
    {#each day.blocks as block (block.skill)}
      <span
        title={blockText(block)}
        style:flex="{Math.max(1, block.seconds)} 0 0"
        class={[
          '@container grid min-w-0 place-content-center overflow-hidden border-s text-xs leading-none font-semibold',
          solid ? 'border-base-100' : 'border-base-content',
          !solid && block.kind === 'train' && atStep(block) && 'bg-base-content/25',
          !solid && block.kind === 'train' && !atStep(block) && 'bg-base-content/12',
          !solid && block.kind === 'test' && 'bg-accent/40',
        ]}
        ><!-- Half a letter says nothing. --><span
          class={[
            'hidden',
            initials(block.skill).length > 1 ? '@min-[1.15rem]:inline' : '@min-[0.7rem]:inline',
          ]}>{initials(block.skill)}</span
        ></span
      >
    {/each}
    <span
      class={['shrink-0 border-s', solid ? 'border-base-100' : 'border-base-content']}
      style:flex="{frame} 0 0"
    ></span>
  {:else}
    <span class="m-auto text-xs">{day.state === 'barred' ? 'barred' : day.state}</span>
  {/if}
  {#if day.tested.length}
    <!-- A notch in the upper edge: a test day. -->
    <span class="border-t-accent absolute start-1/2 top-0 -ms-1.5 border-x-6 border-t-8 border-x-transparent"
    ></span>
  {/if}
  {#if day.pinned}<span class="absolute end-0.5 top-0 text-[0.6rem]" aria-hidden="true">▲</span>{/if}
</button>
