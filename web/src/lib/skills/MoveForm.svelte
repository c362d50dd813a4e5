<script lang="ts">
  import NotLoaded from '$lib/parts/NotLoaded.svelte';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { pageText, problemText } from '$lib/parts/problems';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { changesUnder } from './moves';
  import { capital } from './sides';
  import VerdictChanges from './VerdictChanges.svelte';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  const skill = $derived(student.skill!);
  const ladders = ask(api.GET('/api/v1/ladders'));
  let target = $state('');
  let stages = $state<Record<string, number>>({});
  let reason = $state('');
  let refusal = $state<Refusal>();

  async function move(event: SubmitEvent) {
    event.preventDefault();
    const to = (await ladders).find((l) => l.key === target);
    if (!to) return;
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/skills/{skill}/move', {
          params: { path: { studentId: student.id, skill: skill.skill } },
          body: {
            ladderKey: to.key,
            ladderVersion: to.version,
            courses: skill.sides.map((s) => ({
              decisionId: newId(),
              side: s.side,
              stage: stages[s.side ?? 'both'] ?? s.stage,
            })),
            reason: reason.trim() || null,
          },
        }),
      );
      target = '';
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<p class="text-quiet mt-8 text-sm">
  {skill.ladder.name}, version {skill.ladder.version}{skill.newestVersion > skill.ladder.version
    ? `. Version ${skill.newestVersion} is there: nothing changes here until you move ${student.page!.student.student.name}.`
    : ''}
</p>
{#if account.mayWrite}
  {#await ladders then list}
    {@const others = list.filter(
      (l) => l.skill === skill.skill && (l.key !== skill.ladder.key || l.version !== skill.ladder.version),
    )}
    {#if others.length}
      <details class="mt-2">
        <summary class="link-line cursor-pointer text-sm">Move to another version or ladder</summary>
        <form class="mt-3 grid max-w-xl gap-3" onsubmit={move} novalidate>
          <Field label="Move to">
            {#snippet children({ id })}
              <select {id} class="select w-full" bind:value={target}>
                <option value="">Choose</option>
                {#each others as l (l.key)}
                  <option value={l.key}>{l.name}, version {l.version}{l.shipped ? ', as shipped' : ''}</option
                  >
                {/each}
              </select>
            {/snippet}
          </Field>
          {#each skill.sides as s (s.side)}
            {@const to = others.find((l) => l.key === target)}
            {#if to}
              <Field
                label={s.side ? `${capital(s.side)} goes on at stage` : 'Goes on at stage'}
                hint="Now at {s.stage}. A move is no way up."
              >
                {#snippet children({ id, describedBy })}
                  <select
                    {id}
                    class="select w-full"
                    aria-describedby={describedBy}
                    value={stages[s.side ?? 'both'] ?? s.stage}
                    onchange={(event) => (stages[s.side ?? 'both'] = Number(event.currentTarget.value))}
                  >
                    {#each Array.from({ length: to.stages }, (_, i) => i + 1) as n (n)}
                      <option value={n}>{n}</option>
                    {/each}
                  </select>
                {/snippet}
              </Field>
            {/if}
          {/each}
          {#if others.find((l) => l.key === target)}
            {@const to = others.find((l) => l.key === target)!}
            <div role="group" aria-label="What it would change">
              <p class="text-sm font-semibold">What it would change</p>
              <Loaded of={changesUnder(to.key, to.version)}>
                {#snippet children(changes)}
                  {@const own = changes.filter((c) => c.studentId === student.id)}
                  {#if own.length}
                    <VerdictChanges changes={own} />
                  {:else}
                    <p class="text-quiet text-sm">The gate would say the same.</p>
                  {/if}
                {/snippet}
              </Loaded>
            </div>
          {/if}
          <Field label="Why? (if you like)">
            {#snippet children({ id })}
              <input {id} class="input w-full" bind:value={reason} />
            {/snippet}
          </Field>
          {#if refusal}<p class="text-error text-sm" role="alert">
              {refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code)}
            </p>{/if}
          <button class="btn btn-outline justify-self-start" disabled={!target}>Move</button>
        </form>
      </details>
    {/if}
  {:catch error}<NotLoaded code={(error as Refusal).code} />{/await}
{/if}
