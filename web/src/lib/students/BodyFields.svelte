<script lang="ts">
  import type { Refusal } from '$lib/api/client';
  import TextField from '$lib/parts/TextField.svelte';
  import { fieldText } from '$lib/parts/problems';
  import type { BodyText } from './body';
  import BodyWordFields from './BodyWordFields.svelte';
  import GoalFields from './GoalFields.svelte';
  import DayFields from './DayFields.svelte';
  import { equipment } from './intake';

  interface Props {
    body: BodyText;
    refusal: Refusal | undefined;
    onchange: () => void;
  }

  let { body = $bindable(), refusal, onchange }: Props = $props();

  type Plain = Exclude<keyof BodyText, 'goals' | 'equipment' | 'days' | 'bodyWords'>;
  type Row = { key: Plain; label: string; hint?: string; type?: string; wide?: boolean };
  const groups: { title: string; rows: Row[] }[] = [
    {
      title: 'Who',
      rows: [
        { key: 'name', label: 'Name', wide: true },
        { key: 'about', label: 'About', hint: 'Work, sport, whatever helps you remember.', wide: true },
        { key: 'birthDate', label: 'Birth date', type: 'date' },
      ],
    },
    {
      title: 'Body',
      rows: [
        { key: 'leftLegCm', label: 'Left leg, cm', hint: 'Hip bone at the side to heel, standing.' },
        { key: 'rightLegCm', label: 'Right leg, cm', hint: 'The same on the right.' },
        { key: 'hipWidthCm', label: 'Between the hip joints, cm', hint: 'For the straddle angle.' },
        { key: 'breathSeconds', label: 'One calm breath, s' },
        { key: 'bodyweightKg', label: 'Bodyweight, kg', hint: 'Only if they want to say.' },
      ],
    },
    {
      title: 'Training',
      rows: [
        { key: 'sensationCeiling', label: 'Sensation ceiling, of 10', hint: 'Pain above 3 always stops.' },
        { key: 'sessionMinutes', label: 'Minutes a session' },
        { key: 'blocksOwned', label: 'Blocks at hand' },
      ],
    },
  ];
</script>

{#each groups as group (group.title)}
  <fieldset class="ruled border-t pt-4">
    <legend class="font-head pe-3 text-xl font-semibold">{group.title}</legend>
    <div class="grid gap-4 sm:grid-cols-2">
      {#each group.rows as row (row.key)}
        <div class={row.wide ? 'sm:col-span-2' : ''}>
          <TextField
            label={row.label}
            hint={row.hint}
            error={fieldText(refusal, row.key)}
            type={row.type ?? 'text'}
            inputmode={row.wide || row.type ? undefined : 'decimal'}
            oninput={onchange}
            bind:value={body[row.key]}
          />
        </div>
      {/each}
      {#if group.title === 'Training'}
        <fieldset class="grid gap-1">
          <legend class="text-sm font-semibold">Standard for the split</legend>
          {#each [{ key: 'square', text: 'Square: both hip bones face forward' }, { key: 'open', text: 'Open: a slight diagonal is allowed' }] as option (option.key)}
            <label class="flex items-center gap-2 py-1">
              <input
                type="radio"
                class="radio radio-sm"
                name="standard"
                value={option.key}
                onchange={() => onchange()}
                bind:group={body.splitStandard}
              />
              {option.text}
            </label>
          {/each}
        </fieldset>
      {/if}
    </div>
  </fieldset>
{/each}
<GoalFields bind:goals={body.goals} {onchange} />
<fieldset class="ruled border-t pt-4">
  <legend class="font-head pe-3 text-xl font-semibold">At home</legend>
  <div class="grid grid-cols-2 gap-1 sm:grid-cols-3">
    {#each equipment as prop (prop.key)}
      <label class="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          class="checkbox checkbox-sm"
          value={prop.key}
          onchange={() => onchange()}
          bind:group={body.equipment}
        />
        {prop.name}
      </label>
    {/each}
  </div>
</fieldset>
<BodyWordFields bind:words={body.bodyWords} {onchange} />
<DayFields bind:days={body.days} minutes={body.sessionMinutes} {refusal} {onchange} />
