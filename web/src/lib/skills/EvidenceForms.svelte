<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import { asks, testName } from './words';

  interface Props {
    student: OpenStudent;
    gate: Schemas['SideGate'];
  }

  let { student, gate }: Props = $props();
  let typed = $state<Record<number, string>>({});
  let quality = $state<Record<number, string>>({});
  let ticked = $state<Record<string, boolean>>({});
  let refusals = $state<Record<number, Refusal>>({});
  let ids = $state<Record<number, string>>({});

  const path = $derived({ studentId: student.id, ladder: student.skill!.ladder });
  const open = $derived(
    [...gate.tests.entries()].filter(
      ([, t]) => t.outcome !== 'met' && ['hold', 'reps', 'form'].includes(t.test.kind ?? ''),
    ),
  );

  async function record(index: number, test: Schemas['ReadinessTest']) {
    delete refusals[index];
    const id = (ids[index] ??= newId());
    try {
      if (test.kind === 'form') {
        const body = {
          id,
          stage: gate.stage,
          side: gate.side,
          ticked: Object.keys(ticked).filter((k) => ticked[k]),
        };
        await ask(
          api.POST('/api/v1/students/{studentId}/skills/{ladder}/form-checks', { params: { path }, body }),
        );
      } else if (test.kind === 'hold' || test.kind === 'reps') {
        const value = parseNumber(typed[index] ?? '');
        const field = test.kind === 'hold' ? 'seconds' : 'cleanReps';
        if (value === null || Number.isNaN(value))
          throw new Refusal(422, 'notANumber', [{ code: value === null ? 'required' : 'notANumber', field }]);
        await ask(
          api.POST('/api/v1/students/{studentId}/skills/{ladder}/bench-sets', {
            params: { path },
            body: {
              id,
              drill: test.drill,
              variant: test.variant,
              side: gate.side,
              seconds: test.kind === 'hold' ? value : null,
              cleanReps: test.kind === 'reps' ? value : null,
              quality: quality[index] ? Number(quality[index]) : null,
              at: null,
            },
          }),
        );
      }
      delete ids[index];
      typed[index] = '';
      await student.load();
    } catch (error) {
      refusals[index] = error as Refusal;
    }
  }
</script>

{#if account.mayWrite && open.length}
  <section class="ruled mt-6 border-t pt-4" aria-label="Write down for {gate.side}">
    <h2 class="mb-3">Seen just now on {gate.side}?</h2>
    {#each open as [index, { test }] (index)}
      <form
        class="mb-4 grid gap-2"
        novalidate
        onsubmit={(event) => {
          event.preventDefault();
          void record(index, test);
        }}
      >
        {#if test.kind === 'form'}
          <p class="text-sm font-semibold">Form, all at one sitting</p>
          {#each test.items as item (item.key)}
            <label class="flex items-center gap-2">
              <input type="checkbox" class="checkbox checkbox-sm" bind:checked={ticked[item.key]} />
              {item.name}
            </label>
          {/each}
          <button class="btn btn-outline btn-sm justify-self-start">Write the form down</button>
        {:else if test.kind === 'hold' || test.kind === 'reps'}
          <Field
            label={testName(test)}
            hint="{asks(test)}{test.kind === 'hold' ? ', a minute or more apart' : ''}"
            error={fieldText(refusals[index], 'seconds') ?? fieldText(refusals[index], 'cleanReps')}
          >
            {#snippet children({ id, describedBy, invalid })}
              <div class="flex gap-2">
                <input
                  {id}
                  class="input w-24"
                  inputmode="decimal"
                  placeholder={test.kind === 'hold' ? 'seconds' : 'clean'}
                  aria-describedby={describedBy}
                  aria-invalid={invalid}
                  bind:value={typed[index]}
                />
                {#if test.kind === 'hold' && test.quality}
                  <select class="select w-28" aria-label="Quality" bind:value={quality[index]}>
                    <option value="">quality</option>
                    {#each [1, 2, 3, 4, 5] as q (q)}<option value={String(q)}>{q} of 5</option>{/each}
                  </select>
                {/if}
                <button class="btn btn-outline">Write down</button>
              </div>
            {/snippet}
          </Field>
        {/if}
        {#if refusals[index] && !refusals[index].problems.length}<p class="text-error text-sm" role="alert">
            {pageText(refusals[index].code)}
          </p>{/if}
      </form>
    {/each}
  </section>
{/if}
