<script lang="ts">
  import type { Refusal } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Field from '$lib/parts/Field.svelte';
  import { pageText, problemText } from '$lib/parts/problems';
  import DayFields from '$lib/students/DayFields.svelte';
  import Shapes from './Shapes.svelte';
  import { readDay, type SketchText } from './sketch';
  import Themes from './Themes.svelte';
  import { isOfPage } from './words';

  interface Props {
    text: SketchText;
    /** Skills that the student is on. */
    skills: string[];
    minutes: string;
    refusal: Refusal | undefined;
    onchange: () => void;
  }

  let { text = $bindable(), skills, minutes, refusal, onchange }: Props = $props();
  const name = (skill: string) => catalogue.ladder(skill).name;
  const error = (field: string) => {
    const found = refusal?.problems.find((p) => p.field === field || p.field === `sketch.${field}`);
    return found && problemText(found);
  };
  const others = $derived(skills.filter((s) => text.goals.every((g) => g.skill !== s)));

  function up(i: number) {
    const goals = [...text.goals];
    [goals[i - 1], goals[i]] = [goals[i]!, goals[i - 1]!];
    text.goals = goals;
    onchange();
  }
</script>

<div class="grid gap-5">
  <fieldset>
    <legend class="font-head text-xl font-semibold">What for</legend>
    <ol>
      {#each text.goals as goal, i (goal.skill)}
        <li class="ruled flex flex-wrap items-center gap-x-3 gap-y-1 border-b py-1">
          <span class="figures text-quiet w-5">{i + 1}</span>
          <span class="grow">{name(goal.skill)}</span>
          <label class="flex items-center gap-2 text-sm">
            by
            <input
              type="date"
              class="input input-sm w-36"
              aria-label="Target day of {name(goal.skill)}"
              bind:value={goal.target}
              onchange={() => onchange()}
            />
          </label>
          {#if i > 0}
            <button
              type="button"
              class="btn btn-ghost btn-sm"
              aria-label="{name(goal.skill)} first"
              onclick={() => up(i)}>Up</button
            >
          {/if}
          <button
            type="button"
            class="btn btn-ghost btn-sm"
            aria-label="Remove {name(goal.skill)}"
            onclick={() => {
              text.goals = text.goals.filter((g) => g !== goal);
              onchange();
            }}>Remove</button
          >
          {#if error(`goals[${i}].target`)}<p class="text-error w-full text-sm font-semibold">
              {error(`goals[${i}].target`)}
            </p>{/if}
        </li>
      {/each}
    </ol>
    {#if error('goals')}<p class="text-error text-sm font-semibold">{error('goals')}</p>{/if}
    <div class="mt-2 flex flex-wrap gap-2">
      {#each others as skill (skill)}
        <button
          type="button"
          class="btn btn-outline btn-sm"
          onclick={() => {
            text.goals = [...text.goals, { skill, target: '' }];
            onchange();
          }}>+ {name(skill)}</button
        >
      {/each}
    </div>
  </fieldset>

  <div class="flex flex-wrap gap-4">
    <Field label="First day" error={error('start')}>
      {#snippet children({ id, describedBy, invalid })}
        <input
          {id}
          type="date"
          class="input w-40"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          bind:value={text.start}
          onchange={() => onchange()}
        />
      {/snippet}
    </Field>
    <Field label="Weeks" error={error('weeks')} hint="4 to 16">
      {#snippet children({ id, describedBy, invalid })}
        <input
          {id}
          class="input w-20"
          inputmode="numeric"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          bind:value={text.weeks}
          oninput={() => onchange()}
        />
      {/snippet}
    </Field>
  </div>

  <div>
    <Shapes bind:text {minutes} {onchange} />
    <DayFields bind:days={text.days} {minutes} {refusal} {onchange} />
    {#if error('days')}<p class="text-error mt-1 text-sm font-semibold">{error('days')}</p>{/if}
    {#if text.off.length}
      <p class="mt-3 text-sm font-semibold">Days off</p>
    {/if}
    {#each text.off as off, i (i)}
      <div class="mt-1 flex items-center gap-2">
        <input
          type="date"
          class="input w-40"
          aria-label="Day off {i + 1}"
          bind:value={text.off[i]}
          onchange={() => onchange()}
        />
        <button
          type="button"
          class="btn btn-ghost btn-sm"
          aria-label="Remove day off {off || i + 1}"
          onclick={() => {
            text.off = text.off.filter((_, at) => at !== i);
            onchange();
          }}>Remove</button
        >
      </div>
    {/each}
    <button type="button" class="btn btn-ghost btn-sm mt-2" onclick={() => (text.off = [...text.off, ''])}
      >Add a day off</button
    >
    <Themes bind:themes={text.themes} {onchange} />
  </div>
  {#if text.days.some((d) => readDay(d) === undefined)}
    <p class="text-error text-sm font-semibold">Each day needs minutes between 15 and 120.</p>
  {/if}
  <!-- Where the plan stands above the form, so does its notice: out of sight of whoever types here. -->
  {#if refusal && refusal.status !== 412 && isOfPage(refusal)}
    <p class="bg-base-100 ruled text-error sticky bottom-0 border-t py-2 text-sm font-semibold xl:hidden">
      {pageText(refusal.problems[0]?.code ?? refusal.code)}
    </p>
  {/if}
</div>
