<script lang="ts">
  import { tick } from 'svelte';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import LandmarkPlacer from '$lib/measuring/LandmarkPlacer.svelte';
  import PictureUpload from '$lib/measuring/PictureUpload.svelte';
  import { viewName } from '$lib/measuring/words';
  import { longDay, shortDay, withUnit } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  /** Whether they want to be pictured; nothing while nobody has asked. */
  const consent = $derived(student.page!.consents.said.find((c) => c.kind === 'pictures')?.given);
  const views = [
    ...catalogue.content!.measures.filter((m) => m.picture).map((m) => m.key),
    ...catalogue.content!.views.map((v) => v.key),
  ];
  let view = $state('');
  let adding = $state(views[0]!);
  let picked = $state<string[]>([]);
  let looked = $state<HTMLElement>();

  const load = (before?: string) =>
    ask(
      api.GET('/api/v1/students/{studentId}/pictures', {
        params: { path: { studentId: student.id }, query: { view: view || undefined, before } },
      }),
    );
  let pages = $derived.by(() => {
    void student.heard;
    return [load()];
  });

  /** One opens it; a second of the same view stands beside it. */
  function pick(picture: Schemas['PictureItem'], all: Schemas['PictureItem'][]) {
    if (picked.includes(picture.id)) picked = picked.filter((id) => id !== picture.id);
    else {
      const same = picked.filter((id) => all.find((p) => p.id === id)?.view === picture.view);
      picked = [...same.slice(-1), picture.id];
      void tick().then(() => looked?.scrollIntoView({ block: 'start' }));
    }
  }
</script>

{#snippet shown(all: Schemas['PictureItem'][])}
  {@const open = all
    .filter((p) => picked.includes(p.id))
    .toSorted((a, b) => a.takenAt.localeCompare(b.takenAt))}
  {#if open.length}
    <section
      bind:this={looked}
      aria-label={open.length === 2 ? 'Two pictures side by side' : 'One picture'}
      class="mb-7"
    >
      <div class={['grid gap-6', open.length === 2 && 'sm:grid-cols-2']}>
        {#each open as picture (picture.id)}
          <div>
            <h2 class="mb-2">{viewName(picture.view)}, {longDay(picture.takenAt)}</h2>
            <LandmarkPlacer
              studentId={student.id}
              {picture}
              still={open.length === 2}
              roomy
              onkept={() => (pages = [load()])}
            />
          </div>
        {/each}
      </div>
      <button class="btn btn-ghost btn-sm mt-3" onclick={() => (picked = [])}>Close</button>
    </section>
  {/if}
{/snippet}

<div class="max-w-5xl px-5 py-5 lg:px-7">
  {#if consent !== true}
    <p class="next-thing mb-4 font-semibold">
      {consent === false
        ? 'The consent to pictures was withdrawn: none is taken, and none is shown.'
        : 'Nobody has asked for a consent to pictures yet: none is taken before.'}
      <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}>Consents</a>
    </p>
  {/if}
  {#each consent === false ? [] : pages as page, i (i)}
    <Loaded of={page}>
      {#snippet children(list)}
        {#if i === 0}
          {@render shown(list.pictures)}
          <div class="mb-3 flex flex-wrap items-center gap-3">
            <label for="view" class="text-sm font-semibold">View</label>
            <select id="view" class="select w-72" bind:value={view}>
              <option value="">All</option>
              {#each views as key (key)}<option value={key}>{viewName(key)}</option>{/each}
            </select>
            <p class="text-quiet text-sm">Open one to place its landmarks; open a second to compare.</p>
          </div>
          {#if list.pictures.length === 0}
            <p class="mb-3">
              No side pictures yet. A side picture gives angles and the line, and shows the change weeks
              later.
            </p>
          {/if}
        {/if}
        <ul class="flex flex-wrap gap-3">
          {#each list.pictures as picture (picture.id)}
            <li>
              <button
                class={[
                  'border p-1 text-start text-sm',
                  picked.includes(picture.id) ? 'border-base-content bg-base-200' : 'ruled',
                ]}
                aria-pressed={picked.includes(picture.id)}
                onclick={() => pick(picture, list.pictures)}
              >
                <img
                  class="mb-1 h-40 w-auto max-w-60 object-contain"
                  alt=""
                  loading="lazy"
                  src="/api/v1/students/{student.id}/pictures/{picture.id}/image"
                />
                <span class="block font-semibold">{viewName(picture.view)}</span>
                {shortDay(picture.takenAt)}{#if picture.marks[0]}<span class="figures"
                    >, {withUnit(picture.marks[0].angles.value, '°')}</span
                  >{/if}
              </button>
            </li>
          {/each}
        </ul>
        {#if list.next && i === pages.length - 1}
          <button class="btn btn-outline mt-4" onclick={() => (pages = [...pages, load(list.next!)])}
            >Older pictures</button
          >
        {/if}
      {/snippet}
    </Loaded>
  {/each}
  {#if account.mayWrite && consent}
    <section class="mt-7 max-w-md">
      <h2 class="mb-2">Add a picture</h2>
      <label class="mb-2 flex items-center gap-3 text-sm">
        It shows
        <select class="select select-sm w-64" bind:value={adding}>
          {#each views as key (key)}<option value={key}>{viewName(key)}</option>{/each}
        </select>
      </label>
      <PictureUpload
        studentId={student.id}
        view={adding}
        onkept={(picture) => {
          pages = [load()];
          picked = [picture.id];
        }}
      />
    </section>
  {/if}
</div>
