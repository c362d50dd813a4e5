<script lang="ts">
  import NotLoaded from '$lib/parts/NotLoaded.svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import { account } from '$lib/accounts/account.svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Field from '$lib/parts/Field.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import CourseStart from './CourseStart.svelte';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  const goals = $derived(student.page!.student.student.goals ?? []);
  const free = $derived(
    catalogue
      .content!.ladders.filter((l) => student.page!.skills.every((s) => s.skill !== l.skill))
      .sort((a, b) => place(a.skill) - place(b.skill)),
  );
  const place = (skill: string) => (goals.includes(skill) ? goals.indexOf(skill) : goals.length);
  const approaches = $derived(catalogue.content!.approaches);
  let wanted = $state<string>();
  const skill = $derived(wanted ?? free[0]?.skill);
  /** Counts what was written down here: what is suggested is asked for anew. */
  let kept = $state(0);
  const suggested = $derived(
    skill && kept >= 0
      ? ask(
          api.GET('/api/v1/students/{studentId}/skills/{skill}/placement', {
            params: { path: { studentId: student.id, skill } },
          }),
        )
      : undefined,
  );
  const own = ask(api.GET('/api/v1/ladders'));
  let ladderOf = $state<string>();
  let id = newId();
  let stages = $state<Record<string, number>>({});
  let approach = $state('long-and-ramped');
  let refusal = $state<Refusal>();

  function choose(next: string) {
    [wanted, stages, refusal, id, ladderOf] = [next, {}, undefined, newId(), undefined];
  }

  async function confirm(courses: { side: 'left' | 'right' | null; suggested: number }[]) {
    refusal = undefined;
    const ladder = ladderOf ? (await own).find((l) => l.key === ladderOf) : undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/skills', {
          params: { path: { studentId: student.id } },
          body: {
            id,
            skill: skill!,
            approach,
            courses: courses.map((c) => ({
              decisionId: newId(),
              side: c.side,
              stage: stages[c.side ?? 'both'] ?? c.suggested,
            })),
            ladderKey: ladder?.key ?? null,
            ladderVersion: ladder?.version ?? null,
          },
        }),
      );
      await student.load(skill);
      // eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved
      await goto(`${resolve('/students/[id]', { id: student.id })}?skill=${skill}`);
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<h2 class="mb-1">Put on a ladder</h2>
<p class="mb-4 max-w-prose">
  The suggestion is the lowest stage with a test that is not met, and never past a way out or a form that was
  not shown here.
  <a class="link-line" href={resolve('/students/[id]/bench', { id: student.id })}>Read a baseline</a> first, and
  it gets better. You confirm each start.
</p>
<div class="mb-6 flex flex-wrap gap-2" role="radiogroup" aria-label="Skill">
  {#each free as ladder (ladder.skill)}
    <label class="btn btn-outline has-checked:bg-base-content has-checked:text-base-100">
      <input
        type="radio"
        class="sr-only"
        name="skill"
        checked={ladder.skill === skill}
        onchange={() => choose(ladder.skill)}
      />
      {ladder.name}{goals.includes(ladder.skill) ? ' · goal' : ''}
    </label>
  {/each}
</div>
{#if suggested}
  <Loaded of={suggested}>
    {#snippet children(placement)}
      <div class="grid gap-6 sm:grid-cols-2">
        {#each placement.courses as course (course.side)}
          <CourseStart
            {course}
            ladder={placement.ladder}
            stage={stages[course.side ?? 'both'] ?? course.suggested}
            onchange={(stage) => (stages[course.side ?? 'both'] = stage)}
            studentId={student.id}
            {refusal}
            onkept={async () => {
              kept++;
            }}
          />
        {/each}
        <div class="grid content-start gap-4">
          <Field label="Approach" hint={approaches.find((a) => a.key === approach)?.text}>
            {#snippet children({ id: field, describedBy })}
              <select id={field} class="select w-full" aria-describedby={describedBy} bind:value={approach}>
                {#each approaches as a (a.key)}<option value={a.key}>{a.name}</option>{/each}
              </select>
            {/snippet}
          </Field>
          {#await own then ladders}
            {#if ladders.some((l) => !l.shipped && l.skill === skill)}
              <Field label="Ladder" hint="Your own copies of it, at their newest version.">
                {#snippet children({ id: field, describedBy })}
                  <select
                    id={field}
                    class="select w-full"
                    aria-describedby={describedBy}
                    bind:value={ladderOf}
                  >
                    <option value={undefined}>{placement.ladder.name}, as shipped</option>
                    {#each ladders.filter((l) => !l.shipped && l.skill === skill) as l (l.key)}
                      <option value={l.key}>{l.name}, version {l.version}</option>
                    {/each}
                  </select>
                {/snippet}
              </Field>
            {/if}
          {:catch error}<NotLoaded code={(error as Refusal).code} />{/await}
        </div>
      </div>
      {#if refusal}<div class="mt-4"><Notice tone="error">{pageText(refusal.code)}</Notice></div>{/if}
      {#if account.mayWrite}
        <button class="btn btn-primary mt-6" onclick={() => confirm(placement.courses)}
          >Confirm {placement.courses.length > 1 ? 'the stages' : 'the stage'}</button
        >
      {/if}
    {/snippet}
  </Loaded>
{:else}
  <p>On every ladder there is.</p>
{/if}
