<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { signalLine } from '$lib/students/tags';
  import { dayAndTime, longDay, minutes, shortDay, today } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import SideMark from '$lib/parts/SideMark.svelte';
  import DoneLine from '$lib/planning/DoneLine.svelte';
  import QuickReadings from '$lib/planning/QuickReadings.svelte';
  import SessionHand from '$lib/planning/SessionHand.svelte';
  import { phaseBlocks, sameOnBoth, sideSeconds, skillNames } from '$lib/planning/phases';
  import SheetPaper from '$lib/planning/SheetPaper.svelte';
  import { ruleText } from '$lib/planning/verdicts';
  import BeforeStart from '$lib/planning/BeforeStart.svelte';
  import MakeAgain from '$lib/planning/MakeAgain.svelte';
  import { follow } from '$lib/students/follow.svelte';
  import { doseText, drillReason, noteText, outdatedText, packingText, propText } from '$lib/planning/words';

  const id = $derived(page.params.id!);
  const read = () => ask(api.GET('/api/v1/sessions/{sessionId}', { params: { path: { sessionId: id } } }));
  let changed = $state(0);
  const sheet = $derived.by(() => {
    void changed;
    return read();
  });

  $effect(() => {
    let end: (() => void) | undefined;
    let gone = false;
    void sheet.then(
      ({ studentId }) => {
        if (!gone) end = follow(studentId, () => changed++);
      },
      () => undefined,
    );
    return () => {
      gone = true;
      end?.();
    };
  });

  /** Who trains: asked before the start, and not let go of while it is asked for again, so that nothing typed is lost. */
  let person = $state<Schemas['StudentPage']>();
  $effect(() => {
    let gone = false;
    void sheet
      .then(({ studentId }) =>
        ask(api.GET('/api/v1/students/{studentId}', { params: { path: { studentId } } })),
      )
      .then(
        (read) => {
          if (!gone) person = read;
        },
        () => undefined,
      );
    return () => (gone = true);
  });

  const meansOf = (drill: string) => catalogue.drill(drill).sideMeans;
  const sideText = (side: Schemas['PlannedSide']) =>
    `${side.variant} ${doseText(side.dose)} ${propText(side.props)}`;
</script>

<svelte:head><title>Session sheet · Tensarch</title></svelte:head>

<main class="min-w-0 print:hidden">
  <Loaded of={sheet}>
    {#snippet children(s)}
      <div class="grid xl:grid-cols-[minmax(0,1fr)_21rem]">
        <div class="px-5 py-5 lg:px-7">
          <div class="flex flex-wrap items-start gap-x-6 gap-y-3">
            <div class="grow">
              <h1 class="wrap-break-word">
                <a class="hover:underline" href={resolve('/students/[id]', { id: s.studentId })}
                  >{s.studentName}</a
                >
              </h1>
              <p class="text-quiet mt-1">
                {skillNames(s.skill, s.beside)} · {shortDay(s.plan.date)} ·
                <span class="figures">{minutes(s.totalSeconds)}</span>
                of {s.plan.minutes} min · ceiling {s.sensationCeiling} of 10 · pain above 3 stops
              </p>
            </div>
            <div class="no-print flex flex-wrap gap-2">
              {#if account.mayWrite && !s.deleted && !s.endedAt}
                {#if s.plan.date <= today()}
                  <a class="btn btn-outline" href={resolve('/sessions/[id]/log', { id })}>Log it by hand</a>
                {/if}
                {#if !s.nowBarred.length && !s.outdated.length}
                  <a class="btn btn-accent" href={resolve('/sessions/[id]/run', { id })}
                    >{s.startedAt ? 'Go on' : 'Run it'}</a
                  >
                {/if}
              {/if}
            </div>
          </div>
          <div class="no-print mt-2 flex flex-wrap items-center gap-2">
            <a class="btn btn-sm btn-ghost" href={resolve('/sessions/[id]/sheet', { id })}>Sheet to print</a>
            {#if account.mayWrite && !s.deleted && !s.startedAt && !s.endedAt && !s.outdated.includes('otherFormat')}
              <a class="btn btn-sm btn-outline" href={resolve('/sessions/[id]/edit', { id })}>Change it</a>
            {/if}
            <SessionHand session={s} onchange={() => changed++} />
          </div>
          {#if s.closed && !s.endedAt}
            <p class="mt-2 text-sm">The studio is closed on that day.</p>
          {/if}
          {#if s.packing.length && !s.endedAt}
            <p class="mt-3 text-sm wrap-break-word">
              <strong>It needs:</strong>
              {packingText(s.packing)}
            </p>
          {/if}
          {#if s.carryOver}
            <p class="border-base-content mt-4 max-w-prose border-s-4 ps-3 wrap-break-word">
              <strong>From last time:</strong>
              {s.carryOver.text}
            </p>
          {/if}
          {#if account.mayWrite && !s.deleted && !s.startedAt && !s.endedAt && s.plan.date <= today()}
            {#if person}<BeforeStart student={s.studentId} page={person} onsaid={() => changed++} />{/if}
          {/if}
          {#if s.deleted}
            <div class="mt-4"><Notice tone="caution">This planned session was deleted.</Notice></div>
          {:else if s.nowBarred.length}
            <div class="mt-4">
              <Notice tone="error"
                >{pageText('planBarred')}
                {#if !s.startedAt && s.plan.date <= today()}<MakeAgain
                    session={s}
                    onchange={() => changed++}
                  />{/if}</Notice
              >
            </div>
          {:else if s.outdated.length && !s.startedAt && s.plan.date > today()}
            <p class="text-quiet mt-4">It is for {longDay(s.plan.date)}, and is run on that day.</p>
          {:else if s.outdated.length}
            <div class="mt-4">
              <Notice tone="error"
                >{outdatedText(s.outdated)} <MakeAgain session={s} onchange={() => changed++} /></Notice
              >
            </div>
          {/if}
          {#if s.doubled}
            <div class="mt-4">
              <Notice tone="caution">
                Two devices ran this session without hearing of each other. {s.doubled}
                {s.doubled === 1 ? 'round counts' : 'rounds count'} for no gate until you say which were done.
                <a class="link-line" href={resolve('/students/[id]/history', { id: s.studentId })}
                  >Look through them</a
                >
              </Notice>
            </div>
          {/if}
          {#if s.endedAt}
            <section class="mt-5" aria-label="What was done">
              <h2 class="mb-1">
                {s.done.some((d) => !d.skipped) ? 'Done' : 'Ended, and nothing was logged'}, {dayAndTime(
                  s.endedAt,
                )}
              </h2>
              <ul class="ruled border-t">
                {#each s.done as d, i (i)}
                  <DoneLine line={d} student={s.studentId} onchange={() => changed++} />
                {:else}<li class="py-1">Nothing was logged.</li>{/each}
              </ul>
              {#if s.said.length}
                <h3 class="mt-3 mb-1 text-base">What the body said</h3>
                <ul class="ruled border-t">
                  {#each s.said as said (said.id)}
                    <li class="ruled border-b py-1">
                      <strong>{signalLine(said)}</strong>
                      <span class="text-quiet text-sm"
                        >{said.drill ? `${catalogue.drill(said.drill).name}, ` : ''}{dayAndTime(
                          said.at,
                        )}</span
                      >
                    </li>
                  {/each}
                </ul>
              {/if}
              {#if account.mayWrite}
                <QuickReadings student={s.studentId} done={s.done.filter((d) => !d.skipped)} at={s.endedAt} />
              {/if}
            </section>
          {/if}
          {#each phaseBlocks(s.plan.drills) as block, i (i)}
            <section class="mt-5" aria-label={block.title}>
              <h2 class="mb-1">{block.title}</h2>
              <ul class="ruled border-t">
                {#each block.drills as d (d.id)}
                  <li
                    class="ruled grid break-inside-avoid gap-x-4 border-b py-2 sm:grid-cols-[minmax(0,14rem)_minmax(0,1fr)]"
                  >
                    <div>
                      <a
                        class="font-bold hover:underline"
                        href={resolve('/library/drills/[drill]', { drill: d.drill })}
                        >{catalogue.drill(d.drill).name}</a
                      >
                      {#if s.beside.length && d.skill && block.phase !== 'warm' && block.phase !== 'down'}
                        <p class="text-sm font-semibold">{catalogue.ladder(d.skill).name}</p>
                      {/if}
                      <p class="text-quiet text-sm">{drillReason(d.reason)}</p>
                    </div>
                    <div class="grid gap-1 text-sm">
                      {#if sameOnBoth(d.sides, sideText)}
                        <p>
                          <SideMark
                            side={d.sides[0]!.side!}
                            text={d.sides[0]!.side!}
                            means={meansOf(d.drill)}
                          />, then
                          <SideMark side={d.sides[1]!.side!} text={d.sides[1]!.side!} />:
                          {catalogue.variant(d.drill, d.sides[0]!.variant).toLowerCase()}, {doseText(
                            d.sides[0]!.dose,
                          )}
                          {#if propText(d.sides[0]!.props)}<span class="text-quiet">
                              · {propText(d.sides[0]!.props)}</span
                            >{/if}
                        </p>
                      {:else}
                        {#each d.sides as side, i (i)}
                          <p>
                            {#if side.side}<SideMark
                                side={side.side}
                                text={side.side}
                                means={meansOf(d.drill)}
                              />:{/if}
                            {#if side.variant !== 'standard'}{catalogue
                                .variant(d.drill, side.variant)
                                .toLowerCase()},{/if}
                            {doseText(side.dose)}
                            {#if propText(side.props)}<span class="text-quiet">
                                · {propText(side.props)}</span
                              >{/if}
                          </p>
                        {/each}
                      {/if}
                      {#if d.prop}<p>{d.prop}</p>{/if}
                      {#if d.cue}<p>“{d.cue}”</p>{/if}
                      {#if d.note}<p class="wrap-break-word">{d.note}</p>{/if}
                      <p class="text-quiet figures">
                        {sideSeconds(s.parts, d)
                          .map((n) => minutes(n))
                          .join(' + ')}
                      </p>
                    </div>
                  </li>
                {/each}
              </ul>
            </section>
          {/each}
        </div>
        <aside
          class="ruled bg-base-200 border-t px-5 py-5 xl:min-h-dvh xl:border-s xl:border-t-0"
          aria-label="What shaped it"
        >
          <h2 class="mb-2">What shaped it</h2>
          <ul class="grid gap-2 text-[0.95rem]">
            {#if s.plan.bent}
              <li>
                <strong>Changed by hand.</strong>
                {s.plan.bent.map((code) => ruleText(code)).join(' ')}
              </li>
            {/if}
            {#each s.plan.notes as note, i (i)}<li>{noteText(note, s.beside.length > 0)}</li>{/each}
          </ul>
          <p class="ruled mt-5 border-t pt-3 text-sm">
            Stop at a pinch, sharp pain, numbness or dizziness. This is a training plan, not medical advice;
            send a health question to a licensed clinician.
          </p>
        </aside>
      </div>
    {/snippet}
    {#snippet failed(code)}
      {#if code === 'unreachable'}
        <p class="mt-4">
          <a class="btn btn-accent" href={resolve('/sessions/[id]/run', { id })}>Run it from this device</a>
        </p>
      {/if}
    {/snippet}
  </Loaded>
</main>

<div class="hidden print:block">
  <Loaded of={sheet}>{#snippet children(s)}<SheetPaper session={s} />{/snippet}</Loaded>
</div>
