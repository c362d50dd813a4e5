<script lang="ts">
  import { untrack } from 'svelte';
  import { account } from '$lib/accounts/account.svelte';
  import { Refusal, type Schemas } from '$lib/api/client';
  import { withUnit } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';
  import { Landmarks } from './landmarks.svelte';
  import { landmarksOf, lineParts } from './words';

  interface Props {
    studentId: string;
    picture: Schemas['PictureItem'];
    /** Starts without the landmarks that were kept before. */
    fresh?: boolean;
    /** There is room beside the picture for what it says. */
    roomy?: boolean;
    /** Shows and places nothing. */
    still?: boolean;
    keepLabel?: string;
    onkept?: (mark: Schemas['MarkView']) => void;
  }

  let {
    studentId,
    picture,
    fresh = false,
    roomy = false,
    still = false,
    keepLabel = 'Keep these landmarks',
    onkept,
  }: Props = $props();
  const marks = untrack(
    () => new Landmarks(picture.view, landmarksOf(picture.view), picture.width, picture.height),
  );
  const last = untrack(() => picture.marks[0]);
  if (last && untrack(() => !fresh)) marks.show(last.placement);
  const loupe = $props.id();
  const zoom = 3;

  let svg = $state<SVGSVGElement>();
  let pointer = $state<Schemas['PicturePoint']>();
  let dragging = $state<{ index: number; horizon: boolean }>();
  let problem = $state('');
  const src = $derived(`/api/v1/students/${studentId}/pictures/${picture.id}/image`);
  const radius = $derived(Math.max(picture.width, picture.height) / 90);
  /** The loupe looks at the pointer, or at the landmark that the arrow keys move. */
  const seen = $derived(pointer ?? marks.points[marks.active]);
  const glass = $derived(Math.min(picture.width, picture.height) / 4);
  const glassLeft = $derived(seen && seen.x > picture.width / 2 ? 8 : picture.width - glass - 8);

  function at(event: PointerEvent): Schemas['PicturePoint'] {
    const box = svg!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * picture.width,
      y: ((event.clientY - box.top) / box.height) * picture.height,
    };
  }

  /** The landmark under the pointer, if any. */
  function under(point: Schemas['PicturePoint']): { index: number; horizon: boolean } | undefined {
    const near = (p: Schemas['PicturePoint']) => Math.hypot(p.x - point.x, p.y - point.y) < radius * 2;
    const index = marks.points.findIndex(near);
    if (index >= 0) return { index, horizon: false };
    const end = marks.horizon.findIndex(near);
    return end >= 0 ? { index: end, horizon: true } : undefined;
  }

  function down(event: PointerEvent) {
    if (still) return;
    const point = at(event);
    dragging = under(point);
    svg!.setPointerCapture(event.pointerId);
    if (dragging) {
      if (!dragging.horizon) marks.choose(dragging.index);
    } else marks.put(point);
  }

  function move(event: PointerEvent) {
    pointer = at(event);
    if (dragging) marks.move(dragging.index, pointer, dragging.horizon);
  }

  const arrows: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };

  function key(event: KeyboardEvent) {
    if (still) return;
    const step = arrows[event.key];
    if (step) {
      const far = event.shiftKey ? 10 : 1;
      pointer = undefined;
      marks.nudge(step[0] * far, step[1] * far);
    } else if (event.key === 'Enter' && marks.wanted) {
      pointer = undefined;
      const from = marks.points.at(-1) ?? { x: picture.width / 2, y: picture.height / 2 };
      marks.put({ x: from.x, y: from.y - radius * 4 });
    } else if (event.key === 'Backspace') marks.back();
    else if (/^[1-9]$/.test(event.key)) {
      pointer = undefined;
      marks.choose(Number(event.key) - 1);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  async function keep() {
    problem = '';
    try {
      onkept?.(await marks.keep(studentId, picture.id));
      if (fresh) marks.clear();
    } catch (error) {
      problem = pageText(error instanceof Refusal ? error.code : 'unexpected');
    }
  }
</script>

<div
  class={['grid content-start gap-x-5 gap-y-2', !still && roomy && 'md:grid-cols-[auto_minmax(14rem,20rem)]']}
>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <svg
    bind:this={svg}
    viewBox="0 0 {picture.width} {picture.height}"
    class={['ruled w-full touch-none border', !still && 'cursor-crosshair']}
    style:aspect-ratio="{picture.width} / {picture.height}"
    style:max-width="calc(36rem * {picture.width} / {picture.height})"
    role={still ? 'img' : 'application'}
    aria-label={still
      ? 'Side picture with its landmarks'
      : 'Side picture. Click or press Enter to place a landmark, arrow keys to move it, numbers to choose one.'}
    tabindex={still ? undefined : 0}
    onpointerdown={down}
    onpointermove={move}
    onpointerup={() => (dragging = undefined)}
    onpointerleave={() => (pointer = undefined)}
    onkeydown={key}
  >
    <image href={src} width={picture.width} height={picture.height} />
    {#if marks.horizon.length === 2}
      <line
        x1={marks.horizon[0]!.x}
        y1={marks.horizon[0]!.y}
        x2={marks.horizon[1]!.x}
        y2={marks.horizon[1]!.y}
        class="horizon"
        stroke-width={radius / 3}
      />
    {/if}
    {#each marks.horizon as end, i (i)}<circle
        cx={end.x}
        cy={end.y}
        r={radius * 0.8}
        class="horizon"
        stroke-width={radius / 4}
      />{/each}
    {#each [radius * 0.75, radius * 0.35] as width, i (i)}
      <polyline
        points={marks.points.map((p) => `${p.x},${p.y}`).join(' ')}
        class={i ? 'line' : 'halo'}
        stroke-width={width}
      />
    {/each}
    {#each marks.points as point, i (i)}
      <circle
        cx={point.x}
        cy={point.y}
        r={radius}
        class={['landmark', i === marks.active && !still && 'active']}
        stroke-width={radius / 4}
      />
      <text
        x={point.x + radius * 1.6}
        y={point.y + radius * 0.8}
        font-size={radius * 2.2}
        stroke-width={radius / 2}>{marks.names[i]}</text
      >
    {/each}
    {#if seen && !still}
      <clipPath id={loupe}><rect x={glassLeft} y="8" width={glass} height={glass} /></clipPath>
      <g clip-path="url(#{loupe})" aria-hidden="true">
        <image
          href={src}
          x={glassLeft + glass / 2 - seen.x * zoom}
          y={8 + glass / 2 - seen.y * zoom}
          width={picture.width * zoom}
          height={picture.height * zoom}
        />
        <path
          d="M {glassLeft + glass / 2} 8 v {glass} M {glassLeft} {8 + glass / 2} h {glass}"
          class="cross"
          stroke-width={radius / 6}
        />
      </g>
      <rect x={glassLeft} y="8" width={glass} height={glass} class="glass" stroke-width={radius / 3} />
    {/if}
  </svg>

  <div class="grid content-start gap-3">
    {#if !still}
      <p role="status" class={['text-sm', marks.wanted && 'next-thing font-semibold']}>
        {marks.wanted
          ? `Next: ${marks.wanted}`
          : 'All placed. Drag a landmark, or move it with the arrow keys.'}
      </p>
    {/if}
    {#if marks.angles}
      <dl class="flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-label="Angles">
        <div>
          <dt class="text-quiet">Reads</dt>
          <dd class="figures text-2xl">{withUnit(marks.angles.value, '°')}</dd>
        </div>
        {#each lineParts(marks.angles) as part (part.name)}
          <div>
            <dt class="text-quiet">{part.name}</dt>
            <dd class="figures text-lg">{part.value}</dd>
          </div>
        {/each}
      </dl>
    {:else if marks.problem}<p class="text-error text-sm font-semibold">{pageText(marks.problem)}</p>{/if}

    {#if !still && account.mayWrite}
      <div class="flex flex-wrap gap-2">
        {#if onkept}
          <button class="btn btn-primary btn-sm" disabled={!marks.angles} onclick={keep}>{keepLabel}</button>
        {/if}
        <button class="btn btn-outline btn-sm" disabled={!marks.points.length} onclick={() => marks.back()}
          >Take one back</button
        >
        {#if marks.horizon.length}
          <button class="btn btn-outline btn-sm" onclick={() => marks.clearHorizon()}
            >Forget the horizon</button
          >
        {:else}
          <button class="btn btn-outline btn-sm" onclick={() => marks.markHorizon()}>Mark the horizon</button>
        {/if}
        {#if marks.angles?.leanDeg != null}
          <button class="btn btn-outline btn-sm" onclick={() => marks.turn()}
            >Belly faces {marks.facing}</button
          >
        {/if}
      </div>
    {/if}
    {#if problem}<p class="text-error text-sm font-semibold" role="alert">{problem}</p>{/if}
  </div>
</div>

<style>
  .halo {
    fill: none;
    stroke: white;
    stroke-opacity: 0.85;
  }

  .line {
    fill: none;
    stroke: #b8470f;
  }

  .landmark {
    fill: white;
    fill-opacity: 0.35;
    stroke: #b8470f;
  }

  .landmark.active {
    fill: #d99a1c;
    fill-opacity: 0.6;
  }

  text {
    fill: #22303a;
    stroke: white;
    paint-order: stroke;
    font-weight: 600;
    pointer-events: none;
  }

  .horizon {
    stroke: #22303a;
    stroke-dasharray: 14 8;
    fill: none;
  }

  .glass {
    fill: none;
    stroke: #22303a;
  }

  .cross {
    stroke: #22303a;
    fill: none;
  }
</style>
