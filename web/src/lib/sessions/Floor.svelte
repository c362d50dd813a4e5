<script lang="ts">
  import { untrack } from 'svelte';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { newId, type Schemas } from '$lib/api/client';
  import { minutes } from '$lib/parts/format';
  import { keys } from '$lib/parts/keys.svelte';
  import { pageText } from '$lib/parts/problems';
  import { propText } from '$lib/planning/words';
  import BigCount from './BigCount.svelte';
  import CarriedNote from './CarriedNote.svelte';
  import ConfirmRow from './ConfirmRow.svelte';
  import DonePanel from './DonePanel.svelte';
  import GatePanel from './GatePanel.svelte';
  import { heartbeat } from './heartbeat';
  import { Keeper } from './keeper.svelte';
  import { outbox } from './outbox.svelte';
  import { Packed } from './pack';
  import QualityRow from './QualityRow.svelte';
  import { Runner } from './runner.svelte';
  import type { Entry } from './say';
  import ReshapePanel from './ReshapePanel.svelte';
  import SleptPanel from './SleptPanel.svelte';
  import StopPanel from './StopPanel.svelte';
  import { speaks } from './speaker.svelte';
  import { takenOutText } from './takenOut';
  import { Tones } from './tones';
  import { doing } from './words';

  interface Props {
    response: Schemas['PackResponse'];
    /** What was said in this session before, here or on another device. */
    said: readonly Entry[];
  }

  let { response, said }: Props = $props();
  const { sessionId, studentId, studentName } = untrack(() => response);
  const keeper = new Keeper(
    account.me!.user!.id,
    sessionId,
    untrack(() => response.plan),
  );
  const tones = new Tones();
  const runner = untrack(
    () =>
      new Runner(
        new Packed(response.pack),
        { now: () => Date.now(), id: newId, keep: (entry) => keeper.keep(entry), lay: (t) => tones.lay(t) },
        response.ended,
        said,
        keeper.seen,
      ),
  );
  let stopping = $state(false);
  let reshaping = $state(false);
  let silent = $state(false);

  $effect(() => {
    const tick = () => {
      runner.tick();
      keeper.see();
    };
    const stop = heartbeat(tick);
    return () => {
      stop();
      tones.lay([]);
    };
  });

  $effect(() => {
    const loads = outbox.ended[sessionId];
    if (loads) untrack(() => runner.bar(loads));
  });

  speaks(runner, () => silent);

  const side = $derived(runner.run.over ? null : runner.version.side);
  const working = $derived(!runner.run.over && runner.segment.kind === 'work');
  const evidence = $derived(
    runner.last && !runner.last.confirmed && !runner.confirmed ? runner.last : undefined,
  );

  function startOrPause() {
    tones.wake();
    runner.toggle();
  }

  function mute() {
    tones.on = !(silent = !silent);
    tones.lay([]);
  }

  function openStop() {
    runner.pause();
    stopping = true;
  }

  const confirm = () => evidence && runner.confirm(evidence.seconds, evidence.cleanReps);

  function key(event: KeyboardEvent) {
    if (
      stopping ||
      reshaping ||
      runner.asking ||
      runner.slept ||
      runner.run.over ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey
    ) {
      return;
    }
    const onButton = (event.target as HTMLElement).closest('button, a');
    const acts: Record<string, () => void> = {
      ArrowRight: () => runner.forward(),
      ArrowLeft: () => runner.back(),
      ...(onButton ? {} : { ' ': startOrPause }),
      ...(keys.letters
        ? {
            s: () => runner.skip(),
            p: openStop,
            b: () => runner.backOff(),
            c: confirm,
            ...Object.fromEntries([1, 2, 3, 4, 5].map((q) => [String(q), () => runner.rate(q)])),
          }
        : {}),
    };
    const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:window onkeydown={key} />

<main class="flex min-h-dvh flex-col">
  <header class="ruled flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-4 py-2">
    <a class="btn btn-ghost btn-sm" href={resolve('/sessions/[id]', { id: sessionId })}>Sheet</a>
    <h1 class="text-xl wrap-break-word">{studentName}</h1>
    <p
      class={[
        'ms-auto text-sm',
        keeper.unsaved ? 'bg-error text-error-content px-2 font-semibold' : 'text-quiet',
      ]}
      role="status"
    >
      {#if keeper.unsaved}This device keeps nothing: {keeper.unsaved} not saved. Make room; the session goes on.
      {:else if outbox.lost}{pageText(outbox.lost).split('.')[0]}: {outbox.waiting} kept here
      {:else if outbox.waiting || keeper.pending}sending {outbox.waiting || keeper.pending}
      {:else}all logged{/if}
      {#if outbox.refused.length}<a class="link-line" href={resolve('/waiting')}
          >{outbox.refused.length} refused</a
        >{/if}
    </p>
    {#if !runner.run.over}
      <button class="btn btn-ghost btn-sm" onclick={() => (reshaping = true)}>Less time</button>
    {/if}
    <button class="btn btn-ghost btn-sm" aria-pressed={silent} onclick={mute}
      >{silent ? 'Tones off' : 'Tones on'}</button
    >
  </header>

  {#if outbox.doubled.includes(sessionId)}
    <p class="bg-warning text-warning-content px-4 py-2" role="alert">
      Another device runs this session too. What is said here is kept, and counts for no gate until you have
      looked through both.
    </p>
  {/if}
  {#if runner.taken}
    <div class="bg-base-200 flex flex-wrap items-center gap-3 border-s-8 px-4 py-2" role="alert">
      <p class="grow basis-60">{takenOutText(runner.taken)}</p>
      <button class="btn btn-outline btn-sm" onclick={() => runner.seen()}>Seen</button>
    </div>
  {:else if runner.eased}
    <div class="bg-base-200 flex flex-wrap items-center gap-3 px-4 py-2" role="status">
      <p class="grow basis-60">{runner.eased}</p>
      <button class="btn btn-ghost btn-sm" onclick={() => runner.seen()}>Seen</button>
    </div>
  {/if}
  {#if response.carryOver && !runner.run.over && !runner.run.started}
    <CarriedNote student={studentId} note={response.carryOver} />
  {/if}
  {#if runner.run.over}
    <DonePanel
      {runner}
      session={sessionId}
      student={studentId}
      waits={outbox.waiting > 0 || keeper.pending > 0}
      {evidence}
      onconfirm={confirm}
    />
  {:else if stopping}
    <StopPanel
      stops={response.pack.stops}
      words={response.bodyWords}
      onclose={() => (stopping = false)}
      {side}
      onsignal={(stop, what) => {
        stopping = false;
        runner.signal(stop, what);
      }}
    />
  {:else if reshaping}
    <ReshapePanel {runner} onclose={() => (reshaping = false)} />
    <p class="pb-4 text-center">
      <button class="btn btn-error" onclick={openStop}>Pain</button>
    </p>
  {:else if runner.slept}
    <SleptPanel
      seconds={Math.round((runner.slept.to - runner.slept.from) / 1000)}
      what={runner.version.name}
      left={runner.secondsLeft}
      ontold={(seconds) => runner.tellGap(seconds)}
    />
  {:else if runner.asking}
    {#key runner.asking.id}
      <GatePanel
        gate={runner.asking}
        answered={runner.answered}
        needed={runner.needed}
        onanswer={(answers) => runner.answer(answers)}
      />
    {/key}
    <p class="pb-4 text-center">
      <button class="btn btn-error" onclick={openStop}>Pain</button>
    </p>
  {:else}
    <BigCount
      {side}
      means={catalogue.drill(runner.version.drill).sideMeans}
      title="{runner.version.name}{runner.version.variant === 'standard'
        ? ''
        : `, ${runner.version.variantName.toLowerCase()}`}"
      secondsLeft={runner.secondsLeft}
      {working}
      doing={doing(runner.segment)}
      effort={runner.effort}
    >
      {#if working && runner.segment.rounds > 1}Round {runner.segment.round} of {runner.segment.rounds}.{/if}
      {runner.cue}
      {#if runner.segment.kind === 'setUp'}{runner.version.prop ?? propText(runner.version.props)}{runner
          .version.note
          ? ` ${runner.version.note}`
          : ''}
        {catalogue.drill(runner.version.drill).felt}{/if}
    </BigCount>
    <p class="sr-only" aria-live="polite">
      {side ?? ''}
      {runner.version.name}, {doing(runner.segment)}, {runner.segment.seconds} seconds
    </p>
    {#if runner.offered}
      <div class="bg-base-200 flex flex-wrap items-center gap-3 px-4 py-2">
        <p>
          {runner.offered.name}, {runner.offered.side ?? 'both sides'}: try {runner.offered.variantName.toLowerCase()}
          if it is free of pain?
        </p>
        <button class="btn btn-outline btn-sm" onclick={() => runner.takeOffer()}>Try it</button>
        <button class="btn btn-ghost btn-sm" onclick={() => runner.declineOffer()}>No</button>
      </div>
    {/if}
    <ConfirmRow {evidence} onconfirm={confirm} />
    <footer class="grid gap-3 px-4 py-3">
      <p class="min-h-6 text-center">
        <span class="text-quiet">Next:</span>
        {#if runner.next}
          {runner.next.version.side ?? ''}
          {runner.next.version === runner.version
            ? doing(runner.next.segment).toLowerCase()
            : runner.next.version.name.toLowerCase()},
          <span class="figures">{minutes(runner.next.segment.seconds)}</span>
        {:else}the end{/if}
      </p>
      <div class="mx-auto flex flex-wrap justify-center gap-2">
        <button class="btn btn-lg btn-ghost" aria-label="Back" onclick={() => runner.back()}>←</button>
        <button class="btn btn-lg btn-accent w-40" onclick={startOrPause}
          >{runner.running ? 'Pause' : 'Run'}</button
        >
        <button class="btn btn-lg btn-ghost" aria-label="Next" onclick={() => runner.forward()}>→</button>
        <button class="btn btn-lg btn-outline" onclick={() => runner.skip()}
          >Skip <kbd class="kbd kbd-sm hidden md:inline">S</kbd></button
        >
        <button class="btn btn-lg btn-outline" onclick={() => runner.backOff()}
          >Back off <kbd class="kbd kbd-sm hidden md:inline">B</kbd></button
        >
        <button class="btn btn-lg btn-error" onclick={openStop}
          >Pain <kbd class="kbd kbd-sm text-base-content hidden md:inline">P</kbd></button
        >
      </div>
      <QualityRow {runner} />
    </footer>
  {/if}
</main>
