<script lang="ts">
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask, Refusal } from '$lib/api/client';
  import { Draft } from '$lib/parts/draft.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import BodyFields from './BodyFields.svelte';
  import BarsNow from './BarsNow.svelte';
  import IntakeFields from './IntakeFields.svelte';
  import { parseNumber, readBody } from './body';
  import { blankIntake, intakeKey } from './unfinished';

  interface Props {
    author: string;
    /** Of the student that this will be. */
    id: string;
    onafresh: () => void;
  }

  let { author, id, onafresh }: Props = $props();
  const draft = untrack(() => new Draft(intakeKey(author, id), blankIntake()));
  let refusal = $state<Refusal>();
  let busy = $state(false);
  let typed = $state(draft.value.at > 0);
  const name = $derived(draft.value.body.name.trim());

  function keep() {
    typed = true;
    draft.value.at = Date.now();
    draft.keep();
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const { body, problems } = readBody(draft.value.body);
    refusal = problems.length ? new Refusal(422, problems[0]!.code, problems) : undefined;
    if (refusal) return;
    busy = true;
    try {
      await ask(api.POST('/api/v1/students', { body: { id, student: body } }));
      const answers = Object.entries(draft.value.answers).map(([question, yes]) => ({ question, yes }));
      await ask(
        api.POST('/api/v1/students/{studentId}/answers', {
          params: { path: { studentId: id } },
          body: { answers },
        }),
      );
      draft.forget();
      // Back leads to the list: this form was of one person, who is there now.
      await goto(resolve('/students/[id]', { id }), { replaceState: true });
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

<form class="grid max-w-6xl gap-x-8 gap-y-7 lg:grid-cols-[minmax(0,1fr)_20rem]" onsubmit={save} novalidate>
  <div class="grid gap-7">
    <BodyFields bind:body={draft.value.body} {refusal} onchange={keep} />
    <IntakeFields bind:answers={draft.value.answers} {name} onchange={keep} />
    {#if refusal}
      <Notice tone="error">
        {refusal.problems.length
          ? 'Something above cannot stand yet: see the marked fields.'
          : pageText(refusal.code)}
      </Notice>
    {/if}
    <div class="flex flex-wrap gap-3">
      <button class="btn btn-primary" disabled={busy}>Save the student</button>
      <a class="btn btn-ghost" href={resolve('/students')}>Back</a>
      {#if typed}
        <button type="button" class="btn btn-ghost ms-auto" onclick={onafresh}>Start afresh</button>
      {/if}
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
