<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, type Refusal, type Schemas } from '$lib/api/client';
  import { dayAndTime, longDay, number, today } from '$lib/parts/format';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import { resolve } from '$app/paths';
  import Changes from './Changes.svelte';
  import DayPanel from './DayPanel.svelte';
  import EndProgramme from './EndProgramme.svelte';
  import KeepBar from './KeepBar.svelte';
  import Loads from './Loads.svelte';
  import Outlook from './Outlook.svelte';
  import PlanNotices from './PlanNotices.svelte';
  import { longer, readSketch, writeSketch, type SketchText } from './sketch';
  import SketchForm from './SketchForm.svelte';
  import { Trial } from './trial.svelte';
  import Wall from './Wall.svelte';
  import NewsList from './NewsList.svelte';
  import { dayAt } from './words';

  interface Props {
    student: OpenStudent;
    page: Schemas['ProgrammePage'];
    onchanged: () => void;
  }

  let { student, page, onchanged }: Props = $props();
  const path = $derived({ path: { studentId: student.id } });
  /** What was kept or changed here, until the page shows it. */
  let kept = $state.raw<Schemas['PlanView']>();
  const latest = $derived(kept && kept.number > (page.plan?.number ?? 0) ? kept : page.plan);
  const stands = $derived(latest && !latest.endedAt ? latest : undefined);
  let open = $state(untrack(() => !page.plan || !!page.plan.endedAt));
  let text = $state<SketchText>(untrack(() => writeSketch(first())));
  const trial = new Trial(
    () => student.id,
    () => readSketch(text),
  );
  const tried = $derived(trial.plan);
  let picked = $state<string>();
  let refused = $state.raw<Schemas['BrokenRule'][]>([]);
  let said = $state('');
  let line = $state<HTMLElement>();
  /** Another coach kept a version meanwhile. */
  let theirs = $state(false);
  /** What was shown when another version turned up, or the programme was ended: nothing is kept before that is there to be seen. */
  let unseen = $state.raw<Schemas['ProgrammePage']>();
  const basedOn = $derived(latest?.number ?? 0);
  /** What stood when the coach began to change it, and whether that was over: the page may hear of another meanwhile. */
  let began = $state(untrack(standing));
  const moved = $derived(open && !!tried && (began.basedOn !== basedOn || began.ended !== !!latest?.endedAt));

  const shown = $derived(tried ?? stands);
  /** Planned again, it would be another plan; of a day with two sessions it would be the same. */
  const outdated = $derived(page.news.some((news) => news.code !== 'twice'));
  const chosen = $derived(dayAt(shown, picked));

  function standing() {
    return { basedOn: latest?.number ?? 0, ended: !!latest?.endedAt };
  }

  /** What stands; of a plan that is over, the same again from the next week on. */
  function first(): Schemas['ProgrammeSketch'] {
    if (page.plan && !page.plan.endedAt) return page.plan.sketch;
    return page.suggested ?? page.plan!.sketch;
  }

  // A new programme is worked out at once; one that stands is shown as it is.
  $effect(() => {
    if (untrack(() => open && account.mayWrite)) void untrack(() => trial.now());
    return () => trial.stop();
  });

  async function send(call: () => Promise<Schemas['PlanView']>, done: string) {
    trial.working = true;
    trial.refusal = undefined;
    refused = [];
    said = '';
    try {
      kept = await call();
      trial.forget();
      open = false;
      theirs = false;
      said = done;
      onchanged();
    } catch (error) {
      trial.refusal = error as Refusal;
      theirs = trial.refusal.status === 412;
      if (!theirs) return;
      unseen = page;
      onchanged();
    } finally {
      trial.working = false;
    }
  }

  async function keep() {
    await send(
      () =>
        ask(
          api.POST('/api/v1/students/{studentId}/programme', {
            params: path,
            body: { id: trial.id, sketch: tried!.sketch, ...(theirs ? standing() : began) },
          }),
        ),
      'The plan is kept, and its sessions are laid out.',
    );
    // Kept from far down: what was said of it stands above, and the button is gone.
    await tick();
    if (said) line?.focus();
  }

  const edit = (edit: Schemas['PlanEdit'], done: string) =>
    send(
      () =>
        ask(
          api.POST('/api/v1/students/{studentId}/programme/edits', {
            params: path,
            body: { id: newId(), basedOn, edit },
          }),
        ),
      done,
    );

  /** Looked at by the checker first; what it refuses stays where it is. */
  async function move(day: Schemas['PlanDayView'], to: string) {
    const change: Schemas['PlanEdit'] = { kind: 'move', day: day.day, half: day.half, to, toHalf: null };
    refused = [];
    trial.refusal = undefined;
    said = '';
    picked = `${day.day}/${day.half}`;
    trial.working = true;
    try {
      const verdict = await ask(
        api.POST('/api/v1/students/{studentId}/programme/edits/try', {
          params: path,
          body: { edit: change },
        }),
      );
      refused = verdict.refused;
    } catch (error) {
      trial.refusal = error as Refusal;
      return;
    } finally {
      trial.working = false;
    }
    if (refused.length === 0) {
      await edit(change, 'Moved, and pinned there.');
      picked = `${to}/${day.half}`;
    }
  }

  function again() {
    text = writeSketch(stands!.sketch);
    began = standing();
    open = true;
    void trial.now();
  }

  /** What if there were more time on such a day: worked out, and not kept. */
  function more(day: Schemas['PlanDayView'], minutes: number) {
    text = longer(open ? text : writeSketch(shown!.sketch), day.day, day.half, minutes);
    if (!open) began = standing();
    open = true;
    void trial.now();
  }

  function ended() {
    leave();
    [said, open] = ['The programme is over: what was still to come is thrown away.', true];
    unseen = page;
    began = { basedOn, ended: true };
    void trial.now();
    onchanged();
  }

  function leave() {
    trial.forget();
    open = false;
    theirs = false;
  }
</script>

<div class="grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,1fr)_19rem]">
  <div class="grid content-start gap-4">
    <header class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h2 class="text-2xl">
        {tried ? 'As it would be' : stands ? 'The weeks ahead' : 'A programme'}
      </h2>
      {#if stands && !tried}
        <p class="text-quiet text-sm">
          <a
            class="link-line"
            href={resolve('/students/[id]/plan/[number]', { id: student.id, number: String(stands.number) })}
            >Version {stands.number}</a
          >, {stands.by}, {dayAndTime(stands.at)}{stands.gap > 0
            ? ` · at most ${number(100 * stands.gap, 1)} % from the best`
            : ''}
        </p>
      {/if}
      {#if account.mayWrite && stands && !open}
        <button
          type="button"
          class={['btn btn-sm ms-auto', outdated ? 'btn-accent' : 'btn-outline']}
          onclick={again}>{outdated ? 'Plan again' : 'Change the programme'}</button
        >
      {/if}
    </header>
    {#if page.news.length && !tried}
      <NewsList news={page.news} student={student.id} />
    {/if}
    <PlanNotices
      plan={page.plan}
      theirs={(theirs || moved) && page !== unseen}
      refusal={trial.refusal}
      {refused}
      onleave={leave}
      onagain={() => {
        began = standing();
        theirs = false;
        void trial.now();
      }}
    />
    <p class="text-quiet scroll-mt-6 text-sm" role="status" tabindex="-1" bind:this={line}>
      {trial.working ? 'Working it out…' : said}
    </p>

    {#if shown}
      <div class={[trial.working && 'opacity-60']}>
        <Wall
          plan={shown}
          {picked}
          onpick={(day) => (picked = day && `${day.day}/${day.half}`)}
          onmove={!tried && account.mayWrite ? move : undefined}
        />
      </div>
      <Loads plan={shown} />
      <Changes changes={shown.changes} />
      <Outlook student={student.id} plan={shown} sketch={shown.sketch} />
    {:else if !open}
      <p>No weeks are planned yet.</p>
    {/if}
    {#if tried && account.mayWrite}
      <KeepBar
        changed={stands ? tried.changed : undefined}
        disabled={trial.working || page === unseen}
        onkeep={keep}
        onleave={leave}
      />
    {/if}
  </div>

  <aside class="grid content-start gap-5">
    {#if chosen}
      <DayPanel
        week={chosen.week}
        day={chosen.day}
        onpin={tried
          ? undefined
          : () =>
              edit(
                {
                  kind: chosen.day.pinned ? 'unpin' : 'pin',
                  day: chosen.day.day,
                  half: chosen.day.half,
                  to: null,
                  toHalf: null,
                },
                chosen.day.pinned ? 'No longer pinned.' : 'Pinned.',
              )}
        onmove={tried ? undefined : (to) => void move(chosen.day, to)}
        onmore={account.mayWrite ? (minutes) => more(chosen.day, minutes) : undefined}
      />
    {:else if shown && !open}
      <p class="text-quiet text-sm">Choose a session to see why it is there.</p>
    {/if}
    {#if open && account.mayWrite}
      <SketchForm
        bind:text
        skills={page.skills}
        minutes={String(student.page?.student.student.sessionMinutes ?? 60)}
        refusal={trial.refusal}
        onchange={() => trial.later()}
      />
      {#if stands}<EndProgramme student={student.id} onended={ended} />{/if}
    {:else if !shown && account.mayWrite}
      <button type="button" class="btn btn-accent justify-self-start" onclick={() => (open = true)}
        >Plan the weeks</button
      >
    {/if}
    {#if stands && !open && stands.sketch.start > today()}
      <p class="text-quiet text-sm">It begins on {longDay(stands.sketch.start)}.</p>
    {/if}
  </aside>
</div>
