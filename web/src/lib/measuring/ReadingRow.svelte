<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import TextField from '$lib/parts/TextField.svelte';
  import { resolve } from '$app/paths';
  import { dayAndTime, number } from '$lib/parts/format';
  import { fieldText, pageText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { undo } from '$lib/parts/undo.svelte';
  import { faceNames, instrumentNames, levelName, percent, valueOf } from './words';

  interface Props {
    reading: Schemas['ReadingView'];
    studentId: string;
    /** Called when the reading was voided; without it, it is only shown. */
    onchange?: () => void;
  }

  let { reading, studentId, onchange }: Props = $props();
  const measure = $derived(catalogue.measure(reading.measure));
  const seen = $derived(
    reading.compensations.map((c) => measure.compensations.find((k) => k.key === c)?.name ?? c),
  );
  let voiding = $state(false);
  let reason = $state('');
  let refusal = $state<Refusal>();

  async function correct(instead: Schemas['Instead'] | null, why: string) {
    await ask(
      api.POST('/api/v1/students/{studentId}/corrections', {
        params: { path: { studentId } },
        body: { id: newId(), what: 'reading', of: reading.id, reason: why, instead },
      }),
    );
    onchange?.();
  }

  async function strike(event: SubmitEvent) {
    event.preventDefault();
    refusal = undefined;
    try {
      await correct(null, reason);
      voiding = false;
      undo.offer(`Void: ${measure.name}.`, () => correct({}, 'Undone at once.'));
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<li class={['ruled border-b py-2', (reading.voidReason || reading.disqualified) && 'text-quiet']}>
  <div
    class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 sm:grid-cols-[minmax(0,1fr)_8rem_9rem_auto]"
  >
    <span>
      {#if reading.side}<SideMark side={reading.side} />{/if}
      <strong>{measure.name}</strong>
      <span class="text-quiet text-sm"
        >{[
          levelName(measure, reading.level),
          reading.warmth,
          reading.standard,
          instrumentNames[reading.instrument],
        ]
          .filter(Boolean)
          .join(', ')}</span
      >
      {#if reading.student}
        <a
          class="link-line block text-sm"
          href={resolve('/students/[id]/readings', { id: reading.student.id })}>{reading.student.name}</a
        >
      {/if}
    </span>
    <span class={['figures text-end text-lg', reading.voidReason && 'line-through']}>
      {#if reading.unreadable}
        <span class="text-base font-normal">cannot be read</span>
      {:else}
        {valueOf(measure, reading)}
      {/if}
      {#if reading.unreadable}{:else if reading.rate}
        <span class="text-quiet block text-sm font-normal"
          >{percent(reading.rate.lower95)} to {percent(reading.rate.upper95)}</span
        >
      {:else if measure.kind === 'range'}
        <span class="text-quiet text-sm font-normal">± {number(reading.standardError, 2)}</span>
      {/if}
    </span>
    <span class="text-quiet text-sm sm:text-end">{dayAndTime(reading.takenAt)}</span>
    {#if account.mayWrite && onchange && !reading.voidReason}
      <button
        class="btn btn-ghost btn-sm justify-self-end"
        aria-expanded={voiding}
        onclick={() => (voiding = !voiding)}>Void…</button
      >
    {:else}<span></span>{/if}
  </div>
  {#if reading.unreadable && !reading.voidReason}
    <p class="text-sm">
      A stored value is out of every range: this counts for nothing. Void it, and read again.
    </p>
  {:else}
    <p class="text-quiet text-sm">
      {#if reading.trials.length}Trials {reading.trials
          .map((t) => number(t, 1))
          .join(', ')}{/if}{#if reading.stacks}
        · blocks {reading.stacks
          .map((s) => s.map((b) => faceNames[b.face]).join(' + ') || 'floor')
          .join('; ')}{/if}{#if measure.kind === 'range'}
        · SEM {number(reading.sem, 2)}, {reading.semDof
          ? `from ${reading.semDof} of your own repeats`
          : 'default'}{/if}{#if reading.confirmed}
        · unlikely, confirmed{/if}{#if reading.quality}
        · quality {reading.quality}{/if}{#if reading.pain}
        · pain {reading.pain}{/if}{#if seen.length}
        · {seen.join(', ')}{/if}{#if reading.disqualified}
        · counts for no gate{/if}{#if reading.note}
        · {reading.note}{/if}
    </p>
  {/if}
  {#if reading.voidReason}<p class="text-sm">Void: {reading.voidReason}</p>{/if}
  {#if voiding}
    <form class="mt-2 flex flex-wrap items-end gap-2" onsubmit={strike} novalidate>
      <TextField
        label="Why is this reading void?"
        error={fieldText(refusal, 'reason')}
        width="w-72"
        bind:value={reason}
      />
      <button class="btn btn-primary">Void the reading</button>
    </form>
    {#if refusal && !refusal.problems.length}<p class="text-error text-sm" role="alert">
        {pageText(refusal.code)}
      </p>{/if}
  {/if}
</li>
