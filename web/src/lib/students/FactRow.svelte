<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { dayAndTime } from '$lib/parts/format';
  import { fieldText, pageText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { undo } from '$lib/parts/undo.svelte';
  import { parseNumber } from './body';
  import { factText, fieldsOf } from './facts';
  import { placeName, places } from './tags';

  interface Props {
    student: string;
    line: Schemas['FactLine'];
    onchange: () => void;
  }

  let { student, line, onchange }: Props = $props();
  const names = {
    seconds: 'Seconds',
    cleanReps: 'Repetitions',
    quality: 'Quality, 1 to 5',
    region: 'Where',
    pain: 'Pain, of 10',
    safe: 'Safe',
    times: 'Of so many',
  };
  const fields = $derived(fieldsOf(line));
  const was = (field: (typeof fields)[number]) => line.now?.[field] ?? line[field] ?? '';
  let open = $state(false);
  let typed = $state<Record<string, string>>({});
  let reason = $state('');
  let refusal = $state<Refusal>();

  async function send(instead: Schemas['Instead'] | null, why: string): Promise<boolean> {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/corrections', {
          params: { path: { studentId: student } },
          body: { id: newId(), what: line.what, of: line.id, reason: why, instead },
        }),
      );
      open = false;
      onchange();
      return true;
    } catch (error) {
      refusal = error as Refusal;
      return false;
    }
  }

  async function correct(event: SubmitEvent) {
    event.preventDefault();
    const changed = Object.entries(typed).filter(
      ([field, value]) => value !== String(was(field as (typeof fields)[number])),
    );
    const instead: Record<string, number | string> = {};
    for (const [field, value] of changed) {
      const number = field === 'region' ? value : parseNumber(value);
      if (number === null || Number.isNaN(number)) {
        refusal = new Refusal(422, 'notANumber', [{ code: 'notANumber', field }]);
        return;
      }
      instead[field] = number;
    }
    await send(
      { ...(instead as Schemas['Instead']), ...(line.what === 'set' ? { confirmed: true } : {}) },
      reason,
    );
  }

  async function strike() {
    const what = factText(line);
    if (await send(null, reason))
      undo.offer(`Struck out: ${what}.`, async () => {
        if (!(await send({}, 'Undone at once.'))) throw refusal!;
      });
  }
</script>

<li class="ruled border-b py-2">
  <div class="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
    <span class="min-w-0 wrap-break-word">
      {#if line.gone}
        <s>{factText(line)}</s>
        <span class="text-quiet">counts for nothing</span>
      {:else if line.now && factText(line, line.now) !== factText(line)}
        <s class="text-quiet">{factText(line)}</s>
        {factText(line, line.now)}
      {:else}{factText(line)}{/if}
      {#if line.underBar}<span class="text-sm">done under a bar: counts for no gate</span>{/if}
      {#if line.doubled && !line.now?.confirmed}<span class="text-sm"
          >another device ran this session too: counts for no gate until you save a correction</span
        >
      {:else if !line.confirmed && !line.now?.confirmed}<span class="text-quiet text-sm"
          >practice, not confirmed</span
        >{/if}
    </span>
    <span class="flex items-baseline gap-3">
      <span class="text-quiet text-sm"
        >{dayAndTime(line.at)}{line.heardAt ? `, told ${dayAndTime(line.heardAt)}` : ''} · {line.by}</span
      >
      {#if account.mayWrite && (line.mayBeTakenBack || line.gone)}
        <button class="btn btn-ghost btn-sm" aria-expanded={open} onclick={() => (open = !open)}
          >Correct…<span class="sr-only"> {factText(line, line.now ?? null)}</span></button
        >
      {/if}
    </span>
  </div>
  {#each line.corrections ?? [] as said, i (i)}
    {#if said.reason.length >= 10 || line.what === 'reading'}
      <p class="text-quiet text-sm">
        {dayAndTime(said.at)}, {said.by}: “{said.reason}”{said.gone ? ' Struck out.' : ''}
      </p>
    {/if}
  {/each}
  {#if open}
    <form class="mt-2 grid gap-3" onsubmit={correct} novalidate>
      <div class="flex flex-wrap gap-3">
        {#each line.gone ? [] : fields as field (field)}
          {#if field === 'region'}
            <Field label={names[field]}>
              {#snippet children({ id, describedBy })}
                <select
                  {id}
                  class="select w-52"
                  aria-describedby={describedBy}
                  value={typed[field] ?? was(field)}
                  onchange={(e) => (typed[field] = e.currentTarget.value)}
                >
                  {#each places as place (place)}<option value={place}>{placeName(place)}</option>{/each}
                </select>
              {/snippet}
            </Field>
          {:else}
            <TextField
              label={names[field]}
              width="w-36"
              inputmode="decimal"
              error={fieldText(refusal, field)}
              bind:value={() => typed[field] ?? String(was(field)), (value) => (typed[field] = value)}
            />
          {/if}
        {/each}
        <TextField label="Why?" width="w-80" error={fieldText(refusal, 'reason')} bind:value={reason} />
      </div>
      <div class="flex flex-wrap gap-2">
        {#if line.gone}
          <button type="button" class="btn btn-sm btn-primary" onclick={() => void send({}, reason)}
            >It stands again</button
          >
        {:else}
          {#if fields.length}<button class="btn btn-sm btn-primary">Save the correction</button>{/if}
          {#if line.mayBeTakenBack}
            <button type="button" class="btn btn-sm btn-outline" onclick={strike}>Strike it out</button>
          {/if}
          {#if line.what === 'signal'}
            <button type="button" class="btn btn-sm btn-outline" onclick={() => void send({}, reason)}
              >It stands as it is</button
            >
          {/if}
        {/if}
        <button type="button" class="btn btn-sm btn-ghost" onclick={() => (open = false)}>Leave it</button>
      </div>
      {#if refusal && !refusal.problems.length}<p class="text-error text-sm" role="alert">
          {pageText(refusal.code)}
        </p>{/if}
    </form>
  {/if}
</li>
