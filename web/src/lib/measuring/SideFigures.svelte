<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { chosen, dayAndTime, number, shortDay, signed, withUnit } from '$lib/parts/format';
  import type { Bench } from './bench.svelte';
  import type { Place } from './entry';
  import { percent, valueOf } from './words';

  interface Props {
    bench: Bench;
    place: Place;
  }

  let { bench, place }: Props = $props();
  const measure = $derived(bench.measure);
  const live = $derived(bench.live[place.slot]);
  const preview = $derived(live?.preview);
  const unit = $derived(measure.unit);

  const outcomes: Record<Schemas['Outcome'], string> = {
    met: 'would be met',
    borderline: 'within noise',
    notMet: 'would not be met',
    stale: 'stale',
    noData: 'no data',
    blocked: 'barred',
  };
</script>

<dl class="mt-2 grid grid-cols-[6.5rem_minmax(0,1fr)] content-start gap-x-3 gap-y-1 text-sm">
  {#if preview}
    <dt class="text-quiet">{measure.kind === 'hold' ? 'Best' : 'Value'}</dt>
    <dd>
      {#if preview.rate}
        <span class="figures text-xl">{percent(preview.rate.share)}</span>
        <span class="block"
          >95 % of the time between {percent(preview.rate.lower95)} and {percent(preview.rate.upper95)}</span
        >
      {:else}
        <span class="figures text-xl">{withUnit(preview.value, unit)}</span>
        {#if measure.kind === 'range'}
          ± {number(preview.standardError, 2)}
          <span class="text-quiet block"
            >SEM {number(preview.sem, 2)}, {preview.semDof
              ? `from ${preview.semDof} of your own repeats`
              : 'the default'}</span
          >
          {#if preview.pooled}<span class="block"
              >One test with {preview.pooled.readings === 2 ? 'the reading' : 'the readings'} since {dayAndTime(
                preview.pooled.since,
              )}: {withUnit(preview.pooled.value, unit)} of {preview.pooled.trials} trials</span
            >{/if}
        {/if}
      {/if}
      {#if preview.disqualified}<strong class="block">Kept and shown, but it counts for no gate.</strong>{/if}
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
      {#if live?.across}
        {withUnit(live.across.value, unit)}, not saved yet.
        {live.across.weaker
          ? `${live.across.weaker === place.side ? 'This' : 'The other'} side is weaker`
          : 'No weaker side'}
        (noise {withUnit(live.across.mdc95, unit)})
      {:else if preview?.otherSide && measure.kind === 'range'}
        {withUnit(preview.otherSide.value, unit)},
        {shortDay(preview.otherSide.at)}. {preview.weaker
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
