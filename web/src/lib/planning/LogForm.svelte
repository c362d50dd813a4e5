<script lang="ts">
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { Draft, draftKey } from '$lib/parts/draft.svelte';
  import Field from '$lib/parts/Field.svelte';
  import { shortDay } from '$lib/parts/format';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText, problemText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { signalName, signalKinds } from '$lib/students/tags';
  import { asPlanned, blankLog, isChanged, partsOf, readLog } from './log';
  import LogRow from './LogRow.svelte';

  interface Props {
    sheet: Schemas['SessionSheet'];
  }

  let { sheet }: Props = $props();
  const parts = untrack(() => partsOf(sheet));
  const draft = untrack(() => new Draft(draftKey('log', sheet.id), blankLog()));
  // A draft of before has no numbers of single rounds.
  for (const { part } of parts)
    draft.value.parts[part.id] = { ...asPlanned(), ...draft.value.parts[part.id] };
  let refusal = $state<Refusal>();
  let busy = $state(false);
  const exceptions = $derived(parts.filter(({ part }) => isChanged(draft.value.parts[part.id])).length);
  const problemOf = (field: string) => {
    const found = refusal?.problems.find((p) => p.field === field);
    return found && problemText(found);
  };

  async function log(event: SubmitEvent) {
    event.preventDefault();
    const { body, problems } = readLog($state.snapshot(draft.value), sheet);
    refusal = undefined;
    if (problems.length) {
      refusal = new Refusal(422, problems[0]!.code, problems);
      return;
    }
    busy = true;
    try {
      await ask(
        api.POST('/api/v1/sessions/{sessionId}/log', { params: { path: { sessionId: sheet.id } }, body }),
      );
      draft.forget();
      await goto(resolve('/sessions/[id]', { id: sheet.id }));
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

<form class="grid max-w-3xl gap-5 px-5 py-5 lg:px-7" onsubmit={log} novalidate>
  <div>
    <h1 class="wrap-break-word">Log the lesson of {sheet.studentName}</h1>
    <p class="text-quiet mt-1">
      {shortDay(sheet.plan.date)}. Untick what was not done, change a number where it was another one.
      <a class="link-line" href={resolve('/sessions/[id]', { id: sheet.id })}>Back to the sheet</a>
    </p>
  </div>
  {#if sheet.endedAt}
    <Notice tone="caution">{pageText('sessionOver')}</Notice>
  {:else}
    <div class="flex flex-wrap items-end gap-4">
      <button class="btn btn-accent btn-lg" disabled={busy}
        >{exceptions ? `Log it: as planned, except ${exceptions}` : 'Log it as planned'}</button
      >
      <TextField
        label="It ended at"
        type="datetime-local"
        hint="By the studio’s clock. Now, when empty."
        width="w-56"
        error={fieldText(refusal, 'endedAt')}
        bind:value={draft.value.endedAt}
        oninput={() => draft.keep()}
      />
    </div>
    {#if refusal}
      <Notice tone="error">
        {refusal.problems.length
          ? 'Something below cannot stand: see what is marked. Nothing was logged yet.'
          : pageText(refusal.code)}
        {problemOf('id')}
      </Notice>
    {/if}
    <ul class="ruled border-t" aria-label="What was planned">
      {#each parts as { part, planned } (part.id)}
        <LogRow
          {part}
          {planned}
          problem={problemOf(`parts.${part.id}`)}
          bind:said={draft.value.parts[part.id]!}
          onchange={() => draft.keep()}
        />
      {/each}
    </ul>
    <section aria-label="What the body said">
      <h2 class="mb-2">What the body said</h2>
      {#each draft.value.signals as said, i (i)}
        <div class="mb-2 flex flex-wrap items-center gap-2">
          <select
            class="select w-56"
            aria-label="Signal {i + 1}"
            bind:value={said.signal}
            onchange={() => draft.keep()}
          >
            <option value="">What?</option>
            {#each signalKinds as kind (kind)}<option value={kind}>{signalName(kind)}</option>{/each}
          </select>
          <select
            class="select w-48"
            aria-label="Where, signal {i + 1}"
            bind:value={said.place}
            onchange={() => draft.keep()}
          >
            <option value="">Where?</option>
            {#each catalogue.content!.places as place (place.key)}<option value={place.key}
                >{place.name}</option
              >{/each}
          </select>
          <select
            class="select w-36"
            aria-label="Side, signal {i + 1}"
            bind:value={said.side}
            onchange={() => draft.keep()}
          >
            <option value="">No side</option>
            <option value="left">Left</option>
            <option value="right">Right</option>
          </select>
          <input
            class="input w-28"
            inputmode="numeric"
            aria-label="Pain of 10, signal {i + 1}"
            placeholder="pain, 0–10"
            bind:value={said.pain}
            oninput={() => draft.keep()}
          />
          <button
            type="button"
            class="btn btn-ghost btn-sm"
            onclick={() => {
              draft.value.signals.splice(i, 1);
              draft.keep();
            }}>Take it out</button
          >
          {#if problemOf(`signals.${i}`)}<p class="text-error text-sm font-semibold">
              {problemOf(`signals.${i}`)}
            </p>{/if}
        </div>
      {/each}
      <button
        type="button"
        class="btn btn-outline btn-sm"
        onclick={() => draft.value.signals.push({ signal: '', place: '', side: '', pain: '' })}
        >Pain or another signal</button
      >
    </section>
    <Field label="For the start of the next session" error={fieldText(refusal, 'carryOver')}>
      {#snippet children({ id, describedBy, invalid })}
        <textarea
          {id}
          class="textarea w-full"
          rows="2"
          maxlength="2000"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          bind:value={draft.value.carryOver}
          oninput={() => draft.keep()}></textarea>
      {/snippet}
    </Field>
  {/if}
</form>
