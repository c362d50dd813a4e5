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
  import StepLink from '$lib/skills/StepLink.svelte';
  import { nextText } from '$lib/skills/words';
  import { reasonText, signalName, tagName } from '$lib/students/tags';

  const asked = ask(api.GET('/api/v1/today'));

  const halves = { am: 'Morning', pm: 'Afternoon' } as const;
  const doing = (s: Schemas['TodaySession']): string =>
    s.endedAt ? `done ${timeOf(s.endedAt)}` : s.startedAt ? 'under way' : s.half ? halves[s.half] : '';
</script>

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
                        : ''}</span
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
            {#if today.signals.length}
              <section aria-labelledby="pain">
                <h2 id="pain">Pain and stops since yesterday</h2>
                <ul class="ruled mt-2 border-t">
                  {#each today.signals as s (s.studentId + s.at + s.kind)}
                    <li class="ruled flex flex-wrap items-baseline gap-x-3 border-b py-2">
                      <span class="min-w-0 grow wrap-break-word">
                        <strong>{s.name}</strong>: {signalName(s.kind)}{s.region
                          ? `, ${tagName(s.region)}`
                          : ''}{s.pain != null ? `, ${s.pain} of 10` : ''}
                        <span class="text-quiet block text-sm">{dayAndTime(s.at)}</span>
                      </span>
                      <a class="link-line" href={resolve('/students/[id]/cautions', { id: s.studentId })}
                        >Cautions<span class="sr-only"> of {s.name}</span></a
                      >
                    </li>
                  {/each}
                </ul>
              </section>
            {/if}
            {#if today.clearances.length}
              <section aria-labelledby="clearances">
                <h2 id="clearances">Clearances</h2>
                <ul class="ruled mt-2 border-t">
                  {#each today.clearances as c (c.studentId + c.until + c.tags.join())}
                    <li class="ruled flex flex-wrap items-baseline gap-x-3 border-b py-2">
                      <span class="min-w-0 grow wrap-break-word"
                        ><strong>{c.name}</strong>: {c.lapsed ? 'lapsed' : 'lapses'} after {shortDay(c.until)}
                        <span class="text-quiet block text-sm">{c.tags.map(tagName).join(', ')}</span></span
                      >
                      <a class="link-line" href={resolve('/students/[id]/cautions', { id: c.studentId })}
                        >{c.lapsed ? 'Record a new one' : 'See it'}<span class="sr-only">
                          of {c.name}</span
                        ></a
                      >
                    </li>
                  {/each}
                </ul>
              </section>
            {/if}
            {#if today.missed.length}
              <section aria-labelledby="missed">
                <h2 id="missed">Missed</h2>
                <ul class="ruled mt-2 border-t">
                  {#each today.missed as m (m.studentId)}
                    <li class="ruled flex flex-wrap items-baseline gap-x-3 border-b py-2">
                      <span class="min-w-0 grow wrap-break-word"
                        ><strong>{m.name}</strong>: {m.sessions}
                        {m.sessions === 1 ? 'session' : 'sessions'}, the last on {shortDay(m.last)}</span
                      >
                      <a class="link-line" href={resolve('/students/[id]/plan', { id: m.studentId })}
                        >Plan again<span class="sr-only"> for {m.name}</span></a
                      >
                    </li>
                  {/each}
                </ul>
              </section>
            {/if}
            {#if today.bars.length}
              <section aria-labelledby="bars">
                <h2 id="bars">Barred since yesterday</h2>
                <ul class="ruled mt-2 border-t">
                  {#each today.bars as b (b.studentId + b.reason.tag + b.reason.code + b.reason.question)}
                    <li class="ruled flex flex-wrap items-baseline gap-x-3 border-b py-2">
                      <span class="min-w-0 grow wrap-break-word"
                        ><strong>{b.name}</strong>: {tagName(b.reason.tag)}
                        {b.reason.level === 'lightOnly' ? 'light only' : 'off limits'}
                        <span class="text-quiet block text-sm">{reasonText(b.reason)}</span></span
                      >
                      <a class="link-line" href={resolve('/students/[id]/plan', { id: b.studentId })}
                        >Look at the plan<span class="sr-only"> of {b.name}</span></a
                      >
                    </li>
                  {/each}
                </ul>
              </section>
            {/if}
            {#if today.tests.length}
              <section aria-labelledby="tests">
                <h2 id="tests">Tests due</h2>
                <ul class="ruled mt-2 border-t">
                  {#each today.tests as t (t.studentId + t.skill + t.side)}
                    <li class="ruled flex flex-wrap items-center gap-x-3 border-b py-2">
                      <span class="min-w-0 grow wrap-break-word"
                        ><strong>{t.name}</strong>: {catalogue.ladder(t.skill).name}
                        {#if t.side}<SideMark side={t.side} />{/if}
                        {#if t.nearest}<span class="text-quiet block text-sm">{nextText(t.nearest)}</span
                          >{/if}</span
                      >
                      {#if t.nearest}
                        <StepLink
                          action={actionOf(t.nearest, { student: t.studentId, skill: t.skill, side: t.side })}
                          of={t.name}
                        />
                      {/if}
                    </li>
                  {/each}
                </ul>
              </section>
            {/if}
            <section aria-labelledby="gates">
              <h2 id="gates">Gates to decide</h2>
              {#if today.gates.length === 0}
                <p class="mt-2">No gate is open now.</p>
              {:else}
                <ul class="ruled mt-2 border-t">
                  {#each today.gates as g (g.studentId + g.skill + g.side)}
                    <li class="ruled flex flex-wrap items-baseline gap-x-3 border-b py-2">
                      <span class="min-w-0 grow wrap-break-word"
                        ><strong>{g.name}</strong>: {catalogue.ladder(g.skill).name}
                        {#if g.side}<SideMark side={g.side} />{/if}</span
                      >
                      <a class="link-line" href={resolve('/students/[id]', { id: g.studentId })}
                        >Decide<span class="sr-only"> for {g.name}</span></a
                      >
                    </li>
                  {/each}
                </ul>
                {#if today.openGates > today.gates.length}
                  <p class="mt-2">
                    <a class="link-line" href={resolve('/readiness')}>All {today.openGates} open gates</a>
                  </p>
                {/if}
              {/if}
            </section>
            <CalendarLinks student={null} />
          </div>
        </div>
      {/if}
    {/snippet}
  </Loaded>
</main>
