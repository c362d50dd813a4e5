<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { longDay, shortDay } from '$lib/parts/format';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import ClearanceForm from '$lib/students/ClearanceForm.svelte';
  import IntakeFields from '$lib/students/IntakeFields.svelte';
  import { theStudent } from '$lib/students/student.svelte';
  import { reasonText, tagName } from '$lib/students/tags';

  const student = theStudent();
  const page = $derived(student.page!);
  const path = { studentId: student.id };
  let answers = $state(Object.fromEntries(student.page!.answers.map((a) => [a.question, a.yes])));
  let changed = $state(false);
  let refusal = $state<Refusal>();
  let reviewing = $state<Schemas['LoadTag']>();
  let note = $state('');
  let reviewId = newId();

  async function send(change: () => Promise<unknown>) {
    refusal = undefined;
    try {
      await change();
      [changed, reviewing, note, reviewId] = [false, undefined, '', newId()];
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  const save = () =>
    send(() =>
      ask(
        api.POST('/api/v1/students/{studentId}/answers', {
          params: { path },
          body: { answers: Object.entries(answers).map(([question, yes]) => ({ question, yes })) },
        }),
      ),
    );

  const review = (tag: Schemas['LoadTag']) =>
    send(() =>
      ask(
        api.POST('/api/v1/students/{studentId}/reviews', {
          params: { path },
          body: { id: reviewId, tag, note },
        }),
      ),
    );
</script>

<div class="grid gap-8 px-5 py-5 lg:grid-cols-[minmax(0,1fr)_20rem] lg:px-7">
  <div class="order-2 lg:order-1">
    <IntakeFields bind:answers onchange={() => (changed = true)} />
    {#if refusal && !reviewing}<div class="mt-3">
        <Notice tone="error">{pageText(refusal.code)}</Notice>
      </div>{/if}
    {#if account.mayWrite && changed}
      <button class="btn btn-primary mt-4" onclick={save}>Save the answers</button>
    {/if}
  </div>
  <aside class="order-1 grid content-start gap-6 lg:order-2" aria-label="What holds today">
    <section>
      <h2 class="mb-2">Today</h2>
      {#if page.cautions.tags.length === 0}
        <p>Nothing is held or limited.</p>
      {:else if !page.screened}
        <p class="next-thing">Everything is held until the intake screen is answered.</p>
      {:else}
        <ul>
          {#each page.cautions.tags as tag (tag.tag)}
            <li class="ruled border-t py-2">
              <strong>{tag.level === 'held' ? 'Held' : 'Limited to light'}: {tagName(tag.tag)}</strong>
              {#each [...new Set(tag.reasons.map(reasonText))] as reason (reason)}<p
                  class="text-quiet text-sm"
                >
                  {reason}
                </p>{/each}
            </li>
          {/each}
        </ul>
      {/if}
      <p class="text-quiet mt-2 text-sm">
        Sensation ceiling {page.cautions.sensationCeiling} of 10{#if page.cautions.rampTopPercent < 100},
          ramps top out at {page.cautions.rampTopPercent} %{/if}.
      </p>
    </section>
    {#if page.holds.length}
      <section>
        <h2 class="mb-2">From training</h2>
        {#each page.holds as hold (hold.tag + hold.needsClinician)}
          <div class="ruled border-t py-2">
            <p>
              <strong>{tagName(hold.tag)}</strong> since {shortDay(hold.since)}.
              {hold.needsClinician
                ? 'Only a licensed clinician’s clearance lifts it.'
                : `${hold.painFreeSessions} of ${hold.needed} pain-free sessions so far.`}
            </p>
            {#if hold.mayBeReviewed && account.mayWrite}
              {#if reviewing === hold.tag}
                <Field
                  label="What did you see?"
                  hint="Ten characters or more."
                  error={fieldText(refusal, 'note')}
                >
                  {#snippet children({ id, describedBy, invalid })}
                    <textarea
                      {id}
                      class="textarea w-full"
                      rows="2"
                      aria-describedby={describedBy}
                      aria-invalid={invalid}
                      bind:value={note}></textarea>
                  {/snippet}
                </Field>
                <button class="btn btn-primary btn-sm mt-2" onclick={() => review(hold.tag)}
                  >Lift the hold</button
                >
              {:else}
                <button class="btn btn-outline btn-sm mt-1" onclick={() => (reviewing = hold.tag)}
                  >Review…</button
                >
              {/if}
            {/if}
          </div>
        {/each}
      </section>
    {/if}
    <section>
      <h2 class="mb-2">Clearances</h2>
      {#each page.clearances as c (c.id)}
        <p class="ruled border-t py-2">
          <strong>{c.role}</strong>: {c.tags.map(tagName).join(', ')}.
          <span class={c.standing ? '' : 'text-quiet'}
            >{c.standing ? 'Until' : 'Lapsed'} {longDay(c.until)}</span
          >
        </p>
      {:else}
        <p class="text-quiet text-sm">None recorded.</p>
      {/each}
      {#if account.mayWrite}<ClearanceForm {student} />{/if}
    </section>
  </aside>
</div>
