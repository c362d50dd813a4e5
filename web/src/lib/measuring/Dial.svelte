<script lang="ts">
  import { number } from '$lib/parts/format';

  interface Props {
    angleDeg?: number;
    stable: boolean;
    min: number;
    max: number;
  }

  let { angleDeg, stable, min, max }: Props = $props();

  /** The dial spans 240°, from the measure's least to its greatest value. */
  const at = (value: number) => -210 + (240 * (Math.max(min, Math.min(max, value)) - min)) / (max - min);
  const point = (turn: number, r: number) => [
    80 + r * Math.cos((turn * Math.PI) / 180),
    76 + r * Math.sin((turn * Math.PI) / 180),
  ];
  const step = $derived(max - min > 60 ? 10 : 5);
  const ticks = $derived(
    Array.from(
      { length: Math.floor((max - min) / step) + 1 },
      (_, i) => Math.ceil(min / step) * step + i * step,
    ).filter((t) => t <= max),
  );
</script>

<svg viewBox="0 0 160 124" class="w-full max-w-64" aria-hidden="true">
  {#each ticks as tick (tick)}
    {@const [x1, y1] = point(at(tick), tick % (3 * step) === 0 ? 58 : 63)}
    {@const [x2, y2] = point(at(tick), 68)}
    <line {x1} {y1} {x2} {y2} class="tick" />
    {#if tick % (3 * step) === 0}
      {@const [x, y] = point(at(tick), 48)}
      <text {x} y={y! + 3}>{number(tick, 0)}</text>
    {/if}
  {/each}
  {#if angleDeg !== undefined}
    {@const [x, y] = point(at(angleDeg), 66)}
    <line x1="80" y1="76" x2={x} y2={y} class={['needle', stable && 'stable']} />
    <circle cx="80" cy="76" r="4" class="hub" />
  {/if}
</svg>

<style>
  .tick {
    stroke: var(--ink-quiet);
    stroke-width: 1.4;
  }

  text {
    fill: var(--ink-quiet);
    font-family: var(--font-head);
    font-size: 9px;
    text-anchor: middle;
  }

  .needle {
    stroke: var(--color-base-content);
    stroke-width: 2;
    stroke-dasharray: 4 3;
  }

  .needle.stable {
    stroke-width: 4;
    stroke-dasharray: none;
  }

  .hub {
    fill: var(--color-base-content);
  }
</style>
