<script lang="ts">
  import WeekdayOrDate from '$lib/students/WeekdayOrDate.svelte';
  import type { ThemeText } from './sketch';

  interface Props {
    themes: ThemeText[];
    onchange: () => void;
  }

  let { themes = $bindable(), onchange }: Props = $props();
  let open = $state(false);
  const names: [string, string][] = [
    ['', 'anything'],
    ['hips', 'hips'],
    ['hamstrings', 'hamstrings'],
    ['care', 'wrists and shoulders, care'],
    ['test', 'test'],
  ];
</script>

<details class="mt-3" bind:open>
  <summary class="cursor-pointer text-sm font-semibold"
    >Days for something of their own{themes.length ? ` (${themes.length})` : ''}</summary
  >
  {#each themes as theme, i (i)}
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <WeekdayOrDate
        bind:weekday={theme.weekday}
        bind:date={theme.date}
        label="Day {i + 1} of its own"
        dateLabel="Date of day {i + 1} of its own"
        small
        {onchange}
      />
      <select
        class="select select-sm w-44"
        aria-label="What day {i + 1} is for"
        bind:value={theme.theme}
        onchange={() => onchange()}
      >
        {#each names as [key, name] (key)}<option value={key}>{name}</option>{/each}
      </select>
      <label class="flex items-center gap-1 text-sm">
        <input
          type="checkbox"
          class="checkbox checkbox-sm"
          bind:checked={theme.light}
          onchange={() => onchange()}
        /> light
      </label>
      <button
        type="button"
        class="btn btn-ghost btn-sm"
        aria-label="Remove day {i + 1} of its own"
        onclick={() => {
          themes = themes.filter((_, at) => at !== i);
          onchange();
        }}>Remove</button
      >
    </div>
  {/each}
  <button
    type="button"
    class="btn btn-ghost btn-sm mt-2"
    onclick={() => (themes = [...themes, { weekday: 'monday', date: '', theme: '', light: true }])}
    >Add a day</button
  >
</details>
