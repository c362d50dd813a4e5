<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import {
    barAcross,
    box,
    groundLine,
    isOwned,
    keystoneHalfOutline,
    keystoneOutline,
    stepped,
    stoneOutline,
  } from './arch';
  import { courseClass, courseName, sameCourse, type Course } from './sides';

  type Stone = Schemas['Stone'];
  interface Props {
    stones: Stone[];
    stages: { number: number; name: string }[];
    label: string;
    /** Small arches, for lists, carry no text and take no focus. */
    small?: boolean;
    /** Drawn only: no text, no focus. */
    still?: boolean;
    /** Courses whose gate wants the coach next. */
    next?: Course[];
    chosen?: { side: Course; stage: number };
    onchoose?: (side: Course, stage: number) => void;
    describe?: (stone: Stone) => string;
  }

  let {
    stones,
    stages,
    label,
    small = false,
    still = false,
    next = [],
    chosen,
    onchoose,
    describe,
  }: Props = $props();
  const id = $props.id();
  const quiet = $derived(small || still);
  const count = $derived(stages.length);
  /** A bilateral ladder: each stage is one course across both halves. */
  const bilateral = $derived(stones.some((s) => s.side === null));
  const halves = (side: Course) => (side ? [side] : (['left', 'right'] as const));
  const isChosen = (s: Stone) =>
    chosen !== undefined && sameCourse(chosen.side, s.side) && chosen.stage === s.stage;
  let pointed = $state<Stone>();

  function move(event: KeyboardEvent, stone: Stone) {
    const target = stepped(event.key, stone, count, bilateral);
    if (!target) return;
    event.preventDefault();
    onchoose?.(...target);
    document.getElementById(`${id}-${courseClass(target[0])}-${target[1]}`)?.focus();
  }
</script>

{#snippet half(stone: Stone, side: Schemas['Side'])}
  {@const whole = stoneOutline(side, stone.stage, count, 1)}
  {@const filled = stoneOutline(side, stone.stage, count, stone.filledShare)}
  <path class="bed" d={whole.path} />
  {#if stone.look === 'met' && !stone.here}
    <path class="solid" d={whole.path} />
  {:else if stone.here}
    {#if stone.look === 'borderline'}
      <path fill="url(#{id}-hatch-{courseClass(stone.side)})" d={whole.path} />
    {/if}
    <path class={stone.look === 'met' ? 'solid' : 'part'} d={filled.path} />
    <path class={['edge', stone.look]} d={whole.path} />
    {#if next.some((course) => sameCourse(course, stone.side))}
      <path class="edge next" d={whole.path} />
    {/if}
    {#if stone.look === 'blocked'}
      <path class="bar" d={barAcross(whole, quiet)} />
    {/if}
  {:else}
    <path class="ahead" d={whole.path} />
  {/if}
  {#if isChosen(stone)}
    <path class="chosen" d={whole.path} />
  {/if}
  {#if !quiet}
    <text
      x={whole.x}
      y={whole.y}
      dy="0.36em"
      text-anchor="middle"
      class={stone.look === 'met' ? 'on-stone' : stone.here ? 'here' : 'faint'}>{stone.stage}</text
    >
  {/if}
{/snippet}

{#snippet drawn(stone: Stone)}
  {#each halves(stone.side) as side (side)}{@render half(stone, side)}{/each}
{/snippet}

<svg
  viewBox="0 0 {box.width} {box.height}"
  class={['arch', small && 'small']}
  role={quiet ? 'img' : 'group'}
  aria-label={label}
>
  <defs>
    {#each ['left', 'right', 'both'] as const as side (side)}
      <pattern
        id="{id}-hatch-{side}"
        width="9"
        height="9"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate({side === 'right' ? -45 : 45})"
      >
        <rect width="9" height="9" class="bed" />
        <rect width="4" height="9" class={side} />
      </pattern>
    {/each}
  </defs>
  <line class="ground" x1={groundLine.x1} x2={groundLine.x2} y1={groundLine.y} y2={groundLine.y} />
  <path class="keystone" d={keystoneOutline()} />
  {#each ['left', 'right'] as const as side (side)}
    {#if isOwned(stones, side)}
      <path class="solid {bilateral ? 'both' : side}" d={keystoneHalfOutline(side)} />
    {/if}
  {/each}
  {#each stones as stone (courseClass(stone.side) + stone.stage)}
    {#if quiet}
      <g class={courseClass(stone.side)}>{@render drawn(stone)}</g>
    {:else}
      <g
        id="{id}-{courseClass(stone.side)}-{stone.stage}"
        class={[courseClass(stone.side), 'stone']}
        role="button"
        tabindex={isChosen(stone) || (!chosen && stone.here) ? 0 : -1}
        aria-pressed={isChosen(stone)}
        aria-label={describe?.(stone) ?? `${courseName(stone.side)} stage ${stone.stage}`}
        onclick={() => onchoose?.(stone.side, stone.stage)}
        onkeydown={(event) => move(event, stone)}
        onpointerenter={() => (pointed = stone)}
        onpointerleave={() => (pointed = undefined)}
        onfocus={() => (pointed = stone)}
        onblur={() => (pointed = undefined)}
      >
        {@render drawn(stone)}
      </g>
    {/if}
  {/each}
  {#if !quiet && pointed}
    <text class="named {courseClass(pointed.side)}" x="200" y="330" text-anchor="middle"
      >{pointed.stage} {stages.find((s) => s.number === pointed!.stage)?.name}</text
    >
  {/if}
</svg>

<style>
  .arch {
    width: 100%;
    height: auto;
    display: block;
    overflow: visible;
    --edge: 2.5;
    --next: 5;
    --bar: 5;
    --ahead: 1.25;
    --ground: 2;
    --keystone: 1.5;
    --dots: 2 5;
    --dashes: 5 4;
  }

  .small {
    --edge: 9;
    --next: 9;
    --bar: 16;
    --ahead: 5;
    --ground: 7;
    --keystone: 4;
    --dots: 4 16;
    --dashes: none;
  }

  .left {
    --side: var(--side-left);
  }

  .right {
    --side: var(--side-right);
  }

  .both {
    --side: var(--color-base-content);
    --side-content: var(--color-base-100);
  }

  .ground {
    stroke: var(--color-base-content);
    stroke-width: var(--ground);
  }

  .bed {
    fill: var(--color-base-100);
  }

  rect.left,
  rect.right,
  rect.both,
  .solid,
  .part {
    fill: var(--side);
  }

  .part {
    fill-opacity: 0.28;
  }

  .edge {
    fill: none;
    stroke: var(--side);
    stroke-width: var(--edge);
  }

  .edge.noData {
    stroke-dasharray: var(--dots);
    stroke-linecap: round;
  }

  .edge.next {
    stroke: var(--color-accent);
    stroke-width: var(--next);
    stroke-dasharray: none;
  }

  .bar {
    stroke: var(--color-base-content);
    stroke-width: var(--bar);
  }

  .ahead {
    fill: none;
    stroke: var(--color-base-300);
    stroke-width: var(--ahead);
  }

  .faint {
    fill: var(--ink-quiet);
  }

  .keystone {
    fill: var(--color-base-100);
    stroke: var(--ink-quiet);
    stroke-width: var(--keystone);
    stroke-dasharray: var(--dashes);
  }

  .chosen {
    fill: none;
    stroke: var(--color-base-content);
    stroke-width: 2;
  }

  .stone {
    cursor: pointer;
    outline: none;
  }

  .stone:focus-visible .chosen,
  .stone:focus-visible .ahead {
    stroke: var(--color-base-content);
    stroke-width: 4;
  }

  .stone:hover .ahead {
    stroke: var(--ink-quiet);
    stroke-width: 2;
  }

  text {
    font: 600 17px var(--font-head);
    font-variant-numeric: tabular-nums;
    pointer-events: none;
  }

  .on-stone {
    fill: var(--side-content);
  }

  .here {
    fill: var(--color-base-content);
    paint-order: stroke;
    stroke: var(--color-base-100);
    stroke-width: 5px;
    stroke-linejoin: round;
  }

  .named {
    fill: var(--side);
    font-size: 19px;
  }
</style>
