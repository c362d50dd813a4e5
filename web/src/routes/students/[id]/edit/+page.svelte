<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal } from '$lib/api/client';
  import { Draft } from '$lib/parts/draft.svelte';
  import Dialog from '$lib/parts/Dialog.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import { undo } from '$lib/parts/undo.svelte';
  import BodyFields from '$lib/students/BodyFields.svelte';
  import { readBody, writeBody } from '$lib/students/body';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const view = student.page!.student;
  const draft = new Draft(`draft:student:${student.id}:${view.version}`, { body: writeBody(view.student) });
  let refusal = $state<Refusal>();
  let busy = $state(false);
  const header = { 'If-Match': `"${view.version}"` };
  const path = { studentId: student.id };

  async function send(change: () => Promise<unknown>) {
    busy = true;
    refusal = undefined;
    try {
      await change();
      draft.forget();
      await student.load();
      await goto(resolve('/students/[id]', { id: student.id }));
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }

  function save(event: SubmitEvent) {
    event.preventDefault();
    const { body, problems } = readBody(draft.value.body);
    if (problems.length) {
      refusal = new Refusal(422, problems[0]!.code, problems);
      return;
    }
    void send(() => ask(api.PUT('/api/v1/students/{studentId}', { params: { path, header }, body })));
  }

  let asking = $state(false);

  const archive = (archived: boolean, version: number) =>
    ask(
      api.POST('/api/v1/students/{studentId}/archive', {
        params: { path, header: { 'If-Match': `"${version}"` } },
        body: { archived },
      }),
    );

  function putAway() {
    asking = false;
    void send(async () => {
      const archived = await archive(true, view.version);
      undo.offer(`${view.student.name} is in the archive.`, async () => {
        await archive(false, archived.version);
        await student.load();
      });
    });
  }

  const bringBack = () => send(() => archive(false, view.version));
</script>

<form class="grid max-w-3xl gap-7 px-5 py-5 lg:px-7" onsubmit={save} novalidate>
  <BodyFields bind:body={draft.value.body} {refusal} onchange={() => draft.keep()} />
  {#if refusal}
    <Notice tone="error">
      {refusal.problems.length
        ? 'Something above cannot stand yet: see the marked fields.'
        : pageText(refusal.code)}
    </Notice>
  {/if}
  {#if account.mayWrite}
    <div class="flex flex-wrap gap-3">
      <button class="btn btn-primary" disabled={busy}>Save</button>
      <button
        type="button"
        class="btn btn-outline ms-auto"
        disabled={busy}
        onclick={view.archived ? bringBack : () => (asking = true)}
      >
        {view.archived ? 'Bring back from the archive' : 'Archive this student…'}
      </button>
    </div>
  {/if}
</form>

{#if asking}
  <Dialog title="Archive {view.student.name}?" onclose={() => (asking = false)}>
    <p>
      They leave the roster and the readiness board. Everything that was written down stays, and they can be
      brought back.
    </p>
    {#snippet actions()}
      <button class="btn btn-outline" onclick={() => (asking = false)}>Keep them here</button>
      <button class="btn btn-primary" onclick={putAway}>Archive</button>
    {/snippet}
  </Dialog>
{/if}
