<script lang="ts">
  import { untrack } from 'svelte';
  import type { Schemas } from '$lib/api/client';
  import { shortDay, today } from '$lib/parts/format';
  import { tagName } from '$lib/students/tags';
  import LoadCell from './LoadCell.svelte';
  import Stone from './Stone.svelte';
  import { dayAfter } from './weeks';
  import { blockText, skillName } from './words';

  interface Props {
    plan: Schemas['PlanView'];
    picked: string | undefined;
    most: number;
    onpick: (day: Schemas['PlanDayView'] | undefined) => void;
  }

  let { plan, picked, most, onpick }: Props = $props();
  /** On a phone a week at a time, from the one that it is. */
  let at = $state(
    untrack(() =>
      Math.max(
        0,
        plan.weeks.findIndex((w) => dayAfter(w.start, 7) > today()),
      ),
    ),
  );
  const week = $derived(plan.weeks[Math.min(at, plan.weeks.length - 1)]!);
</script>

<div class="sm:hidden">
  <div class="flex items-center justify-between gap-2">
    <button
      type="button"
      class="btn btn-sm btn-outline"
      aria-label="The week before"
      disabled={at === 0}
      onclick={() => at--}>←</button
    >
    <p class="text-center leading-tight">
      <strong>Week {week.number} of {plan.weeks.length}</strong>
      <span class="text-quiet block text-sm"
        >from {shortDay(week.start)}{week.backOff ? ', back-off' : ''}{week.tested.length
          ? ', tests'
          : ''}</span
      >
    </p>
    <button
      type="button"
      class="btn btn-sm btn-outline"
      aria-label="The week after"
      disabled={at >= plan.weeks.length - 1}
      onclick={() => at++}>→</button
    >
  </div>
  <ul class="ruled mt-2 border-t">
    {#each week.days as day (day.day + day.half)}
      <li class="ruled border-b py-2">
        <p class="mb-1 flex justify-between text-sm">
          <strong>{shortDay(day.day)}{day.half === 'am' ? ', morning' : ''}</strong>
          <span class="text-quiet">{day.minutes} min</span>
        </p>
        <Stone
          {day}
          {most}
          thin={week.backOff}
          chosen={picked === `${day.day}/${day.half}`}
          onpick={() => onpick(day)}
        />
        <p class="text-quiet mt-1 text-sm">
          {day.blocks.map((b) => `${skillName(b.skill)} ${blockText(b)}`).join(', ')}
        </p>
      </li>
    {:else}
      <li class="py-2">No session in this week.</li>
    {/each}
  </ul>
  {#each plan.loads.slice(0, 3) as load (load.tag + load.side)}
    <p class="mt-2 text-sm">
      {tagName(load.tag)}{load.side ? `, ${load.side}` : ''}
      <span class="text-quiet">{load.inBodyweight ? 'bodyweight-seconds' : 'heavy minutes'}</span>
    </p>
    <LoadCell week={load.weeks[week.number - 1]!} most={load.most} />
  {/each}
</div>
