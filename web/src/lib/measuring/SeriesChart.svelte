<script lang="ts">
  import { scaleLinear, scaleUtc } from 'd3-scale';
  import { line } from 'd3-shape';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { chosen, number, shortDay } from '$lib/parts/format';
  import { courseName } from '$lib/skills/sides';
  import { spread } from './labels';

  interface Props {
    measure: Schemas['Measure'];
    series: Schemas['SeriesPoints'];
  }

  let { measure, series }: Props = $props();

  type Point = Schemas['SeriesPoint'];
  // Gates are named in a column of their own, where no point lies.
  const [width, height] = [760, 320];
  const [left, top, bottom] = [46, 12, 290];
  const right = $derived(series.lines.length ? 590 : width - 8);
  const week = 7 * 24 * 3600 * 1000;
  const points = $derived(series.points.toReversed());
  const low = (p: Point) => p.lower95 ?? p.value - p.standardError;
  const high = (p: Point) => p.upper95 ?? p.value + p.standardError;

  const x = $derived.by(() => {
    const times = points.map((p) => Date.parse(p.at));
    const span = Math.max(times.at(-1)! - times[0]!, week);
    return scaleUtc([times[0]!, times[0]! + span], [left + 14, right - 14]);
  });
  const y = $derived(
    scaleLinear(
      [
        Math.min(...points.map(low), ...series.lines.map((l) => l.threshold)),
        Math.max(...points.map(high), ...series.lines.map((l) => l.threshold)),
      ],
      [bottom - 10, top + 10],
    ).nice(5),
  );
  const at = (p: Point) => x(Date.parse(p.at));
  const trend = $derived(line<Point>(at, (p) => y(p.value)));

  /** One line where several gates ask the same of the same side. */
  const gates = $derived(
    spread(
      [
        ...new Map(
          series.lines.map((l) => [[l.skill, l.forSide, l.comparison, l.threshold].join('|'), l]),
        ).values(),
      ].map((l) => ({ of: l, at: y(l.threshold) })),
      30,
      top + 12,
      bottom - 18,
    ),
  );
  const gateName = (l: Schemas['BenchNeed']) => {
    const ladder = catalogue.content!.ladders.find((known) => known.key === l.skill);
    return `${l.forSide ? `${courseName(l.forSide, ladder?.sideMeans)}, ` : ''}stage ${l.stage}`;
  };
  const asks = (l: Schemas['BenchNeed']) =>
    `${catalogue.content!.ladders.find((known) => known.key === l.skill)?.name ?? 'gate'} ${l.comparison === 'atLeast' ? '≥' : '≤'} ${chosen(l.threshold, measure.unit)}`;

  const sides = $derived([...new Set(points.map((p) => p.side))]);
  const name = $derived(
    `${measure.name} over time, ${points.length} readings: ` +
      sides
        .map((side) => {
          const mine = points.filter((p) => p.side === side);
          return `${side ?? 'both'} from ${number(mine[0]!.value)} to ${number(mine.at(-1)!.value)}`;
        })
        .join('; ') +
      series.lines.map((l) => `; gate of ${gateName(l)}: ${asks(l)}`).join(''),
  );
</script>

<svg viewBox="0 0 {width} {height}" class="w-full" role="img" aria-label={name}>
  {#each y.ticks(5) as tick (tick)}
    <line x1={left} x2={right} y1={y(tick)} y2={y(tick)} class="grid-line" />
    <text x={left - 6} y={y(tick) + 4} class="end">{chosen(tick)}</text>
  {/each}
  {#each x.ticks(6) as tick (tick.getTime())}
    <line x1={x(tick)} x2={x(tick)} y1={bottom} y2={bottom + 5} class="axis" />
    <text x={x(tick)} y={bottom + 20} class="middle"
      >{shortDay(tick.toISOString()).replace(/^[^ ]+ /, '')}</text
    >
  {/each}
  <line x1={left} x2={right} y1={bottom} y2={bottom} class="axis" />
  {#each gates as gate, i (i)}
    <g class={gate.of.forSide ?? 'none'}>
      <line x1={left} x2={right} y1={y(gate.of.threshold)} y2={y(gate.of.threshold)} class="gate" />
      <polyline points="{right},{y(gate.of.threshold)} {right + 10},{gate.at}" class="lead" />
      <text x={right + 14} y={gate.at - 2} class="name">{asks(gate.of)}</text>
      <text x={right + 14} y={gate.at + 12}>{gateName(gate.of)}</text>
    </g>
  {/each}
  {#each sides as side (side)}
    {@const mine = points.filter((p) => p.side === side)}
    <g class={side ?? 'none'}>
      <path d={trend(mine)} class="trend" />
      {#each mine as p (p.id)}
        <line x1={at(p)} x2={at(p)} y1={y(low(p))} y2={y(high(p))} class="error" />
        {#if side === 'right'}
          <rect x={at(p) - 4} y={y(p.value) - 4} width="8" height="8" class="point" />
        {:else}
          <circle cx={at(p)} cy={y(p.value)} r="4.5" class="point" />
        {/if}
      {/each}
    </g>
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

  .axis {
    stroke: var(--color-base-content);
  }

  .gate,
  .lead {
    fill: none;
    stroke: var(--side);
    stroke-width: 1.5;
  }

  .gate {
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
    font-size: 12px;
  }

  .name {
    fill: var(--color-base-content);
    font-weight: 600;
  }

  .middle {
    text-anchor: middle;
  }

  .end {
    text-anchor: end;
  }
</style>
