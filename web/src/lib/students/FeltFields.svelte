<script lang="ts">
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { feltName, feltText, type Felt } from './checkIn';

  interface Props {
    /** What may be said of a place. */
    kinds: Felt['kind'][];
    title: string;
    felt: Felt[];
  }

  let { kinds, title, felt = $bindable() }: Props = $props();
  const uid = $props.id();
  let adding = $state(false);
  let kind = $state<Felt['kind']>('sore');
  let place = $state('');
  let side = $state<'left' | 'right'>('left');
  let level = $state<number>();
  const places = catalogue.content!.places;
  const at = $derived(places.find((p) => p.key === place));
  const mine = $derived(felt.filter((f) => kinds.includes(f.kind)));
  const complete = $derived(at && (kind === 'injury' || level !== undefined));

  function begin() {
    [adding, kind, place, level] = [true, kinds[0]!, '', undefined];
  }

  function add() {
    felt = [...felt, { kind, place, side: at!.sided ? side : null, level: kind === 'injury' ? 0 : level! }];
    adding = false;
  }
</script>

<div>
  <div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
    <span class="font-semibold">{title}</span>
    {#each mine as one (one)}
      <span class="badge badge-outline h-auto py-1 wrap-anywhere">
        {feltText(one)}
        <button
          type="button"
          class="ms-1 cursor-pointer px-1 font-bold"
          aria-label="Take back: {feltText(one)}"
          onclick={() => (felt = felt.filter((f) => f !== one))}>×</button
        >
      </span>
    {:else}<span class="text-quiet text-sm">nowhere</span>{/each}
    {#if !adding}
      <button type="button" class="link-line text-sm" aria-label="Add a place: {title}" onclick={begin}
        >Add a place</button
      >
    {/if}
  </div>
  {#if adding}
    <div class="mt-2 grid max-w-xl gap-3 border-s-4 ps-3">
      <div class="flex flex-wrap gap-3">
        <label class="grid gap-1 text-sm" for="{uid}-place">
          <span class="font-semibold">Where?</span>
          <select id="{uid}-place" class="select select-sm w-52" bind:value={place}>
            <option value="" disabled>Choose</option>
            {#each places as p (p.key)}<option value={p.key}>{p.name}</option>{/each}
          </select>
        </label>
        {#if at?.sided}
          <label class="grid gap-1 text-sm" for="{uid}-side">
            <span class="font-semibold">Side</span>
            <select id="{uid}-side" class="select select-sm w-28" bind:value={side}>
              <option value="left">left</option>
              <option value="right">right</option>
            </select>
          </label>
        {/if}
        {#if kinds.length > 1}
          <label class="grid gap-1 text-sm" for="{uid}-kind">
            <span class="font-semibold">What is it?</span>
            <select id="{uid}-kind" class="select select-sm w-60" bind:value={kind}>
              {#each kinds as k (k)}<option value={k}>{feltName(k)}</option>{/each}
            </select>
          </label>
        {/if}
      </div>
      {#if kind !== 'injury'}
        <div role="group" aria-label="How much, of 10">
          <p class="mb-1 text-sm font-semibold">How much, of 10</p>
          <div class="flex flex-wrap gap-1">
            {#each Array.from({ length: 11 }, (_, i) => i) as n (n)}
              <button
                type="button"
                class={['btn btn-sm w-10', level === n ? 'btn-primary' : 'btn-outline']}
                aria-pressed={level === n}
                onclick={() => (level = n)}>{n}</button
              >
            {/each}
          </div>
        </div>
      {/if}
      <div class="flex gap-2">
        <button type="button" class="btn btn-sm btn-outline" disabled={!complete} onclick={add}>Add it</button
        >
        <button type="button" class="btn btn-sm btn-ghost" onclick={() => (adding = false)}>Cancel</button>
      </div>
    </div>
  {/if}
</div>
