<script lang="ts">
  import { untrack } from 'svelte';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { Draft, draftKey } from '$lib/parts/draft.svelte';
  import Field from '$lib/parts/Field.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import NoteLine from '$lib/students/NoteLine.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const blank = () => ({ id: newId(), text: '', pinned: false, carryOver: false });
  const draft = new Draft(draftKey('note', student.id), blank());
  let notes = $state<Schemas['NoteView'][]>();
  let before = $state<string | null>(null);
  let find = $state('');
  let refusal = $state<Refusal>();
  let failed = $state<string>();
  let asked = 0;

  async function read(from: string | null = null) {
    const turn = ++asked;
    try {
      const page = await ask(
        api.GET('/api/v1/students/{studentId}/notes', {
          params: {
            path: { studentId: student.id },
            query: { find: find.trim() || undefined, before: from ?? undefined },
          },
        }),
      );
      if (turn !== asked) return;
      notes = from ? [...(notes ?? []), ...page.notes] : page.notes;
      before = page.before ?? null;
      failed = undefined;
    } catch (error) {
      failed = (error as Refusal).code;
    }
  }

  /** What the head of the page shows follows. */
  function changed() {
    void read();
    void student.load();
  }

  async function write(event: SubmitEvent) {
    event.preventDefault();
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/notes', {
          params: { path: { studentId: student.id } },
          body: $state.snapshot(draft.value),
        }),
      );
      draft.forget();
      draft.value = blank();
      changed();
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  $effect(() => {
    void student.heard;
    void untrack(() => read());
  });
</script>

<div class="grid max-w-3xl gap-6 px-5 py-5 lg:px-7">
  {#if account.mayWrite}
    <form class="grid gap-2" onsubmit={write} novalidate>
      <Field label="A note" error={fieldText(refusal, 'text')}>
        {#snippet children({ id: field, describedBy, invalid })}
          <textarea
            id={field}
            class="textarea w-full"
            rows="3"
            maxlength="2000"
            aria-describedby={describedBy}
            aria-invalid={invalid}
            bind:value={draft.value.text}
            oninput={() => draft.keep()}></textarea>
        {/snippet}
      </Field>
      <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
        <label class="flex items-center gap-2">
          <input type="checkbox" class="checkbox checkbox-sm" bind:checked={draft.value.carryOver} />
          Show it at the start of the next session
        </label>
        <label class="flex items-center gap-2">
          <input type="checkbox" class="checkbox checkbox-sm" bind:checked={draft.value.pinned} />
          Pin it
        </label>
        <button class="btn btn-primary ms-auto">Write it down</button>
      </div>
      {#if refusal && !refusal.problems.length}<Notice tone="error">{pageText(refusal.code)}</Notice>{/if}
    </form>
  {/if}
  <section aria-label="Notes">
    <div class="mb-2 flex flex-wrap items-end justify-between gap-3">
      <h2>Notes</h2>
      <label class="flex items-center gap-2 text-sm">
        Find
        <input class="input input-sm w-48" type="search" bind:value={find} oninput={() => void read()} />
      </label>
    </div>
    {#if failed}<Notice tone="error">{pageText(failed)}</Notice>
    {:else if !notes}<p class="text-quiet" aria-live="polite">Loading…</p>
    {:else}
      <ul class="ruled border-t">
        {#each notes as note (note.id)}
          <NoteLine student={student.id} {note} onchange={changed} />
        {:else}
          <li class="text-quiet py-3">{find.trim() ? 'No note has these words.' : 'No notes yet.'}</li>
        {/each}
      </ul>
      {#if before}<button class="btn btn-sm btn-outline mt-3" onclick={() => void read(before)}
          >Earlier</button
        >{/if}
    {/if}
  </section>
</div>
