<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { courseClass } from './sides';

  interface Props {
    test: Schemas['TestVerdict'];
    /** The side that was read; none for what has no side. */
    side: Schemas['Side'] | null | undefined;
  }

  let { test, side }: Props = $props();

  const width = 150;
  const line = 90;

  /** The line stands still at three fifths; what is past it lies to its right. Drawn to the scale of the larger of margin and noise. */
  const drawn = $derived.by(() => {
    if (test.margin == null) return undefined;
    const noise = test.noise ?? 0;
    const span = Math.max(Math.abs(test.margin) + noise, 3 * noise, 1);
    const scale = (test.margin < 0 ? line - 8 : width - line - 8) / span;
    const x = line + test.margin * scale;
    return { x: Math.max(6, Math.min(width - 6, x)), half: noise * scale };
  });
</script>

<svg viewBox="0 0 {width} 24" class={['w-full max-w-40', courseClass(side)]} aria-hidden="true">
  {#if drawn}
    <line x1="2" x2={width - 2} y1="12" y2="12" class="track" />
    <line x1={line} x2={line} y1="2" y2="22" class="line" />
    {#if drawn.half > 0}
      <rect x={drawn.x - drawn.half} y="8" width={2 * drawn.half} height="8" class="noise" />
    {/if}
    {#if side !== 'right'}
      <circle cx={drawn.x} cy="12" r="5" class="mark" />
    {:else}
      <rect x={drawn.x - 4.5} y="7.5" width="9" height="9" class="mark" />
    {/if}
  {/if}
</svg>

<style>
  .left {
    --side: var(--side-left);
  }

  .right {
    --side: var(--side-right);
  }

  .both {
    --side: var(--color-base-content);
  }

  .track {
    stroke: var(--color-base-300);
    stroke-width: 1.5;
  }

  .line {
    stroke: var(--color-base-content);
    stroke-width: 2;
  }

  .noise {
    fill: var(--side);
    fill-opacity: 0.35;
  }

  .mark {
    fill: var(--side);
  }
</style>
