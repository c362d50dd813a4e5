<script lang="ts">
  import { api, ask, type Refusal, type Schemas } from '$lib/api/client';
  import { problemText } from '$lib/parts/problems';
  import { blankDay, type DayText } from './intake';
  import WeekdayOrDate from './WeekdayOrDate.svelte';

  interface Props {
    days: DayText[];
    /** What a session usually takes. */
    minutes: string;
    refusal: Refusal | undefined;
    onchange: () => void;
  }

  let { days = $bindable(), minutes, refusal, onchange }: Props = $props();
  let opening = $state.raw<Schemas['OpenTime'][]>([]);
  // Only a hint: without it the days are typed all the same.
  void ask(api.GET('/api/v1/studio')).then(
    (studio) => (opening = studio.opening),
    () => undefined,
  );
  const closed = (day: DayText) =>
    opening.length > 0 && day.weekday !== '' && opening.every((t) => t.weekday !== day.weekday);
  const problem = (i: number) => {
    const found = refusal?.problems.find((p) => p.field.includes(`days[${i}]`));
    return found && problemText(found);
  };
</script>

<fieldset class="ruled border-t pt-4">
  <legend class="font-head pe-3 text-xl font-semibold">Days and minutes</legend>
  {#each days as day, i (i)}
    <div class="mb-2 flex flex-wrap items-center gap-2">
      <WeekdayOrDate
        bind:weekday={day.weekday}
        bind:date={day.date}
        label="Day {i + 1}"
        dateLabel="Date of day {i + 1}"
        {onchange}
      />
      <input
        class="input w-20"
        inputmode="numeric"
        aria-label="Minutes on day {i + 1}"
        aria-invalid={!!problem(i)}
        bind:value={day.minutes}
        oninput={() => onchange()}
      />
      <span class="text-sm">min</span>
      <select
        class="select w-32"
        aria-label="Half of day {i + 1}"
        bind:value={day.half}
        onchange={() => onchange()}
      >
        <option value="am">morning</option>
        <option value="pm">afternoon</option>
      </select>
      <button
        type="button"
        class="btn btn-ghost btn-sm"
        aria-label="Remove day {i + 1}"
        onclick={() => {
          days = days.filter((_, at) => at !== i);
          onchange();
        }}>Remove</button
      >
      {#if closed(day)}<p class="text-quiet w-full text-sm">The studio is closed then: at home?</p>{/if}
      {#if problem(i)}<p class="text-error w-full text-sm font-semibold">{problem(i)}</p>{/if}
    </div>
  {/each}
  <button
    type="button"
    class="btn btn-outline btn-sm"
    onclick={() => {
      days = [...days, blankDay(minutes)];
      onchange();
    }}>Add a day</button
  >
</fieldset>
