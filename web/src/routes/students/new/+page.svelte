<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import { Draft } from '$lib/parts/draft.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import BodyFields from '$lib/students/BodyFields.svelte';
  import IntakeFields from '$lib/students/IntakeFields.svelte';
  import { blankBody, readBody } from '$lib/students/body';

  const draft = new Draft('draft:student', {
    id: newId(),
    body: { ...blankBody },
    answers: {} as Record<string, boolean>,
  });
  let refusal = $state<Refusal>();
  let busy = $state(false);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const { body, problems } = readBody(draft.value.body);
    refusal = problems.length ? new Refusal(422, problems[0]!.code, problems) : undefined;
    if (refusal) return;
    busy = true;
    try {
      const id = draft.value.id;
      await ask(api.POST('/api/v1/students', { body: { id, student: body } }));
      const answers = Object.entries(draft.value.answers).map(([question, yes]) => ({ question, yes }));
      await ask(
        api.POST('/api/v1/students/{studentId}/answers', {
          params: { path: { studentId: id } },
          body: { answers },
        }),
      );
      draft.forget();
      await goto(resolve('/students/[id]', { id }));
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

<svelte:head><title>New student · Tensarch</title></svelte:head>

<main class="max-w-3xl p-5 lg:p-7">
  <h1 class="mb-5">New student</h1>
  <form class="grid gap-7" onsubmit={save} novalidate>
    <BodyFields bind:body={draft.value.body} {refusal} onchange={() => draft.keep()} />
    <IntakeFields bind:answers={draft.value.answers} onchange={() => draft.keep()} />
    {#if refusal}
      <Notice tone="error">
        {refusal.problems.length
          ? 'Something above cannot stand yet: see the marked fields.'
          : pageText(refusal.code)}
      </Notice>
    {/if}
    <div class="flex gap-3">
      <button class="btn btn-primary" disabled={busy}>Save the student</button>
      <a class="btn btn-ghost" href={resolve('/students')}>Back</a>
    </div>
  </form>
</main>
