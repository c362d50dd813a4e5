<script lang="ts">
  import { resolve } from '$app/paths';
  import { api, ask, type Schemas } from '$lib/api/client';
  import CalendarLinks from '$lib/calendar/CalendarLinks.svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { dayAndTime, longDay, shortDay, timeOf } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { skillNames } from '$lib/planning/phases';
  import { actionOf } from '$lib/skills/nextStep';
  import TodayList from '$lib/programmes/TodayList.svelte';
  import StepLink from '$lib/skills/StepLink.svelte';
  import { nextText } from '$lib/skills/words';
  import { liftText, reasonText, signalLine, tagList, tagName } from '$lib/students/tags';

  const asked = ask(api.GET('/api/v1/today'));

  const halves = { am: 'Morning', pm: 'Afternoon' } as const;
  const doing = (s: Schemas['TodaySession']): string =>
    s.endedAt ? `done ${timeOf(s.endedAt)}` : s.startedAt ? 'under way' : s.half ? halves[s.half] : '';
  const waits = (t: Schemas['TodayPage']): boolean =>
    [t.signals, t.bars, t.clearances, t.missed, t.tests, t.gates].some((list) => list.length > 0);
</script>

{#snippet cautions(text: string, of: { studentId: string; name: string })}
  <a class="link-line" href={resolve('/students/[id]/cautions', { id: of.studentId })}
    >{text}<span class="sr-only"> of {of.name}</span></a
  >
{/snippet}
{#snippet plan(text: string, word: string, of: { studentId: string; name: string })}
  <a class="link-line" href={resolve('/students/[id]/plan', { id: of.studentId })}
    >{text}<span class="sr-only"> {word} {of.name}</span></a
  >
{/snippet}

<svelte:head><title>Today · Tensarch</title></svelte:head>

<main class="min-w-0 px-5 py-5 lg:px-7">
  <Loaded of={asked}>
    {#snippet children(today)}
      <div class="flex flex-wrap items-baseline justify-between gap-3">
        <h1>{longDay(today.day)}</h1>
        {#if today.students > 0}
          <a class="link-line" href={resolve('/roster')}>Plan everybody’s weeks</a>
        {/if}
      </div>
      {#if today.students === 0}
        <p class="mt-4">
          Nobody is here yet. <a class="link-line" href={resolve('/students/new')}>Add a student</a>
        </p>
      {:else}
        <div class="mt-5 grid gap-x-10 gap-y-7 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <section aria-labelledby="trains">
            <h2 id="trains">Who trains today</h2>
            {#if today.sessions.length === 0}
              <p class="mt-2">
                Nobody has a session today. <a class="link-line" href={resolve('/students')}
                  >Plan somebody’s weeks</a
                >
              </p>
            {/if}
            <ul class={['mt-2', today.sessions.length > 0 && 'ruled border-t']}>
              {#each today.sessions as s (s.session)}
                <li class="ruled flex flex-wrap items-center gap-x-4 gap-y-1 border-b py-2">
                  <span class="min-w-0 grow basis-60 wrap-break-word">
                    <a
                      class="font-semibold hover:underline"
                      href={resolve('/students/[id]', { id: s.studentId })}>{s.name}</a
                    >
                    <span class="text-quiet block text-sm"
                      >{skillNames(s.skill, s.beside)} · {s.minutes} min{s.tests
                        ? ' · a test in it'
                        : ''}{s.unasked > 0
                        ? ` · ${s.unasked} new intake ${s.unasked === 1 ? 'question' : 'questions'} to ask`
                        : ''}{s.consentOpen ? ' · consent to train to ask' : ''}</span
                    >
                  </span>
                  <span class="text-quiet text-sm">{doing(s)}</span>
                  {#if s.endedAt}
                    <a class="btn btn-sm btn-ghost" href={resolve('/sessions/[id]', { id: s.session })}
                      >See it<span class="sr-only"> of {s.name}</span></a
                    >
                  {:else}
                    <a
                      class={['btn btn-sm', s.startedAt ? 'btn-accent' : 'btn-outline']}
                      href={resolve('/sessions/[id]', { id: s.session })}
                      >{s.startedAt ? 'Go on' : 'Open'}<span class="sr-only">
                        the session of {s.name}</span
                      ></a
                    >
                  {/if}
                </li>
              {/each}
            </ul>
          </section>

          <div class="grid content-start gap-7">
            <TodayList
              id="pain"
              title="Pain and stops since yesterday"
              of={today.signals}
              key={(s) => s.studentId + s.at + s.kind}
            >
              {#snippet line(s)}
                <strong>{s.name}</strong>: {signalLine(s)}
                <span class="text-quiet block text-sm">{dayAndTime(s.at)}</span>
              {/snippet}
              {#snippet action(s)}{@render cautions('Cautions', s)}{/snippet}
            </TodayList>
            <TodayList
              id="bars"
              title="Barred since yesterday"
              of={today.bars}
              key={(b) =>
                b.studentId + b.reason.code + b.reason.question + b.reason.signal + b.reason.lapsedOn}
            >
              {#snippet line(b)}
                <strong>{b.name}</strong>: {tagList(b.tags)}
                {b.reason.level === 'lightOnly' ? 'light only' : 'off limits'}
                <span class="text-quiet block text-sm">{reasonText(b.reason)}; {liftText(b.reason)}</span>
              {/snippet}
              {#snippet action(b)}
                {#if b.reason.liftedBy === 'screen'}{@render cautions('Ask the screen again', b)}
                {:else}{@render plan('Look at the plan', 'of', b)}{/if}
              {/snippet}
            </TodayList>
            <TodayList
              id="clearances"
              title="Clearances"
              of={today.clearances}
              key={(c) => c.studentId + c.until + c.tags.join()}
            >
              {#snippet line(c)}
                <strong>{c.name}</strong>: {c.lapsed ? 'lapsed' : 'lapses'} after {shortDay(c.until)}
                <span class="text-quiet block text-sm">{c.tags.map(tagName).join(', ')}</span>
              {/snippet}
              {#snippet action(c)}{@render cautions(c.lapsed ? 'Record a new one' : 'See it', c)}{/snippet}
            </TodayList>
            <TodayList id="missed" title="Missed" of={today.missed} key={(m) => m.studentId}>
              {#snippet line(m)}
                <strong>{m.name}</strong>: {m.sessions}
                {m.sessions === 1 ? 'session' : 'sessions'}, the last on {shortDay(m.last)}
              {/snippet}
              {#snippet action(m)}{@render plan('Plan again', 'for', m)}{/snippet}
            </TodayList>
            <TodayList
              id="tests"
              title="Tests due"
              of={today.tests}
              key={(t) => t.studentId + t.skill + t.side}
            >
              {#snippet line(t)}
                <strong>{t.name}</strong>: {catalogue.ladder(t.skill).name}
                {#if t.side}<SideMark side={t.side} />{/if}
                {#if t.nearest}<span class="text-quiet block text-sm">{nextText(t.nearest)}</span>{/if}
              {/snippet}
              {#snippet action(t)}
                {#if t.nearest}
                  <StepLink
                    action={actionOf(t.nearest, { student: t.studentId, skill: t.skill, side: t.side })}
                    of={t.name}
                  />
                {/if}
              {/snippet}
            </TodayList>
            <TodayList
              id="gates"
              title="Gates to decide"
              of={today.gates}
              key={(g) => g.studentId + g.skill + g.side}
            >
              {#snippet line(g)}
                <strong>{g.name}</strong>: {catalogue.ladder(g.skill).name}
                {#if g.side}<SideMark side={g.side} />{/if}
              {/snippet}
              {#snippet action(g)}
                <a class="link-line" href={resolve('/students/[id]', { id: g.studentId })}
                  >Decide<span class="sr-only"> for {g.name}</span></a
                >
              {/snippet}
            </TodayList>
            {#if today.openGates > today.gates.length}
              <p>
                <a class="link-line" href={resolve('/readiness')}>All {today.openGates} open gates</a>
              </p>
            {/if}
            {#if !waits(today)}
              <p>Nothing waits for you: no gate is open, nothing hurts, nobody has missed anything.</p>
            {/if}
            <CalendarLinks student={null} />
          </div>
        </div>
      {/if}
    {/snippet}
  </Loaded>
</main>
