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
  import ConsentFields from './ConsentFields.svelte';
  import { consentKinds } from './consents';
  import { today, yearsBefore } from '$lib/parts/format';
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
  /** Of a guardian only where the student is young. */
  const young = $derived(
    draft.value.answers['under-18'] === true || draft.value.body.birthDate > yearsBefore(today(), 18),
  );
  const kinds = $derived(consentKinds.filter((k) => k !== 'guardian' || young));
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
    const consents = kinds.flatMap((kind) => {
      const given = draft.value.consents[kind];
      const saidBy = kind === 'guardian' ? draft.value.guardian || null : null;
      return given === undefined ? [] : [{ kind, given, saidBy }];
    });
    busy = true;
    try {
      await ask(api.POST('/api/v1/students', { body: { id, student: body, consents } }));
      const answers = Object.entries(draft.value.answers).map(([question, yes]) => ({
        question,
        yes,
        signs: draft.value.signs[question] ?? null,
      }));
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
    <fieldset class="ruled border-t pt-4">
      <legend class="font-head pe-3 text-xl font-semibold">Consents</legend>
      <p class="mb-1 max-w-prose text-sm">
        Ask each aloud. Each is kept with today’s date and your name, and can be withdrawn at any time. What
        is left open is asked at the first start; nothing is trained before.
      </p>
      <ConsentFields
        {kinds}
        bind:said={draft.value.consents}
        bind:guardian={draft.value.guardian}
        onchange={keep}
      />
    </fieldset>
    <IntakeFields bind:answers={draft.value.answers} bind:signs={draft.value.signs} {name} onchange={keep} />
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
      signs={Object.values(draft.value.signs)[0]}
      birthDate={draft.value.body.birthDate}
      guardianConsent={draft.value.consents.guardian === true}
      sensationCeiling={parseNumber(draft.value.body.sensationCeiling)}
    />
  </div>
</form>
