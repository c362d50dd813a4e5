<script lang="ts">
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import { Draft, draftKey } from '$lib/parts/draft.svelte';
  import { minutes } from '$lib/parts/format';
  import { keys } from '$lib/parts/keys.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText, problemText } from '$lib/parts/problems';
  import BigCount from '$lib/sessions/BigCount.svelte';
  import { heartbeat } from '$lib/sessions/heartbeat';
  import { blankPractice, phaseName, readPractice, writePractice } from '$lib/sessions/practice';
  import { PracticeClock } from '$lib/sessions/practiceClock.svelte';
  import PracticeForm from '$lib/sessions/PracticeForm.svelte';
  import PresetList from '$lib/sessions/PresetList.svelte';
  import { Tones } from '$lib/sessions/tones';

  /** Where the clock stands, over a reload. */
  type Kept = { practice: Schemas['Practice']; response: Schemas['PracticeResponse']; elapsed: number };

  const draft = new Draft(draftKey('practice', ''), blankPractice());
  const tones = new Tones();
  const clock = new PracticeClock({ now: () => Date.now(), lay: (t) => tones.lay(t) });
  let silent = $state(false);
  let refusal = $state<Refusal>();
  let wrong = $state<string[]>([]);
  let response = $state<Schemas['PracticeResponse']>();
  /** What the clock runs, and what is typed by now. */
  let runs = $state<Schemas['Practice']>();
  let typed = $state<Schemas['Practice']>();
  let asked = 0;

  const stored = (): Kept | undefined => {
    try {
      return JSON.parse(sessionStorage.getItem('practice') ?? 'null') ?? undefined;
    } catch {
      return undefined;
    }
  };

  /** The core works the practice out; while the clock is under way it keeps running what it runs. */
  async function workOut() {
    draft.keep();
    const read = readPractice($state.snapshot(draft.value));
    wrong = 'wrong' in read ? read.wrong : [];
    typed = 'practice' in read ? read.practice : undefined;
    if (!typed) return;
    const turn = ++asked;
    try {
      const worked = await ask(api.POST('/api/v1/compute/practice', { body: typed }));
      if (turn !== asked) return;
      refusal = undefined;
      response = worked;
      if (!clock.begun || clock.over) take();
    } catch (error) {
      if (turn !== asked) return;
      refusal = error as Refusal;
      if (refusal.problems.length) typed = undefined;
    }
  }

  function take() {
    if (!response) return;
    runs = typed;
    clock.set(response.segments);
  }

  function use(practice: Schemas['Practice']) {
    draft.value = writePractice(practice);
    if (clock.running) clock.toggle();
    clock.restart();
    void workOut();
  }

  const kept = stored();
  if (kept && kept.elapsed > 0) {
    runs = kept.practice;
    response = kept.response;
    clock.set(kept.response.segments, kept.elapsed);
  }
  void workOut();

  $effect(() =>
    heartbeat(() => {
      clock.tick();
      if (clock.begun && runs && response)
        sessionStorage.setItem(
          'practice',
          JSON.stringify({
            practice: runs,
            response: { ...response, segments: clock.segments },
            elapsed: clock.elapsed,
          }),
        );
    }),
  );
  $effect(() => () => tones.lay([]));

  const segment = $derived(clock.segment);
  const changed = $derived(clock.begun && !clock.over && JSON.stringify(runs) !== JSON.stringify(typed));
  const problem = (field: string) => {
    if (wrong.includes(field)) return 'Write a number.';
    const found = refusal?.problems.find((p) => p.field === field);
    return found && problemText(found);
  };

  function startOrPause() {
    tones.wake();
    clock.toggle();
  }

  function startAnew() {
    clock.restart();
    sessionStorage.removeItem('practice');
    take();
  }

  function mute() {
    tones.on = !(silent = !silent);
    tones.lay([]);
  }

  function key(event: KeyboardEvent) {
    if (!keys.isCommand(event)) return;
    const onButton = (event.target as HTMLElement).closest('button, a, summary, label');
    const acts: Record<string, () => void> = {
      ArrowRight: () => clock.forward(),
      ArrowLeft: () => clock.back(),
      ...(onButton ? {} : { ' ': startOrPause }),
    };
    const act = acts[event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:head><title>Timer · Tensarch</title></svelte:head>
<svelte:window onkeydown={key} />

<main class="grid gap-x-8 gap-y-6 p-5 lg:grid-cols-[22rem_minmax(0,1fr)] lg:p-7">
  <div class="order-last grid content-start gap-6 lg:order-none">
    <h1 class="hidden lg:block">Timer</h1>
    <form
      aria-label="Practice"
      onsubmit={(event) => {
        event.preventDefault();
        startOrPause();
      }}
      novalidate
    >
      <PracticeForm bind:text={draft.value} {problem} onchange={() => void workOut()} />
      <p class="mt-4" role="status">
        {#if typed && response && !refusal}<span class="figures font-semibold"
            >{minutes(response.seconds)}</span
          >
          in all{/if}
      </p>
      {#if refusal && !refusal.problems.length}
        <Notice tone="error">
          {pageText(refusal.code)}
          {#if clock.segments.length}The clock still runs what it had.{/if}
        </Notice>
      {/if}
    </form>
    <PresetList practice={typed} onuse={use} />
  </div>
  <div class="flex min-h-[70dvh] flex-col">
    <h1 class="lg:hidden">Timer</h1>
    {#if segment}
      {#if clock.over}
        <section class="m-auto text-center" aria-label="Now">
          <p class="font-head text-5xl font-semibold">Done</p>
        </section>
      {:else}
        <BigCount
          side={segment.side}
          title={phaseName(segment)}
          secondsLeft={clock.secondsLeft}
          working={segment.phase === 'work'}
          doing={clock.breath === undefined ? '' : `Breath ${clock.breath} of ${segment.breath!.at(-1)}`}
          effort={clock.effort}
          ramps={clock.segments.some((s) => s.effort)}
        >
          Round {segment.round} of {runs?.rounds ?? 1}
        </BigCount>
        <p class="sr-only" aria-live="polite">
          {segment.side ?? ''}
          {phaseName(segment)}, {segment.seconds} seconds
        </p>
      {/if}
      {#if clock.slept}
        <p class="bg-warning text-warning-content px-4 py-2" role="alert">
          This device slept for {minutes(clock.slept)}: the clock stood still.
        </p>
      {/if}
      {#if changed}
        <p class="px-4 py-2 text-center">
          What you typed comes with the next start.
          <button class="btn btn-outline btn-sm" onclick={startAnew}>Start it now</button>
        </p>
      {/if}
      <p class="text-quiet min-h-6 py-2 text-center">
        {#if !clock.over}
          {#if clock.next}Next: {clock.next.side ?? ''} hold,
            <span class="figures">{minutes(clock.next.seconds)}</span>{:else}Next: the end{/if}
        {/if}
      </p>
      <div class="flex flex-wrap justify-center gap-2">
        <button class="btn btn-lg btn-ghost" aria-label="Back" onclick={() => clock.back()}>←</button>
        <button class="btn btn-lg btn-accent w-40" onclick={startOrPause}
          >{clock.running ? 'Pause' : clock.over ? 'Once more' : clock.begun ? 'Go on' : 'Start'}</button
        >
        <button class="btn btn-lg btn-ghost" aria-label="Next" onclick={() => clock.forward()}>→</button>
        <button class="btn btn-lg btn-outline" disabled={!clock.begun} onclick={startAnew}
          >From the start</button
        >
        <button class="btn btn-lg btn-ghost" aria-pressed={silent} onclick={mute}
          >{silent ? 'Tones off' : 'Tones on'}</button
        >
      </div>
    {/if}
  </div>
</main>
