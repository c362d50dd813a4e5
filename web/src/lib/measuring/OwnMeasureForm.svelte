<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import TextField from '$lib/parts/TextField.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';

  interface Props {
    measure: Schemas['Measure'];
    version: Schemas['MeasureVersion'];
    onsaved: () => void;
    oncancel: () => void;
  }

  let { measure, version, onsaved, oncancel }: Props = $props();
  const from = untrack(() => version.own ?? version.shipped);
  const id = newId();
  const numbers = [
    { key: 'min', label: 'Least plausible' },
    { key: 'max', label: 'Greatest plausible' },
    { key: 'sem', label: 'SEM of one trial' },
  ] as const;
  let typed = $state({ min: String(from.min), max: String(from.max), sem: String(from.sem) });
  let protocol = $state(from.protocol.join('\n'));
  let refusal = $state<Refusal>();

  async function send(own: Schemas['OwnMeasure'] | null) {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/measures/{measure}/versions', {
          params: { path: { measure: measure.key } },
          body: { id: own ? id : newId(), basedOn: version.version, own },
        }),
      );
      onsaved();
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  function save() {
    const read = numbers.map(({ key }) => [key, parseNumber(typed[key])] as const);
    const problems = read
      .filter(([, value]) => value === null || Number.isNaN(value))
      .map(([field]) => ({ code: 'notANumber', field }));
    if (problems.length) {
      refusal = new Refusal(422, 'notANumber', problems);
      return;
    }
    const values = Object.fromEntries(read) as { min: number; max: number; sem: number };
    void send({
      ...values,
      protocol: protocol
        .split('\n')
        .map((s) => s.trim())
        .filter(Boolean),
    });
  }

  const protocolError = $derived(
    refusal?.problems.some((p) => p.field.startsWith('protocol'))
      ? fieldText(refusal, refusal.problems.find((p) => p.field.startsWith('protocol'))!.field)
      : undefined,
  );
</script>

<form
  class="grid max-w-xl gap-3"
  novalidate
  onsubmit={(event) => {
    event.preventDefault();
    save();
  }}
>
  <div class="flex flex-wrap gap-3">
    {#each numbers as n (n.key)}
      {#if measure.kind !== 'rate'}
        <TextField
          label="{n.label}, {measure.unit}"
          error={fieldText(refusal, n.key)}
          width="w-36"
          inputmode="decimal"
          bind:value={typed[n.key]}
        />
      {/if}
    {/each}
  </div>
  <Field label="Protocol, a step on each line" error={protocolError}>
    {#snippet children({ id, describedBy, invalid })}
      <textarea
        {id}
        class="textarea w-full"
        rows="5"
        aria-describedby={describedBy}
        aria-invalid={invalid}
        bind:value={protocol}></textarea>
    {/snippet}
  </Field>
  <div class="flex flex-wrap gap-2">
    <button class="btn btn-primary">Save our version</button>
    {#if version.own}
      <button type="button" class="btn btn-outline" onclick={() => send(null)}>Back to the shipped one</button
      >
    {/if}
    <button type="button" class="btn btn-ghost" onclick={oncancel}>Cancel</button>
  </div>
  {#if refusal && (!refusal.problems.length || refusal.code === 'changedMeanwhile')}
    <p class="text-error text-sm" role="alert">{pageText(refusal.code)}</p>
  {/if}
</form>
