<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { chosen, number, shortDay, signed, withUnit } from '$lib/parts/format';
  import { problemText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import type { Bench, Place } from './bench.svelte';
  import BlockEntry from './BlockEntry.svelte';
  import CountEntry from './CountEntry.svelte';
  import type { Device } from './device.svelte';
  import DeviceEntry from './DeviceEntry.svelte';
  import { captured } from './entry';
  import HoldEntry from './HoldEntry.svelte';
  import NumberEntry from './NumberEntry.svelte';
  import PictureEntry from './PictureEntry.svelte';
  import ReadingScale from './ReadingScale.svelte';
  import type { Stopwatch } from './stopwatch.svelte';
  import { instrumentNames, percent, valueOf } from './words';

  interface Props {
    bench: Bench;
    place: Place;
    device: Device | undefined;
    watch: Stopwatch;
    onpress: () => void;
  }

  let { bench, place, device, watch, onpress }: Props = $props();
  const measure = $derived(bench.measure);
  const entry = $derived(bench.entry(place));
  const live = $derived(bench.live[place.slot]);
  const preview = $derived(live?.preview);
  const unit = $derived(measure.unit);
  const problems = $derived(bench.problems[place.slot] ?? []);
  const problemAt = (field: string) => {
    const found = problems.find((p) => p.field === field);
    return found && problemText(found);
  };
  const rest = $derived(problems.find((p) => !['pain', 'sensation', 'quality', 'note'].includes(p.field)));
  const error = $derived(rest && problemText(rest));
  const byDevice = $derived(entry.instrument === 'inclinometer' && device !== undefined);
  const shown = $derived(preview?.trials ?? entry.trials);
  const best = $derived(measure.kind === 'hold' && shown.length > 1 ? preview?.value : undefined);
  const title = $derived(
    place.side
      ? `${place.side === 'left' ? 'Left' : 'Right'} ${measure.sideMeans ?? ''}`
      : 'Both sides at once',
  );

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
  class={[
    'min-w-0 border-t-4 pt-3',
    place.side === 'left' && 'border-left-side',
    place.side === 'right' && 'border-right-side',
    !place.side && 'border-base-content',
  ]}
  aria-label={place.side ? `${place.side === 'left' ? 'Left' : 'Right'} side` : 'Reading'}
>
  <div class="mb-2 flex flex-wrap items-center justify-between gap-2">
    <h3 class="text-xl">
      {#if place.side}<SideMark side={place.side} text={title} />{:else}{title}{/if}
    </h3>
    {#if measure.instruments.length > 1 && !place.taken}
      <select
        class="select select-sm w-36"
        aria-label="Instrument"
        value={entry.instrument}
        onchange={(event) => bench.use(place, event.currentTarget.value as Schemas['Instrument'])}
      >
        {#each measure.instruments as instrument (instrument)}
          <option value={instrument}
            >{instrument === 'inclinometer' && device ? 'Device' : instrumentNames[instrument]}</option
          >
        {/each}
      </select>
    {/if}
  </div>

  {#if place.taken}
    <p class="figures text-3xl">
      {valueOf(measure, place.taken)}
      {#if measure.kind === 'range'}<span class="text-quiet text-lg"
          >± {number(place.taken.standardError, 2)}</span
        >{/if}
    </p>
    <p class="text-quiet text-sm">
      Read in this sitting. A wrong one is voided under Readings, and taken again.
    </p>
  {:else}
    {#if measure.kind === 'rate'}
      <CountEntry {bench} {place} {error} />
    {:else if measure.kind === 'hold'}
      <HoldEntry {bench} {place} {watch} {onpress} {error} />
    {:else if entry.instrument === 'picture'}
      <PictureEntry {bench} {place} {error} />
    {:else if entry.instrument === 'blockStack' && measure.kind === 'range'}
      <BlockEntry {bench} {place} {error} />
    {:else if byDevice && device}
      <DeviceEntry {bench} {place} {device} {error} />
    {:else}
      <NumberEntry {bench} {place} {error} />
    {/if}

    {#if measure.kind !== 'rate'}
      <div
        class="figures mt-2 flex min-h-9 flex-wrap items-center gap-2 text-lg"
        role="group"
        aria-label="Trials taken{place.side ? `, ${place.side}` : ''}"
      >
        {#each shown as trial, i (i)}<span
            class={['ruled border px-2', trial === best && 'border-base-content border-2']}
            >{number(trial, 1)}</span
          >{/each}
        {#if captured(entry)}
          <button class="btn btn-ghost btn-sm font-sans text-sm" onclick={() => bench.drop(place)}
            >Drop last</button
          >
        {/if}
      </div>
    {:else if entry.hits.length}
      <button class="btn btn-ghost btn-sm" onclick={() => bench.drop(place)}>Drop last</button>
    {/if}
  {/if}

  {#if measure.kind === 'range'}
    <ReadingScale
      side={place.side}
      band={place.band}
      previous={place.previous?.value}
      value={preview?.value ?? place.taken?.value}
      error={preview?.standardError ?? place.taken?.standardError}
      other={preview?.otherSide?.value}
      lines={place.needs.map((n) => n.threshold)}
    />
  {/if}
  <dl class="mt-2 grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 gap-y-1 text-sm">
    {#if preview}
      <dt class="text-quiet">{measure.kind === 'hold' ? 'Best' : 'Value'}</dt>
      <dd>
        {#if preview.rate}
          <span class="figures text-xl">{percent(preview.rate.share)}</span>
          <span class="block"
            >95 % of the time between {percent(preview.rate.lower95)} and {percent(
              preview.rate.upper95,
            )}</span
          >
        {:else}
          <span class="figures text-xl">{withUnit(preview.value, unit)}</span>
          {#if measure.kind === 'range'}
            ± {number(preview.standardError, 2)}
            <span class="text-quiet block"
              >SEM {number(preview.sem, 2)}, {preview.semDof
                ? `${preview.semDof} of your own degrees of freedom`
                : 'the default'}</span
            >
          {/if}
        {/if}
        {#if preview.disqualified}<strong class="block">Kept and shown, but it counts for no gate.</strong
          >{/if}
      </dd>
    {/if}
    <dt class="text-quiet">Last {place.warmth}</dt>
    <dd>
      {#if place.previous}
        {valueOf(measure, place.previous)}, {shortDay(place.previous.takenAt)}
        {#if preview?.previous && measure.kind === 'range'}
          <span class="block">
            {signed(preview.previous.difference, unit)}: {preview.previous.detectable
              ? `more than the noise of ${withUnit(preview.previous.mdc95, unit)}`
              : `no detectable change (noise ${withUnit(preview.previous.mdc95, unit)})`}
          </span>
        {:else if place.band}
          <span class="block"
            >no change between {number(place.band.low)} and {withUnit(place.band.high, unit)}</span
          >
        {/if}
      {:else}none{/if}
    </dd>
    {#if place.side}
      <dt class="text-quiet">Other side</dt>
      <dd>
        {#if preview?.otherSide && measure.kind === 'range'}
          {withUnit(preview.otherSide.value, unit)}.
          {preview.weaker
            ? `${preview.weaker === place.side ? 'This' : 'The other'} side is weaker`
            : 'No weaker side'}
          (noise {withUnit(preview.otherSide.mdc95, unit)})
        {:else}
          {@const across = bench.places.find((p) => p.side !== place.side)}
          {@const known = across?.taken ?? across?.previous}
          {known ? `${valueOf(measure, known)}, ${shortDay(known.takenAt)}` : 'none'}
        {/if}
      </dd>
    {/if}
    {#if live?.splitAngleDeg != null}
      <dt class="text-quiet">Split angle</dt>
      <dd class="figures text-lg">{withUnit(live.splitAngleDeg, '°')}</dd>
    {/if}
    {#if live?.straddle}
      <dt class="text-quiet">Straddle</dt>
      <dd>
        <span class="figures text-lg">{withUnit(live.straddle.angleDeg, '°')}</span>, a gap of
        {withUnit(live.straddle.expectedGapCm, 'cm')} expected
      </dd>
    {/if}
    {#if preview?.straddle?.disagree}
      <dt class="text-quiet">Check</dt>
      <dd class="font-semibold">
        The gap is {signed(preview.straddle.differenceCm, 'cm')} from the {withUnit(
          preview.straddle.expectedGapCm,
          'cm',
        )} that the heel distance gives: one of the two is mis-measured.
      </dd>
    {/if}
    {#each place.needs as need, i (i)}
      {@const answer = live?.verdicts?.[i]?.answer}
      <dt class="text-quiet">Gate, {need.forSide} {need.stage}</dt>
      <dd>
        {need.comparison === 'atLeast' ? '≥' : '≤'}
        {chosen(need.threshold, unit)}
        {#if answer}
          <strong
            >{answer.reason === 'tooFewTrials' ? 'three trials are needed' : outcomes[answer.outcome]}</strong
          >
        {/if}
      </dd>
    {/each}
  </dl>

  {#if !place.taken}
    {#if measure.compensations.length}
      <fieldset class="mt-3">
        <legend class="text-sm font-semibold">Seen</legend>
        {#each measure.compensations as c (c.key)}
          <label class="flex items-center gap-2 py-0.5 text-sm">
            <input
              type="checkbox"
              class="checkbox checkbox-sm"
              checked={entry.compensations.includes(c.key)}
              onchange={() => bench.tick(place, c.key)}
            />
            <span
              >{c.name}{#if c.disqualifies && (!c.onlyStandard || c.onlyStandard === bench.standard)}<span
                  class="text-quiet">, does not count</span
                >{/if}</span
            >
          </label>
        {/each}
      </fieldset>
    {/if}
    <div class="mt-3 flex flex-wrap gap-3">
      {#if measure.mode === 'active'}
        <div role="radiogroup" aria-label="Quality" class="grid gap-1">
          <span class="text-sm font-semibold">Quality</span>
          <div class="join">
            {#each ['1', '2', '3', '4', '5'] as q (q)}
              <label class="join-item btn btn-sm has-checked:bg-base-content has-checked:text-base-100">
                <input
                  type="radio"
                  class="sr-only"
                  name="quality-{place.slot}"
                  value={q}
                  checked={entry.quality === q}
                  onchange={() => bench.rate(place, Number(q))}
                />{q}
              </label>
            {/each}
          </div>
        </div>
      {/if}
      {#each [{ key: 'sensation', label: 'Sensation, 0–10' }, { key: 'pain', label: 'Pain, 0–10' }] as const as f (f.key)}
        <Field label={f.label} error={problemAt(f.key)}>
          {#snippet children({ id, describedBy, invalid })}
            <input
              {id}
              class="input w-20"
              inputmode="numeric"
              aria-describedby={describedBy}
              aria-invalid={invalid}
              value={entry[f.key]}
              oninput={(event) => bench.change(place, { [f.key]: event.currentTarget.value })}
            />
          {/snippet}
        </Field>
      {/each}
      <div class="min-w-40 grow">
        <Field label="Note" error={problemAt('note')}>
          {#snippet children({ id, describedBy, invalid })}
            <input
              {id}
              class="input w-full"
              aria-describedby={describedBy}
              aria-invalid={invalid}
              value={entry.note}
              oninput={(event) => bench.change(place, { note: event.currentTarget.value })}
            />
          {/snippet}
        </Field>
      </div>
    </div>
  {/if}
</section>
