<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { chosen, number, shortDay, signed, withUnit } from '$lib/parts/format';
  import { problemText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import type { Bench } from './bench.svelte';

  interface Props {
    bench: Bench;
    side: Schemas['Side'];
  }

  let { bench, side }: Props = $props();
  const entry = $derived(bench.entry(side));
  const live = $derived(bench.live[bench.slot(side)]);
  const data = $derived(bench.of(side));
  const last = $derived(bench.warmth === 'warm' ? data.lastWarm : data.lastCold);
  const unit = $derived(bench.measure.unit);
  const problems = $derived(bench.problems[bench.slot(side)] ?? []);
  const trialProblem = $derived(problems.find((p) => p.field !== 'pain'));
  const painProblem = $derived(problems.find((p) => p.field === 'pain'));
  let field = $state<HTMLInputElement>();

  $effect(() => {
    if (bench.side === side && bench.index >= 0) field?.focus();
  });

  function typedKey(event: KeyboardEvent) {
    if (event.key === 'Enter') {
      event.preventDefault();
      void bench.enter(side);
    } else if (event.key === 'Backspace' && entry.typed === '' && entry.trials.length) {
      event.preventDefault();
      bench.dropTrial(side);
    }
  }

  const outcomes: Record<Schemas['Outcome'], string> = {
    met: 'would be met',
    borderline: 'within noise',
    notMet: 'would not be met',
    stale: 'stale',
    noData: 'no data',
    blocked: 'held',
  };
</script>

<section
  class={['min-w-0 border-t-4 pt-3', side === 'left' ? 'border-left-side' : 'border-right-side']}
  aria-label="{side === 'left' ? 'Left' : 'Right'} side"
>
  <h3 class="mb-2 text-xl">
    <SideMark {side} text="{side === 'left' ? 'Left' : 'Right'} {bench.measure.sideMeans ?? ''}" />
  </h3>
  <Field
    label="Trial {Math.min(entry.trials.length + 1, 5)}, {unit}"
    error={trialProblem && problemText(trialProblem)}
  >
    {#snippet children({ id, describedBy, invalid })}
      <div class="flex gap-2">
        <input
          bind:this={field}
          {id}
          class="input figures w-32 text-2xl"
          inputmode="decimal"
          autocomplete="off"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          value={entry.typed}
          oninput={(event) => bench.change(side, { typed: event.currentTarget.value })}
          onkeydown={typedKey}
          onfocus={() => bench.choose(side)}
        />
        <button class="btn btn-outline" onclick={() => bench.enter(side)}>Take</button>
      </div>
    {/snippet}
  </Field>
  <div
    class="figures mt-2 flex min-h-9 flex-wrap items-center gap-2 text-lg"
    role="group"
    aria-label="Trials taken, {side}"
  >
    {#each entry.trials as trial, i (i)}<span class="ruled border px-2">{number(trial, 1)}</span>{/each}
    {#if entry.trials.length}
      <button class="btn btn-ghost btn-sm font-sans text-sm" onclick={() => bench.dropTrial(side)}
        >Drop last</button
      >
    {/if}
  </div>

  <dl class="mt-3 grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 gap-y-1 text-sm">
    <dt class="text-quiet">Value</dt>
    <dd>
      {#if live?.preview}
        <span class="figures text-xl">{withUnit(live.preview.value, unit)}</span> ± {number(
          live.preview.standardError,
          2,
        )}
        {#if live.preview.disqualified}<strong class="block"
            >Kept and shown, but it counts for no gate.</strong
          >{/if}
      {:else}–{/if}
    </dd>
    <dt class="text-quiet">Last {bench.warmth}</dt>
    <dd>
      {#if last}
        {withUnit(last.value, unit)}, {shortDay(last.takenAt)}
        {#if live?.preview?.previous}
          <span class="block">
            {signed(live.preview.previous.difference, unit)}: {live.preview.previous.detectable
              ? `more than the noise of ${withUnit(live.preview.previous.mdc95, unit)}`
              : `no detectable change (noise ${withUnit(live.preview.previous.mdc95, unit)})`}
          </span>
        {/if}
      {:else}none{/if}
    </dd>
    <dt class="text-quiet">Other side</dt>
    <dd>
      {#if live?.preview?.otherSide}
        {withUnit(live.preview.otherSide.value, unit)}.
        {live.preview.weaker
          ? `${live.preview.weaker === side ? 'This' : 'The other'} side is weaker`
          : 'No weaker side'} (noise {withUnit(live.preview.otherSide.mdc95, unit)})
      {:else}–{/if}
    </dd>
    {#if live?.splitAngleDeg != null}
      <dt class="text-quiet">Split angle</dt>
      <dd class="figures text-lg">{withUnit(live.splitAngleDeg, '°')}</dd>
    {/if}
    {#each data.needs as need, i (i)}
      {@const answer = live?.verdicts?.[i]?.answer}
      <dt class="text-quiet">Gate, {need.forSide} {need.stage}</dt>
      <dd>
        {need.comparison === 'atLeast' ? '≥' : '≤'}
        {chosen(need.threshold, unit)}
        {#if answer}
          <strong class="block"
            >{answer.reason === 'tooFewTrials' ? 'three trials are needed' : outcomes[answer.outcome]}</strong
          >
        {/if}
      </dd>
    {/each}
  </dl>

  <fieldset class="mt-3">
    <legend class="text-sm font-semibold">Seen</legend>
    {#each bench.measure.compensations as c (c.key)}
      <label class="flex items-center gap-2 py-0.5 text-sm">
        <input
          type="checkbox"
          class="checkbox checkbox-sm"
          checked={entry.compensations.includes(c.key)}
          onchange={() => bench.tick(side, c.key)}
        />
        <span
          >{c.name}{#if c.disqualifies && (!c.onlyStandard || c.onlyStandard === bench.standard)}<span
              class="text-quiet">, does not count</span
            >{/if}</span
        >
      </label>
    {/each}
  </fieldset>
  <div class="mt-3 flex gap-3">
    <Field label="Pain, 0–10" error={painProblem && problemText(painProblem)}>
      {#snippet children({ id, describedBy, invalid })}
        <input
          {id}
          class="input w-20"
          inputmode="numeric"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          value={entry.pain}
          oninput={(event) => bench.change(side, { pain: event.currentTarget.value })}
        />
      {/snippet}
    </Field>
    <div class="grow">
      <Field label="Note">
        {#snippet children({ id })}
          <input
            {id}
            class="input w-full"
            value={entry.note}
            oninput={(event) => bench.change(side, { note: event.currentTarget.value })}
          />
        {/snippet}
      </Field>
    </div>
  </div>
</section>
