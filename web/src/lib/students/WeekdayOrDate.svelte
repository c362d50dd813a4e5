<script lang="ts">
  import { weekdays } from './intake';

  /** A day of every week, or one date. */
  interface Props {
    weekday: string;
    date: string;
    label: string;
    dateLabel: string;
    small?: boolean;
    onchange: () => void;
  }

  let {
    weekday = $bindable(),
    date = $bindable(),
    label,
    dateLabel,
    small = false,
    onchange,
  }: Props = $props();
</script>

<select
  class={['select', small ? 'select-sm w-32' : 'w-36']}
  aria-label={label}
  bind:value={weekday}
  onchange={() => onchange()}
>
  {#each weekdays as w (w.key)}<option value={w.key}>{w.name}</option>{/each}
  <option value="">On a date</option>
</select>
{#if weekday === ''}
  <input
    type="date"
    class={['input', small ? 'input-sm w-36' : 'w-40']}
    aria-label={dateLabel}
    bind:value={date}
    oninput={() => onchange()}
  />
{/if}
