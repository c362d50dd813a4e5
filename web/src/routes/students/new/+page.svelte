<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import { Draft } from '$lib/parts/draft.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import BodyFields from '$lib/students/BodyFields.svelte';
  import BarsNow from '$lib/students/BarsNow.svelte';
  import IntakeFields from '$lib/students/IntakeFields.svelte';
  import { blankBody, parseNumber, readBody } from '$lib/students/body';

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

<main class="p-5 lg:p-7">
  <h1 class="mb-1">New student</h1>
  <p class="text-quiet mb-5">Intake: the person, what they want, and the screen that keeps them safe.</p>
  <form class="grid max-w-6xl gap-x-8 gap-y-7 lg:grid-cols-[minmax(0,1fr)_20rem]" onsubmit={save} novalidate>
    <div class="grid gap-7">
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
    </div>
    <div>
      <BarsNow
        answers={draft.value.answers}
        birthDate={draft.value.body.birthDate}
        guardianConsentOn={draft.value.body.guardianConsentOn}
        sensationCeiling={parseNumber(draft.value.body.sensationCeiling)}
      />
    </div>
  </form>
</main>
