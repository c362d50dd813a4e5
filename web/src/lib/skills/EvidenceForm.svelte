<script lang="ts">
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { capital } from './sides';
  import { asks, testName } from './words';

  interface Props {
    studentId: string;
    skill: string;
    /** The stage and the side of the gate that asks for it. */
    gate: { stage: number; side?: Schemas['SideGate']['side'] };
    test: Schemas['TestVerdict'];
    onkept: () => Promise<unknown>;
  }

  let { studentId, skill, gate, test, onkept }: Props = $props();
  let typed = $state('');
  let quality = $state('');
  let ticked = $state<string[]>([]);
  /** The way out that was seen, where either serves: its place among them. */
  let way = $state('0');
  let refusal = $state<Refusal>();
  let id = newId();

  const asked = $derived(test.test);
  const where = $derived({ params: { path: { studentId, skill } } });
  const title = $derived(
    `${testName(asked)}${test.readOn && test.readOn !== gate.side ? `, ${test.readOn}` : ''}`,
  );

  /** The number that was typed; refuses a word and an empty field at the field. */
  function typedNumber(field: string): number {
    const value = parseNumber(typed);
    if (value === null || Number.isNaN(value))
      throw new Refusal(422, 'notANumber', [{ code: value === null ? 'required' : 'notANumber', field }]);
    return value;
  }

  async function send(): Promise<unknown> {
    const { stage, side = null } = gate;
    switch (asked.kind) {
      case 'form':
        return ask(
          api.POST('/api/v1/students/{studentId}/skills/{skill}/form-checks', {
            ...where,
            body: { id, stage, side, ticked },
          }),
        );
      case 'rom':
        return ask(
          api.POST('/api/v1/students/{studentId}/skills/{skill}/form-checks', {
            ...where,
            body: { id, stage, side, ticked: [asked.adaptation!.key] },
          }),
        );
      case 'exit': {
        const seen = way === '1' && asked.or ? asked.or : asked;
        return ask(
          api.POST('/api/v1/students/{studentId}/skills/{skill}/exit-checks', {
            ...where,
            body: {
              id,
              stage,
              side: test.readOn ?? null,
              safe: typedNumber('safe'),
              of: asked.times,
              drill: seen.drill,
              variant: seen.variant ?? null,
            },
          }),
        );
      }
      case 'hold':
      case 'reps':
        return ask(
          api.POST('/api/v1/students/{studentId}/skills/{skill}/bench-sets', {
            ...where,
            body: {
              id,
              drill: asked.drill!,
              variant: asked.variant ?? catalogue.drill(asked.drill!).variants.at(-1)!.key,
              side: test.readOn ?? null,
              seconds: asked.kind === 'hold' ? typedNumber('seconds') : null,
              cleanReps: asked.kind === 'reps' ? typedNumber('cleanReps') : null,
              quality: quality ? Number(quality) : null,
              at: null,
            },
          }),
        );
      default:
        return undefined;
    }
  }

  async function record(event: SubmitEvent) {
    event.preventDefault();
    refusal = undefined;
    try {
      await send();
      id = newId();
      [typed, ticked] = ['', []];
      await onkept();
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  const error = $derived(
    fieldText(refusal, 'seconds') ?? fieldText(refusal, 'cleanReps') ?? fieldText(refusal, 'safe'),
  );
</script>

<form class="mb-4 grid gap-2" novalidate onsubmit={record} aria-label={title}>
  {#if asked.kind === 'form'}
    <p class="text-sm font-semibold">Form, all at one sitting</p>
    {#each asked.items as item (item.key)}
      <label class="flex items-center gap-2">
        <input type="checkbox" class="checkbox checkbox-sm" value={item.key} bind:group={ticked} />
        {item.name}
      </label>
    {/each}
    <button class="btn btn-outline btn-sm justify-self-start">Write the form down</button>
  {:else if asked.kind === 'rom'}
    <p class="text-sm">
      <strong>{title}</strong>: in place of the range, {asked.adaptation!.name.toLowerCase()}.
    </p>
    <button class="btn btn-outline btn-sm justify-self-start">Record that it is used</button>
  {:else}
    <Field
      label={title}
      hint={asked.kind === 'exit'
        ? `Safe times, of ${asked.times}`
        : `${asks(asked)}${asked.kind === 'hold' ? ', a minute or more apart' : ''}`}
      {error}
    >
      {#snippet children({ id: field, describedBy, invalid })}
        <div class="flex flex-wrap gap-2">
          <input
            id={field}
            class="input w-24"
            inputmode="decimal"
            placeholder={asked.kind === 'hold' ? 'seconds' : asked.kind === 'exit' ? 'safe' : 'clean'}
            aria-describedby={describedBy}
            aria-invalid={invalid}
            bind:value={typed}
          />
          {#if asked.kind === 'exit' && asked.or}
            <select class="select w-40" aria-label="Which way out" bind:value={way}>
              <option value="0">{asked.name}</option>
              <option value="1">{capital(asked.or.name)}</option>
            </select>
          {/if}
          {#if asked.kind === 'hold' && asked.quality}
            <select class="select w-28" aria-label="Quality" bind:value={quality}>
              <option value="">quality</option>
              {#each [1, 2, 3, 4, 5] as q (q)}<option value={String(q)}>{q} of 5</option>{/each}
            </select>
          {/if}
          <button class="btn btn-outline">Write down</button>
        </div>
      {/snippet}
    </Field>
  {/if}
  {#if refusal && !error}<p class="text-error text-sm" role="alert">{pageText(refusal.code)}</p>{/if}
</form>
