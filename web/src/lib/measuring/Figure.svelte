<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    figure: Schemas['LineFigure'];
    label: string;
  }

  let { figure, label }: Props = $props();

  const line = (points: number[][]) => points.map(([x, y]) => `${x},${y}`).join(' ');
  const marked = $derived(figure.mark?.points ?? []);
  /** The arc of an angle: at the middle point, from the first towards the last. */
  const arc = $derived.by(() => {
    if (figure.mark?.kind !== 'angle') return '';
    const [from, at, to] = marked as [number[], number[], number[]];
    const turn = (p: number[]) => Math.atan2(p[1]! - at[1]!, p[0]! - at[0]!);
    const [a, b] = [turn(from), turn(to)];
    const swing = ((b - a + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
    const end = (angle: number) => `${at[0]! + 17 * Math.cos(angle)} ${at[1]! + 17 * Math.sin(angle)}`;
    return `M ${end(a)} A 17 17 0 0 ${swing > 0 ? 1 : 0} ${end(b)}`;
  });
</script>

{#snippet pose(drawn: Schemas['FigurePose'], name: string)}
  <g class={name}>
    {#each drawn.lines as points, i (i)}<polyline points={line(points)} />{/each}
    {#if drawn.head}<circle cx={drawn.head[0]} cy={drawn.head[1]} r={drawn.head[2]} />{/if}
  </g>
{/snippet}

<svg
  viewBox="0 0 160 120"
  role="img"
  aria-label="{label}: start dashed, end drawn out{figure.mark ? ', the measure marked' : ''}"
>
  {#if figure.view}<text x="4" y="13">{figure.view === 'side' ? 'side view' : 'front view'}</text>{/if}
  {#if figure.ground}<line x1="4" x2="156" y1="112" y2="112" class="room" />{/if}
  {#if figure.wallX != null}<line x1={figure.wallX} x2={figure.wallX} y1="4" y2="112" class="room" />{/if}
  {#each figure.props ?? [] as [x, y, width, height], i (i)}<rect
      {x}
      {y}
      {width}
      {height}
      class="prop"
    />{/each}
  {@render pose(figure.start, 'start')}
  {@render pose(figure.end, 'end')}
  {#if figure.mark}<g class="mark">
      {#if figure.mark.kind === 'gap'}
        <polyline points={line(marked)} />
        {#each marked as [x, y], i (i)}<circle cx={x} cy={y} r="2.4" class="dot" />{/each}
      {:else if figure.mark.kind === 'angle'}
        <polyline points={line(marked)} class="thin" />
        <path d={arc} />
      {:else if figure.mark.kind === 'landmarks'}
        <polyline points={line(marked)} class="thin" />
        {#each marked as [x, y], i (i)}<circle cx={x} cy={y} r="3.4" class="dot" />{/each}
      {:else if figure.mark.kind === 'clock'}
        <circle cx="138" cy="22" r="12" /><polyline points="138,14 138,22 144,25" />
      {:else}
        <polyline points="126,14 126,30" /><polyline points="131,14 131,30" /><polyline
          points="136,14 136,30"
        />
        <polyline points="141,14 141,30" /><polyline points="123,28 144,16" />
      {/if}
    </g>{/if}
</svg>

<style>
  svg {
    width: 100%;
    fill: none;
    stroke-linecap: round;
    stroke-linejoin: round;
  }

  text {
    fill: var(--ink-quiet);
    font-size: 10px;
  }

  .room {
    stroke: var(--color-base-content);
    stroke-width: 1;
  }

  .prop {
    fill: var(--color-base-300);
  }

  .start {
    stroke: var(--ink-quiet);
    stroke-width: 1.4;
    stroke-dasharray: 2.5 2.5;
  }

  .end {
    stroke: var(--color-base-content);
    stroke-width: 3.2;
  }

  .mark {
    stroke: var(--measure-mark);
    stroke-width: 2.2;
  }

  .thin {
    stroke-width: 1.2;
  }

  .dot {
    fill: var(--measure-mark);
    stroke: none;
  }
</style>
