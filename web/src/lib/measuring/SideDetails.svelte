<script lang="ts">
  import Field from '$lib/parts/Field.svelte';
  import { capital } from '$lib/skills/sides';
  import { tagName } from '$lib/students/tags';
  import type { Bench } from './bench.svelte';
  import type { Place } from './entry';

  interface Props {
    bench: Bench;
    place: Place;
    /** What is wrong with a field, in words. */
    problemAt: (field: string) => string | undefined;
  }

  let { bench, place, problemAt }: Props = $props();
  const measure = $derived(bench.measure);
  const entry = $derived(bench.entry(place));
  const effect = $derived(entry.pain.trim() === '' ? undefined : bench.live[place.slot]?.preview?.pain);

  /** A digit is a quality in here alone: anywhere else it would be a stray one. */
  function digit(event: KeyboardEvent) {
    if (!/^[1-5]$/.test(event.key)) return;
    event.preventDefault();
    bench.rate(place, Number(event.key));
  }

  function told(key: 'sensation' | 'pain', value: string) {
    bench.change(place, { [key]: value });
    if (key === 'pain') void bench.look(place);
  }
</script>

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
              onkeydown={digit}
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
          oninput={(event) => told(f.key, event.currentTarget.value)}
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
{#if effect}
  <p class={['mt-2 text-sm', effect.isEvent && 'border-error border-s-4 ps-3 font-semibold']} role="status">
    {#if effect.isEvent}
      Above 3: this measure stops here. The pain is a fact of its own and stays, whatever becomes of the
      reading.
    {:else}Up to 3 is kept and watched.{/if}
    {#each effect.bars as bar (bar.tag)}
      {capital(tagName(bar.tag))} is {bar.level === 'offLimits' ? 'off limits' : 'light only'} with it.
    {/each}
  </p>
{/if}
