<script lang="ts">
  import TextField from '$lib/parts/TextField.svelte';
  import Field from '$lib/parts/Field.svelte';
  import { sideChoices, twoSided, type PracticeText } from './practice';

  interface Props {
    text: PracticeText;
    /** What is wrong at a field. */
    problem: (field: string) => string | undefined;
    onchange: () => void;
  }

  let { text = $bindable(), problem, onchange }: Props = $props();
</script>

{#snippet box(key: keyof PracticeText, label: string, field: string = key)}
  <TextField
    {label}
    width="w-24"
    inputmode="decimal"
    error={problem(field)}
    bind:value={text[key] as string}
    oninput={onchange}
  />
{/snippet}

<div class="grid gap-4">
  <div class="flex flex-wrap items-start gap-x-4 gap-y-3">
    {#if text.counted === 'seconds'}{@render box('seconds', 'Hold')}{:else}{@render box(
        'breaths',
        'Hold',
      )}{/if}
    <Field label="Counted in">
      {#snippet children({ id })}
        <select {id} class="select w-32" bind:value={text.counted} {onchange}>
          <option value="seconds">seconds</option>
          <option value="breaths">breaths</option>
        </select>
      {/snippet}
    </Field>
    {#if text.counted === 'breaths'}{@render box('breathSeconds', 'One breath, s')}{/if}
  </div>
  <div class="flex flex-wrap items-start gap-x-4 gap-y-3">
    {@render box('rounds', 'Rounds')}
    {@render box('restSeconds', 'Rest, s')}
    {@render box('countInSeconds', 'Count-in, s')}
  </div>
  <div class="flex flex-wrap items-start gap-x-4 gap-y-3">
    <Field label="Sides">
      {#snippet children({ id })}
        <select {id} class="select w-44" bind:value={text.sides} {onchange}>
          {#each sideChoices as choice (choice.key)}<option value={choice.key}>{choice.name}</option>{/each}
        </select>
      {/snippet}
    </Field>
    {#if twoSided(text)}
      {@render box('switchSeconds', 'To switch, s')}
      <label class="flex basis-full items-center gap-2">
        <input type="checkbox" class="checkbox checkbox-sm" bind:checked={text.sideBySide} {onchange} />
        All rounds of one side, then the other
      </label>
    {/if}
  </div>
  <div>
    <label class="flex items-center gap-2">
      <input type="checkbox" class="checkbox checkbox-sm" bind:checked={text.ramp} {onchange} />
      Effort rises during the hold
    </label>
    {#if text.ramp}
      <div class="mt-3 flex flex-wrap items-start gap-x-4 gap-y-3">
        {@render box('fromPercent', 'From, %', 'ramp.fromPercent')}
        {@render box('toPercent', 'To, %', 'ramp.toPercent')}
        {@render box('plateauSeconds', 'Full for the last, s', 'ramp.plateauSeconds')}
        {@render box('settleSeconds', 'Settle before, s')}
      </div>
    {/if}
  </div>
</div>
