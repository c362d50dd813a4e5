<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import { dayAndTime } from '$lib/parts/format';
  import { fieldText, pageText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { undo } from '$lib/parts/undo.svelte';

  interface Props {
    student: string;
    note: Schemas['NoteView'];
    onchange: () => void;
  }

  let { student, note, onchange }: Props = $props();
  let open = $state(false);
  let text = $state('');
  let refusal = $state<Refusal>();
  const waits = $derived(note.carryOver && !note.doneAt && !note.gone);

  async function change(body: Schemas['NoteChange']) {
    await ask(
      api.POST('/api/v1/students/{studentId}/notes/{noteId}/changes', {
        params: { path: { studentId: student, noteId: note.id } },
        body,
      }),
    );
    onchange();
  }

  async function send(body: Schemas['NoteChange']) {
    refusal = undefined;
    try {
      await change(body);
      open = false;
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  async function strike() {
    await send({ gone: true });
    if (!refusal) undo.offer('The note is struck out.', () => change({ gone: false }));
  }

  function edit() {
    text = note.text;
    open = !open;
  }
</script>

<li class={['ruled border-b py-3', note.pinned && !note.gone && 'border-s-base-content border-s-4 ps-3']}>
  <p class="wrap-break-word whitespace-pre-line">
    {#if note.gone}<s class="text-quiet">{note.text}</s>{:else}{note.text}{/if}
  </p>
  {#if note.said}<p class="text-quiet text-sm wrap-break-word">First written: “{note.said}”</p>{/if}
  <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
    <span class="text-quiet">
      {dayAndTime(note.at)} · {note.by}{#if note.carryOver}&nbsp;· {note.doneAt
          ? `carried over, ticked off ${dayAndTime(note.doneAt)}`
          : 'for the next session'}{/if}
    </span>
    {#if account.mayWrite}
      {#if note.gone}
        <button class="btn btn-ghost btn-xs" onclick={() => send({ gone: false })}>It stands again</button>
      {:else}
        {#if waits}<button class="btn btn-ghost btn-xs" onclick={() => send({ done: true })}
            >Tick it off</button
          >{/if}
        <button
          class="btn btn-ghost btn-xs"
          aria-pressed={note.pinned}
          onclick={() => send({ pinned: !note.pinned })}>{note.pinned ? 'Unpin' : 'Pin'}</button
        >
        <button class="btn btn-ghost btn-xs" aria-expanded={open} onclick={edit}>Edit…</button>
        <button class="btn btn-ghost btn-xs" onclick={strike}>Strike out</button>
      {/if}
    {/if}
  </div>
  {#if open}
    <form
      class="mt-2 flex flex-wrap items-end gap-2"
      onsubmit={(event) => {
        event.preventDefault();
        void send({ text });
      }}
      novalidate
    >
      <TextField
        label="The note"
        width="w-full max-w-xl"
        error={fieldText(refusal, 'text')}
        bind:value={text}
      />
      <button class="btn btn-sm btn-primary">Save</button>
      <button type="button" class="btn btn-sm btn-ghost" onclick={() => (open = false)}>Leave it</button>
    </form>
  {/if}
  {#if refusal && !refusal.problems.length}<p class="text-error text-sm" role="alert">
      {pageText(refusal.code)}
    </p>{/if}
</li>
