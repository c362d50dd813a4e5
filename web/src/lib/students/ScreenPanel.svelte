<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import TextField from '$lib/parts/TextField.svelte';
  import { longDay } from '$lib/parts/format';
  import { fieldText, pageText } from '$lib/parts/problems';
  import type { OpenStudent } from './student.svelte';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  const screen = $derived(student.page!.screen);
  let asking = $state(false);
  let note = $state('');
  let refusal = $state<Refusal>();
  let id = newId();

  async function tell() {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/changes', {
          params: { path: { studentId: student.id } },
          body: { id, note },
        }),
      );
      [asking, note, id] = [false, '', newId()];
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<div class="mb-5">
  {#if screen.unasked.length && screen.state === 'current'}
    <p class="next-thing font-semibold">
      {screen.unasked.length === 1 ? 'One question is' : `${screen.unasked.length} questions are`} new since {longDay(
        screen.screenedOn!,
      )}: ask {screen.unasked.length === 1 ? 'it' : 'them'} at the next start. What is planned goes on until then.
    </p>
  {/if}
  {#if screen.state === 'notScreened'}
    <p class="next-thing font-semibold">Answer every question: nothing is planned before.</p>
  {:else if screen.state === 'due'}
    <p class="next-thing font-semibold">
      Six months are over since {longDay(screen.screenedOn!)}: go through the screen again. Nothing is planned
      before.
    </p>
  {:else if screen.state === 'somethingChanged'}
    <p class="next-thing font-semibold">
      Something changed: “{screen.changed}”. Go through the screen again. Nothing is planned before.
    </p>
  {:else}
    <p>
      Gone through on {longDay(screen.screenedOn!)}; again on {longDay(screen.dueOn!)}, or when something
      changes.
      {#if account.mayWrite && !asking}
        <button class="link-line" onclick={() => (asking = true)}>Something changed…</button>
      {/if}
    </p>
    {#if asking}
      <div class="mt-2 max-w-xl">
        <TextField
          label="What changed?"
          hint="In the student’s words. Everything is off limits until the screen is gone through again."
          error={fieldText(refusal, 'note')}
          bind:value={note}
        />
        {#if refusal && !fieldText(refusal, 'note')}<p class="text-error text-sm" role="alert">
            {pageText(refusal.code)}
          </p>{/if}
        <button class="btn btn-outline btn-sm mt-2" onclick={tell}>Hold and ask again</button>
        <button class="btn btn-ghost btn-sm mt-2" onclick={() => (asking = false)}>Cancel</button>
      </div>
    {/if}
  {/if}
</div>
