<script lang="ts">
  import { untrack } from 'svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { rebase } from '$lib/parts/rebase';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { shortDay } from '$lib/parts/format';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import ClearanceForm from '$lib/students/ClearanceForm.svelte';
  import ClearanceLine from '$lib/students/ClearanceLine.svelte';
  import ConsentsNow from '$lib/students/ConsentsNow.svelte';
  import IntakeFields from '$lib/students/IntakeFields.svelte';
  import ReviewForm from '$lib/students/ReviewForm.svelte';
  import ScreenPanel from '$lib/students/ScreenPanel.svelte';
  import { theStudent } from '$lib/students/student.svelte';
  import { liftText, reasonText, tagName } from '$lib/students/tags';

  const student = theStudent();
  const page = $derived(student.page!);
  const stands = () => Object.fromEntries(student.page!.answers.map((a) => [a.question, a.yes]));
  let answers = $state(stands());
  let base = stands();
  /** What was told of a question that is counted; of an answer as a whole there is none. */
  const toldBefore = () =>
    Object.fromEntries(student.page!.answers.flatMap((a) => (a.signs ? [[a.question, [...a.signs]]] : [])));
  let signs = $state<Record<string, string[]>>(toldBefore());
  let baseSigns = toldBefore();
  let changed = $state(false);
  /** Questions that somebody else has answered otherwise meanwhile. */
  let clashes = $state<string[]>([]);
  let refusal = $state<Refusal>();
  let id = newId();
  const again = $derived(page.screen.state === 'due' || page.screen.state === 'somethingChanged');

  // Somebody else went through the screen: what was not touched here follows.
  $effect(() => {
    const theirs = stands();
    untrack(() => {
      const rebased = rebase(base, $state.snapshot(answers), theirs);
      [answers, base, clashes] = [rebased.merged, theirs, rebased.clashes.map(String)];
      const told = toldBefore();
      [signs, baseSigns] = [rebase(baseSigns, $state.snapshot(signs), told).merged, told];
    });
  });

  async function save() {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/answers', {
          params: { path: { studentId: student.id } },
          body: {
            id,
            answers: Object.entries(answers).map(([question, yes]) => ({
              question,
              yes,
              signs: signs[question] ? [...signs[question]] : null,
            })),
          },
        }),
      );
      [changed, id, clashes] = [false, newId(), []];
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  /** One line for all that comes from the same place. */
  const chain = (reasons: Schemas['BarReason'][]) => [
    ...new Map(reasons.map((r) => [`${reasonText(r)}: ${liftText(r)}`, r])).entries(),
  ];
</script>

<div class="grid gap-8 px-5 py-5 lg:grid-cols-[minmax(0,1fr)_22rem] lg:px-7">
  <div class="order-2 lg:order-1">
    <ScreenPanel {student} />
    <IntakeFields
      bind:answers
      bind:signs
      name={page.student.student.name}
      stands={Object.fromEntries(page.answers.map((a) => [a.question, a.yes]))}
      onchange={() => (changed = true)}
    />
    {#if clashes.length}
      <div class="mt-3" role="status">
        <Notice tone="caution">
          Somebody else has answered this otherwise meanwhile: {clashes
            .map((q) => catalogue.question(q)?.label ?? q)
            .join('; ')}. Your answer counts once you save.
        </Notice>
      </div>
    {/if}
    {#if refusal}<div class="mt-3"><Notice tone="error">{pageText(refusal.code)}</Notice></div>{/if}
    {#if account.mayWrite && (changed || again)}
      <button class="btn btn-primary mt-4" onclick={save}
        >{again && !changed ? 'Nothing else changed: these answers stand' : 'Save the answers'}</button
      >
    {/if}
  </div>
  <aside class="order-1 grid content-start gap-6 lg:order-2" aria-label="What is barred today">
    <section>
      <h2 class="mb-2">Today</h2>
      {#if page.bars.tags.length === 0}
        <p>Nothing is barred.</p>
      {:else if !page.screened}
        <p class="next-thing">Everything is off limits until the intake screen is up to date.</p>
      {:else}
        <ul>
          {#each page.bars.tags as tag (tag.tag)}
            <li class="ruled border-t py-2">
              <strong>{tag.level === 'offLimits' ? 'Off limits' : 'Light only'}: {tagName(tag.tag)}</strong>
              {#each chain(tag.reasons) as [text] (text)}<p class="text-quiet text-sm">{text}.</p>{/each}
            </li>
          {/each}
        </ul>
      {/if}
      <p class="text-quiet mt-2 text-sm">
        Sensation ceiling {page.bars.sensationCeiling} of 10{#if page.bars.rampTopPercent < 100}, ramps top
          out at {page.bars.rampTopPercent} %{/if}.
      </p>
      {#if page.bars.lifted.length}
        <h3 class="mt-4 mb-1 text-lg">Lifted today</h3>
        <ul>
          {#each page.bars.lifted as reason, i (i)}
            <li class="ruled border-t py-1 text-sm">
              <strong>{tagName(reason.tag)}</strong>. {reasonText(reason)}: {liftText(reason)}.
            </li>
          {/each}
        </ul>
      {/if}
      <p class="mt-3 text-sm">Tensarch diagnoses nothing. Health questions go to a licensed clinician.</p>
    </section>
    {#if page.reviewBars.length}
      <section>
        <h2 class="mb-2">From training</h2>
        {#each page.reviewBars as bar (bar.tag + bar.needsClinician)}
          <div class="ruled border-t py-2">
            <p>
              <strong>{tagName(bar.tag)}</strong> since {shortDay(bar.since)}.
              {bar.needsClinician
                ? 'Only a licensed clinician’s clearance lifts it.'
                : bar.injury
                  ? 'Told before a session as injured of late: look at it with them.'
                  : `${bar.painFreeSessions} of ${bar.needed} pain-free sessions so far.`}
            </p>
            {#if bar.mayBeReviewed && account.mayWrite}<ReviewForm {student} tag={bar.tag} />{/if}
          </div>
        {/each}
      </section>
    {/if}
    <ConsentsNow {student} />
    <section>
      <h2 class="mb-2">Clearances</h2>
      {#each page.clearances as clearance (clearance.id)}
        <ClearanceLine {student} {clearance} />
      {:else}
        <p class="text-quiet text-sm">None recorded.</p>
      {/each}
      {#if account.mayWrite}<ClearanceForm {student} />{/if}
    </section>
  </aside>
</div>
