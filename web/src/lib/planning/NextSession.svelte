<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { minutes as inMinutes, today } from '$lib/parts/format';
  import { fieldText, pageText, problemText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';
  import { skillNames } from './phases';
  import type { OpenStudent } from '$lib/students/student.svelte';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  let typed = $state<string>();
  const minutes = $derived(typed ?? String(student.page!.student.student.sessionMinutes));
  let refusal = $state<Refusal>();
  let busy = $state(false);
  let second = $state(false);
  let id = newId();
  /** The student's other ladders, in the order in which they were ticked. */
  let beside = $state<string[]>([]);
  const others = $derived(
    student
      .page!.skills.map((s) => s.skill)
      .filter((s) => s !== (student.skill?.skill ?? student.page!.skills[0]?.skill)),
  );
  const next = $derived(student.page!.nextSession);
  /** The day has it already: another one is beside it, and that is said. */
  const todays = $derived(next && next.date === today() ? next : undefined);
  const waiting = $derived(todays ?? (next?.skill === student.skill?.skill ? next : undefined));
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
          body: {
            id,
            date: null,
            minutes: Math.round(value),
            skill: student.skill?.skill ?? null,
            beside: beside.filter((s) => others.includes(s)),
            second: !!todays,
          },
        }),
      );
      await goto(resolve('/sessions/[id]', { id }));
    } catch (error) {
      refusal = error as Refusal;
      id = newId();
      // Somebody else has made one meanwhile: it is shown, and another one is asked for by that name.
      if (refusal.problems[0]?.code === 'dayHasSession') {
        await student.load();
        student.heard++;
        second = true;
      }
    } finally {
      busy = false;
    }
  }
</script>

<div class="ruled border-t pt-3">
  {#if waiting}
    <p class="mb-2">
      <a
        class={todays ? 'btn btn-primary me-2' : 'link-line font-semibold'}
        href={resolve('/sessions/[id]', { id: waiting.id })}
        >{todays ? 'Open today’s session' : 'Open the session that is waiting'}</a
      >
      {#if todays}
        <span class="text-quiet"
          >{skillNames(todays.skill, todays.beside)}, {inMinutes(todays.totalSeconds)} min</span
        >
      {/if}
    </p>
  {/if}
  {#if account.mayWrite && todays}
    <details bind:open={second}>
      <summary class="cursor-pointer text-sm font-semibold">A second one for today</summary>
      <div class="pt-2">{@render form()}</div>
    </details>
  {:else if account.mayWrite}
    {@render form()}
  {/if}
</div>

{#snippet form()}
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
    {#if others.length}
      <fieldset class="basis-full">
        <legend class="text-sm font-semibold">With it, in the same session</legend>
        <div class="flex flex-wrap gap-x-4 gap-y-1">
          {#each others as other (other)}
            {@const at = beside.indexOf(other)}
            <label class="flex min-h-9 items-center gap-2">
              <input
                class="checkbox checkbox-sm"
                type="checkbox"
                checked={at >= 0}
                disabled={at < 0 && beside.length >= 2}
                onchange={() => (beside = at >= 0 ? beside.filter((s) => s !== other) : [...beside, other])}
              />
              {catalogue.ladder(other).name}
            </label>
          {/each}
        </div>
        <p class="text-quiet text-sm">
          Two skills from 40 minutes, three from 60. What comes first here gets most.
        </p>
      </fieldset>
    {/if}
    <button class={['btn', waiting ? 'btn-outline' : 'btn-primary']} disabled={busy}
      >{todays ? 'Make a second one' : 'Make the next session'}</button
    >
  </form>
  {#if refusal}
    <p class="text-error mt-1 text-sm font-semibold" role="alert">
      {fieldText(refusal, 'minutes') ??
        (refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code))}
    </p>
  {/if}
{/snippet}
