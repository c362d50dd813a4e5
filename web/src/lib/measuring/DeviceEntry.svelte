<script lang="ts">
  import { number, withUnit } from '$lib/parts/format';
  import type { Bench } from './bench.svelte';
  import type { Place } from './entry';
  import Dial from './Dial.svelte';
  import type { Device } from './device.svelte';

  interface Props {
    bench: Bench;
    place: Place;
    device: Device;
    error?: string;
  }

  let { bench, place, device, error }: Props = $props();
  const mine = $derived(place.side === null || bench.side === place.side);
  const says = $derived(
    device.state === 'lost'
      ? 'The device is lost. It is tried again; what you captured is kept.'
      : device.state === 'connecting'
        ? 'Connecting to the device…'
        : device.stableDeg !== undefined
          ? 'Stands still.'
          : 'Settling…',
  );
</script>

{#if mine}
  <div class="grid justify-items-start gap-1">
    <div class="flex items-center gap-4">
      <div class="w-40 shrink-0">
        <Dial
          angleDeg={device.angleDeg}
          stable={device.stableDeg !== undefined}
          min={bench.measure.min}
          max={bench.measure.max}
        />
      </div>
      <div>
        <p class="figures text-4xl tabular-nums">
          {device.angleDeg === undefined ? '–' : withUnit(device.angleDeg, '°')}
        </p>
        <p role="status" class={['text-sm', device.state === 'lost' && 'text-error font-semibold']}>{says}</p>
      </div>
    </div>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <button class="btn btn-outline" disabled={device.state !== 'live'} onclick={() => device.capture()}
        >Capture <kbd class="kbd kbd-xs">Space</kbd></button
      >
      <label class="flex items-center gap-2 text-sm">
        <input type="checkbox" class="checkbox checkbox-sm" bind:checked={device.auto} /> by itself when it stands
        still
      </label>
    </div>
    {#if error}<p class="text-error text-sm font-semibold">{error}</p>{/if}
  </div>
{:else}
  <button class="btn btn-outline" onclick={() => place.side && bench.choose(place.side)}
    >Read this side</button
  >
  {#if bench.entry(place).trials.length}
    <p class="text-quiet mt-1 text-sm">Last {number(bench.entry(place).trials.at(-1)!)}°</p>
  {/if}
{/if}
