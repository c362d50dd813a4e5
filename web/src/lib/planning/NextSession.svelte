<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import { fieldText, pageText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';
  import type { OpenStudent } from '$lib/students/student.svelte';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  let typed = $state<string>();
  const minutes = $derived(typed ?? String(student.page!.student.student.sessionMinutes));
  let refusal = $state<Refusal>();
  let busy = $state(false);
  let id = newId();
  const waiting = $derived(
    student.page!.nextSession?.skill === student.skill?.skill ? student.page!.nextSession : undefined,
  );
  const uid = $props.id();

  async function make(event: SubmitEvent) {
    event.preventDefault();
    const value = parseNumber(minutes);
    refusal = undefined;
    if (value === null || Number.isNaN(value)) {
      refusal = new Refusal(422, 'notANumber', [{ code: 'notANumber', field: 'minutes' }]);
      return;
    }
    busy = true;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/sessions', {
          params: { path: { studentId: student.id } },
          body: { id, date: null, minutes: Math.round(value), skill: student.skill?.skill ?? null },
        }),
      );
      await goto(resolve('/sessions/[id]', { id }));
    } catch (error) {
      refusal = error as Refusal;
      id = newId();
    } finally {
      busy = false;
    }
  }
</script>

<div class="ruled border-t pt-3">
  {#if waiting}
    <p class="mb-2">
      <a class="link-line font-semibold" href={resolve('/sessions/[id]', { id: waiting.id })}
        >Open the session that is waiting</a
      >
    </p>
  {/if}
  {#if account.mayWrite}
    <form class="flex flex-wrap items-end gap-2" onsubmit={make} novalidate>
      <div>
        <label class="block text-sm font-semibold" for="{uid}-minutes">Minutes</label>
        <input
          id="{uid}-minutes"
          class="input w-20"
          inputmode="numeric"
          aria-invalid={!!refusal}
          bind:value={() => minutes, (text) => (typed = text)}
        />
      </div>
      <button class={['btn', waiting ? 'btn-outline' : 'btn-primary']} disabled={busy}
        >Make the next session</button
      >
    </form>
    {#if refusal}
      <p class="text-error mt-1 text-sm font-semibold" role="alert">
        {fieldText(refusal, 'minutes') ?? pageText(refusal.code)}
      </p>
    {/if}
  {/if}
</div>
