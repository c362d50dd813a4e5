<script lang="ts">
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import TextField from '$lib/parts/TextField.svelte';
  import { number } from '$lib/parts/format';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import PolicyChart from '$lib/skills/PolicyChart.svelte';
  import { parseNumber } from '$lib/students/body';

  /** Whole days, five lines or so, past the longest. */
  function daysUpTo(longest: number): number[] {
    const step = Math.max(1, Math.ceil(longest / 5));
    return Array.from({ length: Math.max(2, Math.ceil(longest / step)) + 1 }, (_, i) => i * step);
  }

  const fields = [
    { key: 'z', label: 'z of one test', hint: 'Shipped: 1.28, 90 % one-sided.' },
    { key: 'confirmingTests', label: 'Confirming tests', hint: '2: two in a row; 0: none.' },
    { key: 'confirmingHours', label: 'Hours between them', hint: 'Shipped: 40.' },
    { key: 'trialsPerTest', label: 'Trials a test', hint: 'For all three.' },
    { key: 'tauOfSem', label: 'Noise by day, SEM', hint: 'Catalogue: 0.5.' },
    { key: 'testDays', label: 'Test days', hint: 'Two days apart.' },
  ] as const;
  let typed = $state<Record<(typeof fields)[number]['key'], string>>({
    z: '1.64',
    confirmingTests: '2',
    confirmingHours: '40',
    trialsPerTest: '3',
    tauOfSem: '0.5',
    testDays: '6',
  });
  let result = $state<Schemas['PolicyResponse']>();
  let refusal = $state<Refusal>();
  let busy = $state(false);

  async function run(event?: SubmitEvent) {
    event?.preventDefault();
    const n = (key: keyof typeof typed) => parseNumber(typed[key]) ?? NaN;
    const wrong = fields.filter((f) => Number.isNaN(n(f.key)));
    refusal = wrong.length
      ? new Refusal(
          422,
          'notANumber',
          wrong.map((f) => ({ code: 'notANumber', field: f.key })),
        )
      : undefined;
    if (refusal) return;
    busy = true;
    try {
      result = await ask(
        api.POST('/api/v1/compute/policy', {
          body: {
            own: {
              z: n('z'),
              confirmingTests: Math.round(n('confirmingTests')),
              confirmingHours: n('confirmingHours'),
            },
            trial: {
              trialsPerTest: Math.round(n('trialsPerTest')),
              tauOfSem: n('tauOfSem'),
              testDays: Math.round(n('testDays')),
              students: 2000,
              seed: 20260303,
            },
          },
        }),
      );
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }

  void run();

  const lines = $derived(
    result && [
      { key: 'naive', name: 'Believe the reading', points: result.naive },
      { key: 'shipped', name: 'Shipped', points: result.shipped },
      { key: 'own', name: 'Your variant', points: result.own },
    ],
  );
  const at = (points: Schemas['PolicyPoint'][], distance: number) =>
    points.find((p) => p.distanceSem === distance)!;
  const percent = (share: number) => `${number(share * 100, 1)} %`;
</script>

<svelte:head><title>Policy bench · Tensarch</title></svelte:head>

<main class="max-w-6xl p-5 lg:p-7">
  <h1 class="mb-1">Policy bench</h1>
  <p class="text-quiet mb-5 max-w-prose">
    How strict should a gate be with noise? Two thousand simulated students at each distance from the line,
    read with the catalogue’s noise and judged by the gate’s own rule. The same seed each time.
  </p>
  <form
    class="mb-6 grid grid-cols-2 items-start gap-3 md:grid-cols-4 xl:grid-cols-7"
    onsubmit={run}
    novalidate
  >
    {#each fields as f (f.key)}
      <TextField
        label={f.label}
        hint={f.hint}
        error={fieldText(refusal, f.key)}
        inputmode="decimal"
        bind:value={typed[f.key]}
      />
    {/each}
    <button class="btn btn-primary mt-5" disabled={busy}>{busy ? 'Running…' : 'Run'}</button>
  </form>
  {#if refusal && !refusal.problems.length}<Notice tone="error">{pageText(refusal.code)}</Notice>{/if}
  {#if lines && result}
    <div class="grid gap-8 lg:grid-cols-2">
      <PolicyChart
        title="Passed within {result.trial.testDays} test days"
        about="Left of the line, every pass is a false one."
        {lines}
        value={(p) => p.passWithin.at(-1)!}
        ticks={[0, 0.25, 0.5, 0.75, 1]}
        show={(share) => `${number(100 * share, 0)} %`}
      />
      <PolicyChart
        title="Days until the ready pass"
        about="Mean, from the first test day, of those who pass."
        lines={lines.map((l) => ({ ...l, points: l.points.filter((p) => p.distanceSem >= 0) }))}
        value={(p) => p.meanDelayDays ?? undefined}
        ticks={daysUpTo(
          Math.max(
            ...lines.flatMap((l) =>
              l.points.filter((p) => p.distanceSem >= 0).map((p) => p.meanDelayDays ?? 0),
            ),
          ),
        )}
        show={(days) => `${number(days, 0)} d`}
      />
    </div>
    <table class="mt-6 w-full max-w-3xl text-sm">
      <caption class="text-quiet pb-1 text-start">In figures, over {result.trial.testDays} test days</caption>
      <thead>
        <tr class="ruled border-b text-start">
          <th class="py-1 text-start">Policy</th>
          <th class="text-end">1.5 SEM short</th>
          <th class="text-end">1 SEM short</th>
          <th class="text-end">On the line</th>
          <th class="text-end">1.5 SEM past, in two days</th>
        </tr>
      </thead>
      <tbody class="figures">
        {#each lines as l (l.key)}
          <tr class="ruled border-b">
            <th class="py-1 text-start font-normal">{l.name}</th>
            <td class="text-end">{percent(at(l.points, -1.5).passAll!)}</td>
            <td class="text-end">{percent(at(l.points, -1).passAll!)}</td>
            <td class="text-end">{percent(at(l.points, 0).passAll!)}</td>
            <td class="text-end"
              >{percent(at(l.points, 1.5).passWithin[1] ?? at(l.points, 1.5).passWithin[0]!)}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</main>
