<script lang="ts">
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { untrack } from 'svelte';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import Notice from '$lib/parts/Notice.svelte';
  import NotLoaded from '$lib/parts/NotLoaded.svelte';
  import { shortDay, timeOf } from '$lib/parts/format';
  import { placeName } from '$lib/students/tags';
  import { follow } from '$lib/students/follow.svelte';
  import { OpenStudent, openStudent } from '$lib/students/student.svelte';

  let { children } = $props();
  const id = $derived(page.params.id!);
  const student = $derived(new OpenStudent(id));
  openStudent(() => student);

  $effect(() => {
    const opened = student;
    void untrack(() => opened.load());
    return follow(opened.id, (pulse) => void opened.hear(pulse));
  });

  const tabs = [
    { route: '/students/[id]', name: 'Arch' },
    { route: '/students/[id]/bench', name: 'Bench' },
    { route: '/students/[id]/readings', name: 'Readings' },
    { route: '/students/[id]/pictures', name: 'Pictures' },
    { route: '/students/[id]/plan', name: 'Plan' },
    { route: '/students/[id]/sessions', name: 'Sessions' },
    { route: '/students/[id]/cautions', name: 'Cautions' },
    { route: '/students/[id]/decisions', name: 'Decisions' },
    { route: '/students/[id]/notes', name: 'Notes' },
    { route: '/students/[id]/edit', name: 'Body' },
    { route: '/students/[id]/history', name: 'History' },
  ] as const;

  /** A page below a tab belongs to it; the first tab is the student's own page alone. */
  const isHere = (route: string) =>
    page.route.id === route || (route !== '/students/[id]' && page.route.id?.startsWith(`${route}/`));

  const about = $derived.by(() => {
    const p = student.page;
    if (!p) return '';
    const offLimits = p.bars.tags.filter((t) => t.level === 'offLimits').length;
    const lightOnly = p.bars.tags.length - offLimits;
    const cautions = !p.screened
      ? `intake screen not ${p.screen.state === 'notScreened' ? 'answered yet' : 'up to date'}`
      : p.bars.tags.length
        ? [offLimits && `${offLimits} off limits`, lightOnly && `${lightOnly} light only`]
            .filter(Boolean)
            .join(', ')
        : 'no cautions';
    return [
      p.student.ageYears,
      p.student.student.about,
      p.skills.some((s) => catalogue.ladder(s.skill).standards.length)
        ? `hips ${p.student.student.splitStandard}`
        : undefined,
      `sensation ceiling ${p.bars.sensationCeiling}`,
      cautions,
      p.student.archived ? 'archived' : undefined,
    ]
      .filter((x) => x != null)
      .join(' · ');
  });
</script>

<svelte:head><title>{student.page?.student.student.name ?? 'Student'} · Tensarch</title></svelte:head>

<main class="min-w-0">
  {#if student.failed}
    <div class="p-7"><NotLoaded code={student.failed} /></div>
  {:else if student.page}
    <header class="px-5 pt-5 lg:px-7">
      <h1 class="wrap-break-word">{student.page.student.student.name}</h1>
      <p class="text-quiet mt-1 wrap-break-word">{about}</p>
      <p class="text-quiet text-sm" role="status">
        {#if student.news}{student.news.by} saved something at {timeOf(student.news.at)}: it is shown here.{/if}
      </p>
      {#each student.page.notes.slice(0, 3) as note (note.id)}
        <p class="border-base-content mt-1 max-w-prose border-s-4 ps-3 text-sm wrap-break-word">
          {#if note.carryOver && !note.doneAt}<strong>Next session:</strong>{/if}
          {note.text}
        </p>
      {/each}
      <nav aria-label="Student" class="ruled mt-3 flex flex-wrap gap-x-5 border-b">
        {#each tabs as tab (tab.route)}
          <a
            href={resolve(tab.route, { id })}
            aria-current={isHere(tab.route) ? 'page' : undefined}
            class={[
              '-mb-px border-b-2 py-2',
              isHere(tab.route) ? 'border-base-content font-semibold' : 'text-quiet border-transparent',
            ]}>{tab.name}</a
          >
        {/each}
      </nav>
    </header>
    {#if student.page.leftOut}
      <div class="px-5 pt-5 lg:px-7">
        <Notice tone="caution">
          {student.page.leftOut === 1
            ? 'One stored entry cannot be read and counts for nothing.'
            : `${student.page.leftOut} stored entries cannot be read and count for nothing.`}
          <a class="link-line" href={resolve('/students/[id]/readings', { id })}>See the readings</a>
        </Notice>
      </div>
    {/if}
    {#if student.page.voidedPains.length}
      <div class="px-5 pt-5 lg:px-7">
        <Notice tone="caution">
          A reading was voided, and the pain that was told with it counts all the same:
          {student.page.voidedPains
            .map((p) => `${placeName(p.region)}, ${p.pain} of 10, ${shortDay(p.at)}`)
            .join('; ')}.
          <a class="link-line" href={resolve('/students/[id]/history', { id })}
            >Look at it: let it stand, or strike it out</a
          >
        </Notice>
      </div>
    {/if}
    {#key id}{@render children()}{/key}
  {:else}
    <p class="text-quiet p-7" aria-live="polite">Loading…</p>
  {/if}
</main>
