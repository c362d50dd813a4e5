<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { chosen, number, shortDay } from '$lib/parts/format';

  interface Props {
    measure: Schemas['Measure'];
    series: Schemas['SeriesPoints'];
  }

  let { measure, series }: Props = $props();

  const [width, height, left, bottom, top] = [760, 300, 46, 26, 10];
  const points = $derived(series.points.toReversed());
  const low = (p: Schemas['SeriesPoint']) => p.lower95 ?? p.value - p.standardError;
  const high = (p: Schemas['SeriesPoint']) => p.upper95 ?? p.value + p.standardError;

  const scale = $derived.by(() => {
    const times = points.map((p) => Date.parse(p.at));
    const from = times[0]!;
    const span = Math.max(times.at(-1)! - from, 7 * 24 * 3600 * 1000);
    const values = [...points.flatMap((p) => [low(p), high(p)]), ...series.lines.map((l) => l.threshold)];
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const room = Math.max((most - least) * 0.08, 0.05);
    return {
      x: (at: string) => left + 14 + ((Date.parse(at) - from) / span) * (width - left - 28),
      y: (v: number) =>
        height - bottom - ((v - least + room) / (most - least + 2 * room)) * (height - bottom - top),
      least,
      most,
    };
  });

  const ticks = $derived.by(() => {
    const span = scale.most - scale.least || 1;
    const rough = span / 4;
    const ten = 10 ** Math.floor(Math.log10(rough));
    const step = [1, 2, 5, 10].map((k) => k * ten).find((s) => s >= rough)!;
    const first = Math.ceil(scale.least / step) * step;
    return Array.from({ length: Math.floor((scale.most - first) / step) + 1 }, (_, i) => first + i * step);
  });

  const sides = $derived([...new Set(points.map((p) => p.side))]);
  const shown = $derived(points.length > 1 ? [points[0]!, points.at(-1)!] : points);
  const name = $derived(
    `${measure.name} over time, ${points.length} readings: ` +
      sides
        .map((side) => {
          const mine = points.filter((p) => p.side === side);
          return `${side ?? 'both'} from ${number(mine[0]!.value)} to ${number(mine.at(-1)!.value)}`;
        })
        .join('; '),
  );
</script>

<svg viewBox="0 0 {width} {height}" class="w-full" role="img" aria-label={name}>
  {#each ticks as tick (tick)}
    <line x1={left} x2={width - 6} y1={scale.y(tick)} y2={scale.y(tick)} class="grid-line" />
    <text x={left - 6} y={scale.y(tick) + 4} class="end">{chosen(tick)}</text>
  {/each}
  {#each series.lines as line, i (i)}
    <line
      x1={left}
      x2={width - 6}
      y1={scale.y(line.threshold)}
      y2={scale.y(line.threshold)}
      class={['gate', line.forSide]}
    />
    <text x={width - 8} y={scale.y(line.threshold) - 4} class="end"
      >gate {line.comparison === 'atLeast' ? '≥' : '≤'} {chosen(line.threshold, measure.unit)}</text
    >
  {/each}
  {#each sides as side (side)}
    {@const mine = points.filter((p) => p.side === side)}
    <g class={side ?? 'none'}>
      <polyline points={mine.map((p) => `${scale.x(p.at)},${scale.y(p.value)}`).join(' ')} class="trend" />
      {#each mine as p (p.id)}
        <line
          x1={scale.x(p.at)}
          x2={scale.x(p.at)}
          y1={scale.y(low(p))}
          y2={scale.y(high(p))}
          class="error"
        />
        {#if side === 'right'}
          <rect x={scale.x(p.at) - 4} y={scale.y(p.value) - 4} width="8" height="8" class="point" />
        {:else}
          <circle cx={scale.x(p.at)} cy={scale.y(p.value)} r="4.5" class="point" />
        {/if}
      {/each}
    </g>
  {/each}
  {#each shown as p, i (p.id)}
    <text x={scale.x(p.at)} y={height - 8} class={i && shown.length > 1 ? 'end' : ''}>{shortDay(p.at)}</text>
  {/each}
</svg>

<style>
  .left {
    --side: var(--side-left);
  }

  .right {
    --side: var(--side-right);
  }

  .none {
    --side: var(--color-base-content);
  }

  .grid-line {
    stroke: var(--color-base-300);
  }

  .gate {
    stroke: var(--color-base-content);
    stroke-width: 1.5;
    stroke-dasharray: 6 4;
  }

  .trend {
    fill: none;
    stroke: var(--side);
    stroke-width: 1.2;
    stroke-opacity: 0.6;
  }

  .error {
    stroke: var(--side);
    stroke-width: 4;
    stroke-opacity: 0.3;
  }

  .point {
    fill: var(--side);
  }

  text {
    fill: var(--ink-quiet);
    stroke: var(--color-base-100);
    stroke-width: 4;
    paint-order: stroke;
    font-size: 12px;
  }

  .end {
    text-anchor: end;
  }
</style>
