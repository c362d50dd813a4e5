<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Download from '$lib/parts/Download.svelte';
  import Followers from './Followers.svelte';
  import { tagName } from '$lib/students/tags';
  import { asks, testName } from './words';

  interface Props {
    ladder: Schemas['Ladder'];
    line: Schemas['LadderLine'] | undefined;
    followers: Schemas['LadderFollower'][];
    onedit: () => void;
  }

  let { ladder, line, followers, onedit }: Props = $props();
  const limbs: Partial<Record<Schemas['Limb'], string>> = {
    otherSide: ', the other side',
    eachSide: ', each side',
    betterSide: ', the better side',
  };
  const limb = (test: Schemas['ReadinessTest']) =>
    'limb' in test && test.limb ? (limbs[test.limb] ?? '') : '';
</script>

<main class="max-w-5xl p-5 lg:p-7">
  <div class="mb-4 flex flex-wrap items-end justify-between gap-3">
    <div class="min-w-0">
      <h1 class="mb-1 wrap-break-word">{ladder.name}</h1>
      <p class="text-quiet">
        Version {ladder.version}{line && line.version > ladder.version
          ? `; the newest is ${line.version}`
          : ''} ·
        {ladder.perSide
          ? `each side climbs on its own, at most ${ladder.leadLimit} stage ahead`
          : 'both sides as one'}
        {line?.shipped === false ? ` · from ${catalogue.ladder(ladder.skill).name.toLowerCase()}` : ''}
      </p>
    </div>
    <div class="flex flex-wrap gap-2">
      <Download path="/api/v1/ladders/{ladder.key}/versions/{ladder.version}/file">Export as JSON</Download>
      {#if account.mayWrite}
        <button class="btn btn-primary" onclick={onedit}
          >{line?.shipped === false ? 'Make the next version' : 'Copy and change'}</button
        >
      {/if}
    </div>
  </div>
  <p class="mb-4 text-sm">
    Every gate also asks for no pain over 3 of 10 in {ladder.regions.map(tagName).join(', ')}, and for no hold
    on
    {ladder.requiredTags
      .map((t) => `${tagName(t.tag)}${t.fromStage > 1 ? ` (from stage ${t.fromStage})` : ''}`)
      .join(', ')}.
  </p>
  <ol>
    {#each ladder.stages as stage (stage.number)}
      <li class="ruled grid gap-x-6 gap-y-1 border-t py-3 md:grid-cols-[minmax(0,16rem)_minmax(0,1fr)]">
        <div>
          <h2 class="text-xl"><span class="figures">{stage.number}</span> {stage.name}</h2>
          <p class="text-sm">{stage.work}</p>
          {#if stage.core?.length}
            <p class="text-quiet mt-1 text-sm">
              Core: {stage.core.map((key) => catalogue.drill(key).name.toLowerCase()).join('; ')}.
            </p>
          {/if}
        </div>
        <ul class="text-sm">
          {#each stage.tests as test, i (i)}
            <li><strong>{testName(test)}</strong>{limb(test)}: {asks(test)}</li>
          {/each}
        </ul>
      </li>
    {/each}
  </ol>
  <Followers {ladder} newest={line?.version ?? ladder.version} {followers} />
</main>
