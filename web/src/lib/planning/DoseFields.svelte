<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { parseNumber } from '$lib/students/body';
  import { doseFields } from './doseFields';

  interface Props {
    dose: Schemas['Dose'];
    /** Of what it is: said to who cannot see the row. */
    of: string;
    /** Gives what is wrong with the number, if anything is. */
    onchange: (numbers: Schemas['DoseChange']) => Promise<string | undefined>;
  }

  let { dose, of, onchange }: Props = $props();
  const uid = $props.id();
  let typed = $state<Record<string, string>>({});
  let errors = $state<Record<string, string>>({});

  async function change(field: string, was: number) {
    const value = parseNumber(typed[field] ?? '');
    if (value === was || typed[field] === undefined) {
      delete typed[field];
      delete errors[field];
      return;
    }
    if (value === null || Number.isNaN(value) || !Number.isInteger(value)) {
      errors[field] = 'A whole number.';
      return;
    }
    const error = await onchange({ [field]: value });
    if (error) errors[field] = error;
    else {
      delete typed[field];
      delete errors[field];
    }
  }
</script>

<div class="flex flex-wrap gap-x-3 gap-y-1">
  {#each doseFields(dose) as f (f.field)}
    <div>
      <label class="text-quiet block text-xs" for="{uid}-{f.field}"
        >{f.label}<span class="sr-only">, {of}</span></label
      >
      <input
        id="{uid}-{f.field}"
        class="input input-sm w-16 tabular-nums"
        inputmode="numeric"
        aria-invalid={!!errors[f.field]}
        aria-describedby={errors[f.field] ? `${uid}-${f.field}-error` : undefined}
        bind:value={() => typed[f.field] ?? String(f.value), (text) => (typed[f.field] = text)}
        onchange={() => change(f.field, f.value)}
        onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {#if errors[f.field]}
        <p id="{uid}-{f.field}-error" class="text-error max-w-32 text-xs font-semibold" role="alert">
          {errors[f.field]}
        </p>
      {/if}
    </div>
  {/each}
</div>
