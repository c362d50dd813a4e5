<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { shortDay } from '$lib/parts/format';
  import Download from '$lib/parts/Download.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { problemText } from '$lib/parts/problems';
  import { ladderDraft } from '$lib/skills/editor.svelte';

  const ladders = ask(api.GET('/api/v1/ladders'));
  let refusal = $state<Refusal>();

  async function copy(line: Schemas['LadderLine']) {
    const ladder = await ask(
      api.GET('/api/v1/ladders/{ladder}/versions/{version}', {
        params: { path: { ladder: line.key, version: line.version } },
      }),
    );
    const made = ladderDraft.copy(ladder);
    await goto(resolve('/ladders/[ladder]/[version]', { ladder: made.key, version: 'new' }));
  }

  async function take(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    refusal = undefined;
    try {
      const ladder = await ask(api.POST('/api/v1/ladders/read', { body: { text: await file.text() } }));
      const made = ladderDraft.copy(ladder, ladder.name);
      await goto(resolve('/ladders/[ladder]/[version]', { ladder: made.key, version: 'new' }));
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<svelte:head><title>Ladders · Tensarch</title></svelte:head>

<main class="max-w-5xl p-5 lg:p-7">
  <div class="mb-4 flex flex-wrap items-end justify-between gap-3">
    <div>
      <h1 class="mb-1">Ladders</h1>
      <p class="text-quiet max-w-prose">
        The stages of each skill and the gates between them. Copy one to change it; whoever follows a version
        keeps it until you move them.
      </p>
    </div>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-outline" href={resolve('/ladders/policy')}>Policy bench</a>
      <Download path="/api/v1/ladders/schema">JSON Schema</Download>
      {#if account.mayWrite}
        <label class="btn btn-outline">
          Import a ladder
          <input type="file" class="sr-only" accept=".json,application/json" onchange={take} />
        </label>
      {/if}
    </div>
  </div>
  {#if refusal}
    <div class="mb-4">
      <Notice tone="error">
        {#each refusal.problems as p, i (i)}<span class="block">{p.field}: {problemText(p)}</span>{/each}
      </Notice>
    </div>
  {/if}
  <Loaded of={ladders}>
    {#snippet children(list)}
      {#each [{ title: 'Your own', own: true }, { title: 'Shipped', own: false }] as part (part.title)}
        {@const lines = list.filter((l) => l.shipped !== part.own)}
        <section class="mb-7" aria-label={part.title}>
          <h2 class="mb-1">{part.title}</h2>
          <ul class="ruled border-t">
            {#each lines as l (l.key)}
              <li
                class="ruled grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-b py-2 md:grid-cols-[minmax(0,16rem)_minmax(0,1fr)_auto]"
              >
                <span class="min-w-0">
                  <a
                    class="font-head text-xl font-semibold wrap-break-word hover:underline"
                    href={resolve('/ladders/[ladder]/[version]', {
                      ladder: l.key,
                      version: String(l.version),
                    })}>{l.name}</a
                  >
                  {#if part.own}<span class="text-quiet block text-sm"
                      >from {catalogue.ladder(l.skill).name.toLowerCase()}</span
                    >{/if}
                </span>
                <span class="text-quiet col-span-2 row-start-2 text-sm md:col-span-1 md:row-start-auto">
                  {#if l.unreadable}What is stored cannot be read: make it again from a shipped one. ·{/if}
                  {l.stages} stages · version {l.version}{l.changedAt ? ` of ${shortDay(l.changedAt)}` : ''} ·
                  {l.following === 0
                    ? 'nobody on it'
                    : `${l.following} ${l.following === 1 ? 'student' : 'students'}${l.behind ? `, ${l.behind} on an older version` : ''}`}
                </span>
                {#if account.mayWrite && !l.unreadable}
                  <button class="btn btn-outline btn-sm" onclick={() => copy(l)} aria-label="Copy {l.name}"
                    >Copy</button
                  >
                {/if}
              </li>
            {:else}
              <li class="py-2">None yet. Copy a shipped one below to change it.</li>
            {/each}
          </ul>
        </section>
      {/each}
    {/snippet}
  </Loaded>
</main>
