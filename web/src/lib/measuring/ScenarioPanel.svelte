<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ask, Refusal, type FieldProblem, type Schemas } from '$lib/api/client';
  import { problemText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';

  interface Props {
    scenario: Schemas['InclinometerScenario'];
  }

  let { scenario }: Props = $props();
  const fields = [
    { key: 'trueDeg', label: 'True angle, °' },
    { key: 'tremorDeg', label: 'Tremor, °' },
    { key: 'driftDegPerMinute', label: 'Drift, ° a minute' },
    { key: 'settleSeconds', label: 'Settles in, s' },
  ] as const;
  let typed = $state(
    untrack(() => Object.fromEntries(fields.map((f) => [f.key, String(scenario[f.key])]))) as Record<
      (typeof fields)[number]['key'],
      string
    >,
  );
  let droppedOut = $state(untrack(() => scenario.droppedOut));
  let problems = $state<FieldProblem[]>([]);

  async function set() {
    const numbers = fields.map((f) => [f.key, parseNumber(typed[f.key])] as const);
    problems = numbers
      .filter(([, value]) => value === null || Number.isNaN(value))
      .map(([field]) => ({ code: 'notANumber', field }));
    if (problems.length) return;
    try {
      await ask(
        api.PUT('/api/v1/instruments/inclinometer/scenario', {
          body: {
            ...(Object.fromEntries(numbers) as Omit<Schemas['InclinometerScenario'], 'droppedOut'>),
            droppedOut,
          },
        }),
      );
    } catch (error) {
      problems = (error as Refusal).problems;
    }
  }

  const errorAt = (field: string) => problems.find((p) => p.field === field);
</script>

<details class="ruled mt-6 border-t pt-3">
  <summary class="cursor-pointer text-sm font-semibold">Demo: what the simulated inclinometer lies on</summary
  >
  <form
    class="mt-2 flex flex-wrap items-end gap-3"
    novalidate
    onsubmit={(event) => {
      event.preventDefault();
      void set();
    }}
  >
    {#each fields as f (f.key)}
      <label class="grid gap-1 text-sm">
        {f.label}
        <input
          class="input input-sm w-28"
          inputmode="decimal"
          aria-invalid={!!errorAt(f.key)}
          bind:value={typed[f.key]}
        />
        {#if errorAt(f.key)}<span class="text-error font-semibold">{problemText(errorAt(f.key)!)}</span>{/if}
      </label>
    {/each}
    <label class="flex items-center gap-2 pb-2 text-sm">
      <input type="checkbox" class="checkbox checkbox-sm" bind:checked={droppedOut} onchange={set} /> dropped out
    </label>
    <button class="btn btn-outline btn-sm">Set</button>
  </form>
</details>
