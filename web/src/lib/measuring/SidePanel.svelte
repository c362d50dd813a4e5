<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import { number } from '$lib/parts/format';
  import { problemText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import type { Bench } from './bench.svelte';
  import BlockEntry from './BlockEntry.svelte';
  import CountEntry from './CountEntry.svelte';
  import type { Device } from './device.svelte';
  import DeviceEntry from './DeviceEntry.svelte';
  import type { Place } from './entry';
  import HoldEntry from './HoldEntry.svelte';
  import NumberEntry from './NumberEntry.svelte';
  import PictureEntry from './PictureEntry.svelte';
  import ReadingScale from './ReadingScale.svelte';
  import SideDetails from './SideDetails.svelte';
  import TrialChips from './TrialChips.svelte';
  import SideFigures from './SideFigures.svelte';
  import type { Stopwatch } from './stopwatch.svelte';
  import { instrumentNames, valueOf } from './words';

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
</script>

<section
  class={[
    // The rows of both sides stand in line, however much one of them says.
    'grid min-w-0 content-start gap-y-2 border-t-4 pt-3 sm:row-span-6 sm:grid-rows-subgrid',
    place.side === 'left' && 'border-left-side',
    place.side === 'right' && 'border-right-side',
    !place.side && 'border-base-content',
  ]}
  aria-label={place.side ? `${place.side === 'left' ? 'Left' : 'Right'} side` : 'Reading'}
>
  <div class="flex flex-wrap items-center justify-between gap-2">
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

  <div>
    {#if place.taken}
      <p class="figures text-3xl">
        {valueOf(measure, place.taken)}
        {#if measure.kind === 'range'}<span class="text-quiet text-lg"
            >± {number(place.taken.standardError, 2)}</span
          >{/if}
      </p>
      <p class="text-quiet text-sm">
        Read in this sitting. A wrong one is voided, and taken again here:
        <a class="link-line" href={resolve('/students/[id]/readings', { id: bench.studentId })}>Readings</a>
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
    {/if}
  </div>
  <div>
    {#if place.taken}{:else if measure.kind !== 'rate'}
      <TrialChips {bench} {place} {shown} {best} odd={preview?.odd?.index} />
    {:else if entry.hits.length}
      <button class="btn btn-ghost btn-sm" onclick={() => bench.drop(place)}>Drop last</button>
    {/if}
  </div>
  <div>
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
  </div>
  <SideFigures {bench} {place} />
  <div>
    {#if !place.taken}<SideDetails {bench} {place} {problemAt} />{/if}
  </div>
</section>
