<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { shortDay } from '$lib/parts/format';
  import { tagName } from '$lib/students/tags';
  import LoadCell from './LoadCell.svelte';
  import Stone from './Stone.svelte';
  import WeekList from './WeekList.svelte';
  import { dayAfter, weekdaysFrom } from './weeks';

  interface Props {
    plan: Schemas['PlanView'];
    picked: string | undefined;
    onpick: (day: Schemas['PlanDayView'] | undefined) => void;
    /** A session is put on another day; none where nothing may be moved. */
    onmove?: (day: Schemas['PlanDayView'], to: string) => void;
  }

  let { plan, picked, onpick, onmove }: Props = $props();
  const most = $derived(Math.max(30, ...plan.weeks.flatMap((w) => w.days.map((d) => d.minutes))));
  let shown = $state(0);
  const load = $derived(plan.loads[Math.min(shown, plan.loads.length - 1)]);
  let dragged = $state<Schemas['PlanDayView']>();
  /** Moved by keyboard: the session, and the day it stands over. */
  let carried = $state<{ day: Schemas['PlanDayView']; to: string }>();
  let over = $state<string>();

  /** The days of a week begin with the weekday on which the programme begins. */
  const heads = $derived(weekdaysFrom(plan.weeks[0]!.start));
  const keyOf = (day: Schemas['PlanDayView']) => `${day.day}/${day.half}`;
  const movable = (day: Schemas['PlanDayView']) => !!onmove && day.state === 'planned';

  function drop(to: string) {
    over = undefined;
    if (dragged && dragged.day !== to) onmove?.(dragged, to);
    dragged = undefined;
  }

  function key(event: KeyboardEvent, day: Schemas['PlanDayView']) {
    if (carried) {
      const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key];
      const last = dayAfter(plan.weeks.at(-1)!.start, 6);
      if (step) {
        const to = dayAfter(carried.to, step);
        if (to >= plan.weeks[0]!.start && to <= last) carried = { ...carried, to };
      } else if (event.key === 'Enter' || event.key === ' ') {
        if (carried.to !== carried.day.day) onmove?.(carried.day, carried.to);
        carried = undefined;
      } else if (event.key === 'Escape') carried = undefined;
      else return;
      event.preventDefault();
    } else if (event.key === 'm' && movable(day)) carried = { day, to: day.day };
  }
</script>

<section aria-label="The weeks">
  <WeekList {plan} {picked} {most} {onpick} />
  <div
    class="text-quiet hidden grid-cols-[4.5rem_repeat(7,minmax(0,1fr))] items-end gap-x-1 text-xs sm:grid lg:grid-cols-[4.5rem_repeat(7,minmax(0,1fr))_13rem]"
  >
    <span></span>
    {#each heads as head (head)}<span class="ps-0.5">{head}</span>{/each}
    {#if load}
      <label class="hidden items-center gap-2 lg:flex">
        <span class="sr-only">Load shown</span>
        <select class="select select-sm h-8 min-h-0 w-full" bind:value={shown}>
          {#each plan.loads as strip, i (strip.tag + strip.side)}
            <option value={i}
              >{tagName(strip.tag)}{strip.side ? `, ${strip.side}` : ''}, {strip.inBodyweight
                ? 'bodyweight-s'
                : 'heavy min'}</option
            >
          {/each}
        </select>
      </label>
    {/if}
  </div>
  <ol class="ruled mt-1 hidden border-t sm:block">
    {#each plan.weeks as week (week.number)}
      <li
        class={[
          'ruled grid grid-cols-[4.5rem_repeat(7,minmax(0,1fr))] items-center gap-x-1 border-b lg:grid-cols-[4.5rem_repeat(7,minmax(0,1fr))_13rem]',
          week.backOff ? 'bg-base-200 py-0.5' : 'py-1',
        ]}
      >
        <span class="text-xs leading-tight">
          <strong class="block text-sm">Week {week.number}</strong>
          <span class="text-quiet"
            >{week.backOff ? 'back-off' : shortDay(week.start).replace(/^\w+,? /, '')}</span
          >
        </span>
        {#each heads as head, i (head)}
          {@const day = dayAfter(week.start, i)}
          <div
            role="presentation"
            class={[
              'flex min-h-7 flex-col justify-center gap-0.5 rounded-xs',
              (over === day || carried?.to === day) && 'outline-accent outline-2 outline-dashed',
            ]}
            ondragover={(event) => {
              if (!dragged) return;
              event.preventDefault();
              over = day;
            }}
            ondragleave={() => (over = undefined)}
            ondrop={(event) => {
              event.preventDefault();
              drop(day);
            }}
          >
            {#each week.days.filter((d) => d.day === day) as session (keyOf(session))}
              <div role="presentation" onkeydown={(event) => key(event, session)} class="flex">
                <Stone
                  day={session}
                  {most}
                  thin={week.backOff}
                  chosen={picked === keyOf(session)}
                  onpick={() => onpick(session)}
                  ondrag={movable(session) ? () => (dragged = session) : undefined}
                />
              </div>
            {/each}
          </div>
        {/each}
        {#if load}<div class="hidden lg:block">
            <LoadCell week={load.weeks[week.number - 1]!} most={load.most} />
          </div>{/if}
      </li>
    {/each}
  </ol>
  <p class="text-quiet mt-2 hidden text-sm sm:block" aria-live="polite">
    {#if carried}
      {shortDay(carried.day.day)} moves to {shortDay(carried.to)}: Enter puts it there, Escape leaves it.
    {:else}
      Solid is done, outlined is planned. Strong blocks are at the week’s step, faint ones below it, empty
      ones light; a notch is a test, a thin course a back-off week. {onmove
        ? 'Drag a session to another day, or press M on it.'
        : ''}
    {/if}
  </p>
</section>
