<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { longDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { weekdayName } from './weeks';
  import { blockText, minutesOf, reasonText } from './words';

  interface Props {
    week: Schemas['PlanWeek'];
    day: Schemas['PlanDayView'];
    /** None while the plan is only tried. */
    onpin?: () => void;
    onmove?: (to: string) => void;
    /** What if there were so many minutes more on such a day. */
    onmore?: (minutes: number) => void;
  }

  let { week, day, onpin, onmove, onmore }: Props = $props();
  let to = $state('');
  let minutes = $state(20);
  const open = $derived(day.state === 'planned' && !!onpin && account.mayWrite);
</script>

<section aria-label="This session" class="grid gap-3">
  <h2>{longDay(day.day)}</h2>
  <p class="text-quiet text-sm">
    {day.half === 'am' ? 'Morning' : 'Afternoon'}, {day.minutes} min · week {week.number}{week.backOff
      ? ', back-off'
      : ''}
    {#if day.firstSide}· <SideMark side={day.firstSide} text="{day.firstSide} first" />{/if}
  </p>
  <ul class="ruled border-t">
    {#each day.blocks as block (block.skill)}
      <li class="ruled flex items-baseline justify-between gap-3 border-b py-1">
        <span><strong>{catalogue.ladder(block.skill).name}</strong>, {blockText(block)}</span>
        <span class="figures whitespace-nowrap">{minutesOf(block.seconds)}</span>
      </li>
    {/each}
    <li class="ruled text-quiet flex justify-between border-b py-1">
      <span>Warm-up and calm</span><span class="figures">{minutesOf(day.frameSeconds)}</span>
    </li>
    {#if day.testMinutes}
      <li class="ruled flex justify-between border-b py-1">
        <span>Measuring, warm</span><span class="figures">{day.testMinutes} min</span>
      </li>
    {/if}
  </ul>
  {#if day.drills.length}
    <p class="text-sm">{day.drills.map((d) => catalogue.drill(d).name).join(' · ')}</p>
  {/if}
  <div>
    <h3>Why</h3>
    <ul class="list-disc ps-5 text-sm">
      {#each day.why.map(reasonText) as reason (reason)}<li>{reason}</li>{/each}
    </ul>
  </div>
  {#if day.session}
    <a class="btn btn-sm btn-outline justify-self-start" href={resolve('/sessions/[id]', { id: day.session })}
      >Open the session</a
    >
  {/if}
  {#if open}
    <div class="flex flex-wrap items-end gap-2">
      <button type="button" class="btn btn-sm btn-outline" onclick={onpin}
        >{day.pinned ? 'Unpin' : 'Pin'}</button
      >
      <label class="grid text-sm">
        <span class="font-semibold">Move to</span>
        <input type="date" class="input input-sm w-40" bind:value={to} />
      </label>
      <button type="button" class="btn btn-sm btn-outline" disabled={!to} onclick={() => onmove?.(to)}
        >Move</button
      >
    </div>
  {/if}
  {#if onmore && (day.state === 'planned' || day.state === 'barred')}
    <div class="flex flex-wrap items-end gap-2">
      <label class="grid text-sm">
        <span class="font-semibold">What if</span>
        <select class="select select-sm w-28" bind:value={minutes}>
          {#each [10, 20, 30] as more (more)}<option value={more}>{more} min more</option>{/each}
        </select>
      </label>
      <button type="button" class="btn btn-sm btn-outline" onclick={() => onmore(minutes)}
        >on {weekdayName(day.day)}s</button
      >
    </div>
  {/if}
</section>
