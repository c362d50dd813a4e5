<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    side: Schemas['Side'] | null;
    band?: Schemas['MdcBand'] | null;
    previous?: number;
    value?: number;
    error?: number;
    other?: number;
    lines: number[];
  }

  let { side, band, previous, value, error = 0, other, lines }: Props = $props();

  const width = 240;
  /** All that is known, with a little room, drawn to one scale. */
  const scale = $derived.by(() => {
    const known = [
      band?.low,
      band?.high,
      previous,
      value && value - error,
      value && value + error,
      other,
      ...lines,
    ].filter((x) => x != null);
    if (known.length < 2) return undefined;
    const [low, high] = [Math.min(...known), Math.max(...known)];
    const room = Math.max((high - low) * 0.08, 0.5);
    const per = (width - 12) / (high - low + 2 * room);
    return (x: number) => 6 + (x - low + room) * per;
  });
</script>

{#if scale}
  <svg viewBox="0 0 {width} 30" class={['w-full max-w-80', side ?? 'none']} aria-hidden="true">
    <line x1="2" x2={width - 2} y1="16" y2="16" class="track" />
    {#if band}<rect
        x={scale(band.low)}
        width={scale(band.high) - scale(band.low)}
        y="9"
        height="14"
        class="band"
      />{/if}
    {#each lines as line (line)}<line x1={scale(line)} x2={scale(line)} y1="2" y2="28" class="gate" />{/each}
    {#if previous != null}<line
        x1={scale(previous)}
        x2={scale(previous)}
        y1="9"
        y2="23"
        class="before"
      />{/if}
    {#if other != null}<path d="M {scale(other)} 24 l -4 6 h 8 z" class="other" />{/if}
    {#if value != null}
      <line x1={scale(value - error)} x2={scale(value + error)} y1="16" y2="16" class="error" />
      {#if side === 'right'}<rect x={scale(value) - 5} y="11" width="10" height="10" class="value" />
      {:else}<circle cx={scale(value)} cy="16" r="5.5" class="value" />{/if}
    {/if}
  </svg>
{/if}

<style>
  .left {
    --side: var(--side-left);
    --across: var(--side-right);
  }

  .right {
    --side: var(--side-right);
    --across: var(--side-left);
  }

  .none {
    --side: var(--color-base-content);
    --across: var(--color-base-content);
  }

  .track {
    stroke: var(--color-base-300);
  }

  .band {
    fill: var(--color-base-content);
    fill-opacity: 0.12;
  }

  .gate {
    stroke: var(--color-base-content);
    stroke-width: 2;
  }

  .before {
    stroke: var(--ink-quiet);
    stroke-width: 2;
  }

  .other {
    fill: var(--across);
  }

  .error {
    stroke: var(--side);
    stroke-width: 3;
    stroke-opacity: 0.5;
  }

  .value {
    fill: var(--side);
  }
</style>
