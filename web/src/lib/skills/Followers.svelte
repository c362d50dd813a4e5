<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { pageText, problemText } from '$lib/parts/problems';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { changesUnder } from './moves';
  import VerdictChanges from './VerdictChanges.svelte';

  interface Props {
    ladder: Schemas['Ladder'];
    /** The newest version there is. */
    newest: number;
    followers: Schemas['LadderFollower'][];
  }

  let { ladder, newest, followers }: Props = $props();
  const behind = $derived(followers.filter((f) => f.version < newest));
  let asking = $state(false);
  let busy = $state(false);
  let moved = $state<Record<string, boolean>>({});
  let refused = $state<Record<string, string>>({});
  const left = $derived(behind.filter((f) => !moved[f.studentId]));
  /** The same ids at a second try: nobody is moved twice. */
  const ids: Record<string, string> = {};

  /** One after another; who cannot be moved is named and the others go on. */
  async function moveAll() {
    busy = true;
    for (const f of left)
      try {
        await ask(
          api.POST('/api/v1/students/{studentId}/skills/{skill}/move', {
            params: { path: { studentId: f.studentId, skill: ladder.skill } },
            body: {
              ladderKey: ladder.key,
              ladderVersion: newest,
              courses: f.courses.map((c) => ({
                decisionId: (ids[`${f.studentId}${c.side}`] ??= newId()),
                side: c.side,
                stage: c.newStage,
              })),
              reason: null,
            },
          }),
        );
        moved[f.studentId] = true;
        delete refused[f.studentId];
      } catch (error) {
        const { code, problems } = error as Refusal;
        refused[f.studentId] = problems[0] ? problemText(problems[0]) : pageText(code);
      }
    busy = false;
    asking = false;
  }
</script>

<section class="mt-6" aria-label="On it">
  <h2 class="mb-1">On it</h2>
  <ul class="text-sm">
    {#each followers as f (f.studentId)}
      <li class="ruled flex flex-wrap items-baseline gap-x-3 border-t py-1">
        <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
        <a class="link-line" href="{resolve('/students/[id]', { id: f.studentId })}?skill={ladder.skill}"
          >{f.name}</a
        >
        <span>version {moved[f.studentId] ? newest : f.version}</span>
        {#each f.courses as c (c.side)}
          <SideMark
            side={c.side}
            text="{c.side ?? 'stage'} {c.stage}{c.newStage !== c.stage && f.version < newest
              ? ` → ${c.newStage}`
              : ''}"
          />
        {/each}
        {#if refused[f.studentId]}<strong class="text-error">{refused[f.studentId]}</strong>{/if}
      </li>
    {:else}
      <li class="text-quiet">Nobody.</li>
    {/each}
  </ul>
  {#if account.mayWrite && left.length}
    {#if asking && !busy}
      <div class="mt-4 max-w-prose" role="group" aria-label="What version {newest} would change">
        <h3 class="mb-1">What version {newest} would change</h3>
        <Loaded of={changesUnder(ladder.key, newest)}>
          {#snippet children(changes)}
            {@const theirs = changes.filter((c) => left.some((f) => f.studentId === c.studentId))}
            {#if theirs.length}
              <VerdictChanges changes={theirs} />
            {:else}
              <p class="text-quiet text-sm">No gate of theirs would say anything else.</p>
            {/if}
          {/snippet}
        </Loaded>
      </div>
    {/if}
    <div class="mt-3 flex flex-wrap items-center gap-3">
      {#if asking}
        <span class="text-sm">No move goes up; each is written down as a decision.</span>
        <button class="btn btn-primary btn-sm" disabled={busy} onclick={moveAll}>Yes, move</button>
        <button class="btn btn-ghost btn-sm" onclick={() => (asking = false)}>Cancel</button>
      {:else}
        <button class="btn btn-outline btn-sm" onclick={() => (asking = true)}
          >Move {left.length === 1 ? left[0]!.name : `all ${left.length}`} to version {newest}…</button
        >
      {/if}
    </div>
  {/if}
</section>
