<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { weekdays } from '$lib/students/intake';

  interface Props {
    times: Schemas['OpenTime'][];
    problem: (field: string) => string | undefined;
    disabled: boolean;
    onchange: () => void;
  }

  let { times = $bindable(), problem, disabled, onchange }: Props = $props();

  /** `08:00` as it travels. */
  const whole = (time: string) => (time.length === 5 ? `${time}:00` : time);
</script>

<fieldset class="ruled border-t pt-4" {disabled}>
  <legend class="font-head pe-3 text-xl font-semibold">Open</legend>
  {#if !times.length}<p class="text-quiet mb-2">Not said: no day counts as closed.</p>{/if}
  {#each times as time, i (i)}
    <div class="mb-2 flex flex-wrap items-center gap-2">
      <select
        class="select w-36"
        aria-label="Weekday {i + 1}"
        bind:value={time.weekday}
        onchange={() => onchange()}
      >
        {#each weekdays as w (w.key)}<option value={w.key}>{w.name}</option>{/each}
      </select>
      {#each ['from', 'until'] as const as end (end)}
        <input
          type="time"
          class="input w-32"
          aria-label="{end === 'from' ? 'Opens' : 'Closes'}, time {i + 1}"
          aria-invalid={!!problem(`opening[${i}].${end}`)}
          value={time[end].slice(0, 5)}
          oninput={(event) => {
            time[end] = whole(event.currentTarget.value);
            onchange();
          }}
        />
      {/each}
      <button
        type="button"
        class="btn btn-ghost btn-sm"
        aria-label="Remove time {i + 1}"
        onclick={() => {
          times = times.filter((_, at) => at !== i);
          onchange();
        }}>Remove</button
      >
      {#each ['from', 'until'] as const as end (end)}
        {#if problem(`opening[${i}].${end}`)}
          <p class="text-error w-full text-sm font-semibold">{problem(`opening[${i}].${end}`)}</p>
        {/if}
      {/each}
    </div>
  {/each}
  <button
    type="button"
    class="btn btn-outline btn-sm"
    onclick={() => {
      const last = times.at(-1);
      const after = weekdays[(weekdays.findIndex((w) => w.key === last?.weekday) + 1) % 7]!;
      times = [
        ...times,
        { weekday: after.key, from: last?.from ?? '08:00:00', until: last?.until ?? '20:00:00' },
      ];
      onchange();
    }}>Add a time</button
  >
</fieldset>
