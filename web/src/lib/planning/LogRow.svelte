<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { roundsOf, type SaidOfPart } from './log';
  import { doseText, plannedNumbers } from './words';

  interface Props {
    part: Schemas['SheetPart'];
    planned: Schemas['PlannedSide'];
    said: SaidOfPart;
    problem: string | undefined;
    onchange: () => void;
  }

  let { part, planned, said = $bindable(), problem, onchange }: Props = $props();
  const numbers = $derived(plannedNumbers(planned.dose));
  const name = $derived([catalogue.drill(part.drill).name, part.side].filter(Boolean).join(', '));
  const unit = $derived(numbers.counted ? 'repetitions' : 'seconds');
</script>

<li
  class="ruled grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-3 gap-y-1 border-b py-2 sm:grid-cols-[auto_minmax(0,1fr)_5.5rem_7rem]"
>
  <input
    type="checkbox"
    class="checkbox"
    aria-label="{name}: done"
    bind:checked={said.done}
    onchange={() => onchange()}
  />
  <div class={['min-w-0', !said.done && 'text-quiet line-through']}>
    {#if part.side}<SideMark side={part.side} means={catalogue.drill(part.drill).sideMeans} />{/if}
    <strong>{catalogue.drill(part.drill).name}</strong>
    <span class="text-quiet text-sm">{doseText(planned.dose)}</span>
    {#if part.proves && said.done}
      <span class="block text-sm"
        >The gate reads this: each round that you give the number you saw is proof, the others are practice.</span
      >
    {/if}
    {#if problem}<span class="text-error block text-sm font-semibold" role="alert">{problem}</span>{/if}
  </div>
  {#if said.done}
    <div class="col-start-2 flex gap-2 sm:contents">
      <label class="text-quiet flex items-center gap-1 text-sm">
        <input
          class="input input-sm w-14"
          inputmode="numeric"
          aria-label="{name}: rounds"
          placeholder={numbers.rounds === undefined ? '' : String(numbers.rounds)}
          bind:value={said.rounds}
          oninput={() => onchange()}
        /> ×
      </label>
      {#if !part.proves}
        <label class="text-quiet flex items-center gap-1 text-sm">
          <input
            class="input input-sm w-16"
            inputmode="decimal"
            aria-label="{name}: {unit}"
            placeholder={numbers.number === undefined ? '' : String(numbers.number)}
            bind:value={said.number}
            oninput={() => onchange()}
          />
          {numbers.counted ? 'reps' : 's'}
        </label>
      {/if}
    </div>
    {#if part.proves}
      <div class="col-[2/-1] flex flex-wrap gap-x-3 gap-y-1">
        {#each { length: roundsOf(said, numbers.rounds) }, i}
          <label class="text-quiet flex items-center gap-1 text-sm">
            {i + 1}.
            <input
              class="input input-sm w-16"
              inputmode="decimal"
              aria-label="{name}: {unit}, round {i + 1}"
              bind:value={said.seen[i]}
              oninput={() => onchange()}
            />
            {numbers.counted ? 'reps' : 's'}
          </label>
        {/each}
      </div>
    {/if}
  {/if}
</li>
