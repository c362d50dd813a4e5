<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { number } from '$lib/parts/format';

  interface Line {
    key: string;
    name: string;
    points: Schemas['PolicyPoint'][];
  }

  interface Props {
    title: string;
    about: string;
    lines: Line[];
    value: (point: Schemas['PolicyPoint']) => number | undefined;
    /** Where a line is drawn across; the last one is the top of the chart. */
    ticks: number[];
    show: (value: number) => string;
  }

  let { title, about, lines, value, ticks, show }: Props = $props();
  const box = { width: 460, height: 260, left: 52, right: 16, top: 12, bottom: 40 };
  const top = $derived(ticks.at(-1)!);
  const distances = $derived(lines[0]!.points.map((p) => p.distanceSem));
  const [low, high] = $derived([Math.min(...distances), Math.max(...distances)]);
  const x = $derived(
    (d: number) => box.left + ((d - low) / (high - low)) * (box.width - box.left - box.right),
  );
  const y = $derived(
    (v: number) => box.height - box.bottom - (v / top) * (box.height - box.top - box.bottom),
  );
  const path = $derived((line: Line) =>
    line.points
      .map((p) => ({ d: p.distanceSem, v: value(p) }))
      .filter((p) => p.v !== undefined)
      .map((p, i) => `${i ? 'L' : 'M'}${x(p.d).toFixed(1)} ${y(p.v!).toFixed(1)}`)
      .join(' '),
  );
  const whole = $derived(distances.filter((d) => Number.isInteger(d)));
</script>

<figure>
  <figcaption class="mb-1">
    <strong class="block">{title}</strong>
    <span class="text-quiet text-sm">{about}</span>
  </figcaption>
  <svg
    viewBox="0 0 {box.width} {box.height}"
    class="w-full"
    role="img"
    aria-label="{title}: {lines.map((l) => l.name).join(', ')}"
  >
    {#each ticks as tick (tick)}
      <line x1={box.left} x2={box.width - box.right} y1={y(tick)} y2={y(tick)} class="grid-line" />
      <text x={box.left - 6} y={y(tick)} dy="0.35em" text-anchor="end">{show(tick)}</text>
    {/each}
    {#each whole as d (d)}
      <text x={x(d)} y={box.height - box.bottom + 16} text-anchor="middle">{number(d, 0)}</text>
    {/each}
    <text x={(box.left + box.width - box.right) / 2} y={box.height - 4} text-anchor="middle"
      >true distance past the line, in SEM</text
    >
    {#if low < 0}<line x1={x(0)} x2={x(0)} y1={box.top} y2={box.height - box.bottom} class="gate-line" />{/if}
    {#each lines as line (line.key)}<path d={path(line)} class={line.key} />{/each}
  </svg>
  <ul class="flex flex-wrap gap-x-5 text-sm">
    {#each lines as line (line.key)}
      <li class="flex items-center gap-2">
        <svg viewBox="0 0 32 8" class="w-8" aria-hidden="true"><path d="M1 4H31" class={line.key} /></svg
        >{line.name}
      </li>
    {/each}
  </ul>
</figure>

<style>
  path {
    fill: none;
    stroke-width: 2.5;
  }

  .naive {
    stroke: var(--ink-quiet);
    stroke-dasharray: 2 4;
  }

  .shipped {
    stroke: var(--color-base-content);
  }

  .own {
    stroke: var(--side-left);
    stroke-dasharray: 9 4;
  }

  .grid-line {
    stroke: var(--color-base-300);
  }

  .gate-line {
    stroke: var(--color-base-content);
    stroke-width: 1.5;
  }

  text {
    fill: var(--ink-quiet);
    font-size: 12px;
    font-variant-numeric: tabular-nums;
  }
</style>
