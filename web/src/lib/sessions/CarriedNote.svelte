<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api/client';

  interface Props {
    student: string;
    note: Schemas['CarriedNote'];
  }

  let { student, note }: Props = $props();
  let open = $state(true);

  /** Without the server it stays open there, and is shown again. */
  function tickOff() {
    open = false;
    void ask(
      api.POST('/api/v1/students/{studentId}/notes/{noteId}/changes', {
        params: { path: { studentId: student, noteId: note.id } },
        body: { done: true },
      }),
    ).catch(() => undefined);
  }
</script>

{#if open}
  <div class="bg-base-200 flex flex-wrap items-center gap-3 px-4 py-3">
    <p class="min-w-0 grow wrap-break-word">
      <strong>From last time:</strong>
      {note.text}
    </p>
    <button class="btn btn-outline btn-sm" onclick={tickOff}>Tick it off</button>
    <button class="btn btn-ghost btn-sm" onclick={() => (open = false)}>Keep it</button>
  </div>
{/if}
