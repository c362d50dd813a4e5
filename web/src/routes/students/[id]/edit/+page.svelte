<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { untrack } from 'svelte';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import { Draft, draftKey } from '$lib/parts/draft.svelte';
  import Dialog from '$lib/parts/Dialog.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import { undo } from '$lib/parts/undo.svelte';
  import BodyFields from '$lib/students/BodyFields.svelte';
  import { bodyFieldName } from '$lib/students/history';
  import { rebase } from '$lib/parts/rebase';
  import { readBody, writeBody, type BodyText } from '$lib/students/body';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  /** As it stands by now; the one that is typed over is kept in the draft. */
  const opened = student.page!.student;
  let view = $state.raw(opened);
  const draft = new Draft(draftKey('student', student.id), {
    body: writeBody(opened.student),
    base: writeBody(opened.student),
    version: opened.version,
  });
  let refusal = $state<Refusal>();
  let busy = $state(false);
  /** Fields that somebody else changed too, with what they wrote. */
  let clashes = $state<(keyof BodyText)[]>([]);
  let taken = $state<(keyof BodyText)[]>([]);
  let theirs = $state.raw(writeBody(opened.student));
  const path = { studentId: student.id };

  /** Somebody else saved: what was not touched here follows, and what both changed is asked. */
  function catchUp(now: Schemas['StudentView']) {
    view = now;
    theirs = writeBody(now.student);
    if (now.version === draft.value.version) return;
    const { body, base } = $state.snapshot(draft.value);
    const rebased = rebase(base, body, theirs);
    clashes = rebased.clashes;
    taken = [...new Set([...taken, ...rebased.taken])].filter((key) => !clashes.includes(key));
    draft.value = { body: rebased.merged, base: theirs, version: now.version };
    draft.keep();
  }
  catchUp(opened);

  $effect(() => {
    const now = student.page!.student;
    untrack(() => now.version !== view.version && !busy && catchUp(now));
  });

  function takeTheirs(key: keyof BodyText) {
    draft.value.body = { ...draft.value.body, [key]: theirs[key] };
    draft.keep();
    clashes = clashes.filter((k) => k !== key);
  }

  const said = (key: keyof BodyText) => {
    const value = theirs[key];
    return typeof value === 'string' ? value || 'empty' : undefined;
  };

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
      if (refusal.code === 'changedMeanwhile') await student.load();
      if (refusal.code === 'changedMeanwhile' && student.page) {
        catchUp(student.page.student);
        refusal = undefined;
      }
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
    void send(() =>
      ask(
        api.PUT('/api/v1/students/{studentId}', {
          params: { path, header: { 'If-Match': `"${draft.value.version}"` } },
          body,
        }),
      ),
    );
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
  {#if taken.length || clashes.length}
    <div role="status">
      <Notice tone="caution">
        {#if taken.length}
          <p>
            Somebody else saved this meanwhile. It is shown above: {taken.map(bodyFieldName).join('; ')}.
          </p>
        {/if}
        {#each clashes as key (key)}
          <p class="flex flex-wrap items-center gap-x-3">
            <span>
              <strong>{bodyFieldName(key)}</strong> was changed by somebody else too{#if said(key)}, to “{said(
                  key,
                )}”{/if}. What you typed stays, and counts once you save.
            </span>
            <button type="button" class="btn btn-outline btn-sm" onclick={() => takeTheirs(key)}
              >Take theirs</button
            >
          </p>
        {/each}
      </Notice>
    </div>
  {/if}
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
