<script lang="ts">
  import { untrack } from 'svelte';
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import { minutes } from '$lib/parts/format';
  import { keys } from '$lib/parts/keys.svelte';
  import { pageText } from '$lib/parts/problems';
  import { propText } from '$lib/planning/words';
  import { Outbox } from './outbox.svelte';
  import { Runner } from './runner.svelte';
  import StopPanel from './StopPanel.svelte';
  import { Tones } from './tones';
  import { doing } from './words';

  interface Props {
    response: Schemas['PackResponse'];
  }

  let { response }: Props = $props();
  const { sessionId, pack, studentId, studentName } = untrack(() => response);
  const keep = `run:${sessionId}`;
  const kept = localStorage.getItem(keep);
  const outbox = new Outbox(sessionId);
  const tones = new Tones();
  const runner = new Runner(
    pack,
    {
      sets: (sets) => outbox.add({ sets }),
      signal: (signal) => outbox.add({ signals: [signal] }),
      finished: () => {
        outbox.add({ finishedAt: new Date().toISOString() });
        localStorage.removeItem(keep);
        localStorage.removeItem(`pack:${sessionId}`);
      },
      sound: (moment) => tones.sound(moment),
    },
    () => Date.now(),
    kept ? JSON.parse(kept) : undefined,
  );
  let stopping = $state(false);
  let quality = $state<number>();
  let silent = $state(false);

  $effect(() => {
    const beat = setInterval(() => runner.tick(), 100);
    const again = setInterval(() => void outbox.send(), 10_000);
    void outbox.send();
    const screen = navigator.wakeLock?.request('screen').catch(() => undefined);
    return () => {
      clearInterval(beat);
      clearInterval(again);
      void screen?.then((lock) => lock?.release());
    };
  });

  $effect(() => {
    if (!runner.finished) localStorage.setItem(keep, JSON.stringify(runner.kept));
  });

  $effect(() => {
    if (outbox.nowBarred.length) untrack(() => runner.bar(outbox.nowBarred));
  });

  const side = $derived(runner.finished ? null : runner.line.part.side);
  const working = $derived(!runner.finished && runner.segment.kind === 'work');

  function startOrPause() {
    tones.wake();
    runner.toggle();
  }

  function rate(value: number) {
    quality = value;
    runner.quality(value);
  }

  function mute() {
    silent = !silent;
    tones.on = !silent;
  }

  function openStop() {
    runner.running = false;
    stopping = true;
  }

  function key(event: KeyboardEvent) {
    if (stopping || runner.asking || runner.finished || event.ctrlKey || event.metaKey || event.altKey) {
      if (event.key === 'Escape') stopping = false;
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
            ...Object.fromEntries([1, 2, 3, 4, 5].map((q) => [String(q), () => rate(q)])),
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
    <p class="text-quiet ms-auto text-sm" role="status">
      {#if outbox.lost}{pageText(outbox.lost).split('.')[0]}: {outbox.waiting} kept here
      {:else if outbox.waiting}sending {outbox.waiting}
      {:else}all logged{/if}
    </p>
    <button class="btn btn-ghost btn-sm" aria-pressed={silent} onclick={mute}
      >{silent ? 'Tones off' : 'Tones on'}</button
    >
  </header>

  {#if runner.finished}
    <section class="m-auto max-w-xl p-6 text-center">
      <p class="font-head text-5xl font-semibold">Done</p>
      <p class="my-4">
        {outbox.waiting
          ? `${outbox.waiting} facts are still on this device and go out when the server answers.`
          : 'Everything is logged.'}
      </p>
      <div class="flex justify-center gap-3">
        <a class="btn btn-accent" href={resolve('/students/[id]', { id: studentId })}>See what it changed</a>
        <a class="btn btn-outline" href={resolve('/sessions/[id]', { id: sessionId })}>What was done</a>
      </div>
    </section>
  {:else if stopping}
    <StopPanel
      stops={pack.stops}
      onclose={() => (stopping = false)}
      onsignal={(stop, region, pain) => {
        stopping = false;
        runner.signal(stop, region, pain);
      }}
    />
  {:else if runner.asking}
    <section class="m-auto grid max-w-xl gap-4 p-6 text-center" aria-label="Today’s test">
      <h2 class="text-4xl">Breath free for three breaths?</h2>
      <p>
        Warm-up done, three quarters of the depth, {runner.line.part.side} side. This holds for today only.
      </p>
      <div class="grid gap-2">
        <button class="btn btn-primary btn-lg" onclick={() => runner.answer('go')}>Go</button>
        <button class="btn btn-outline btn-lg" onclick={() => runner.answer('easier')}>Easier version</button>
        <button class="btn btn-outline btn-lg" onclick={() => runner.answer('notToday')}>Not today</button>
      </div>
    </section>
  {:else}
    <section
      class={[
        'flex grow flex-col items-center justify-center gap-1 border-b-8 px-4 py-3 text-center',
        side === 'left' ? 'border-left-side' : side === 'right' ? 'border-right-side' : 'ruled',
      ]}
      aria-label="Now"
    >
      <p
        class={[
          'font-head text-4xl font-semibold md:text-5xl',
          side === 'left' && 'text-left-side',
          side === 'right' && 'text-right-side',
        ]}
      >
        {#if side}<span aria-hidden="true">{side === 'left' ? '◐' : '◑'}</span>
          {side === 'left' ? 'Left' : 'Right'}{:else}Both{/if}
      </p>
      <h2 class="text-2xl md:text-3xl">
        {runner.line.part.name}{#if runner.version.variant !== 'standard'}, {runner.version.name.toLowerCase()}{/if}
      </h2>
      <p
        class={['figures text-[9rem] leading-none md:text-[15rem]', !working && 'text-quiet']}
        aria-live="off"
        data-testid="count"
      >
        {runner.secondsLeft}
      </p>
      <p class="font-head text-3xl font-semibold">
        {doing(runner.segment)}{#if runner.effort != null}&nbsp;· <span class="figures"
            >{runner.effort} %</span
          >{/if}
      </p>
      <div class="ruled h-4 w-full max-w-xl border" aria-hidden="true">
        {#if runner.effort != null}
          <div
            class={['h-full', side === 'right' ? 'bg-right-side' : 'bg-left-side']}
            style:width="{runner.effort}%"
          ></div>
        {/if}
      </div>
      <p class="text-quiet min-h-6">
        {#if working && runner.segment.rounds > 1}Round {runner.segment.round} of {runner.segment
            .rounds}.{/if}
        {runner.segment.cue ?? ''}
        {#if runner.segment.kind === 'setUp'}{propText(runner.line.part.props)}{/if}
      </p>
      <p class="sr-only" aria-live="polite">
        {side ?? ''}
        {runner.line.part.name}, {doing(runner.segment)}, {runner.segment.seconds} seconds
      </p>
    </section>
    {#if runner.offered}
      <div class="bg-base-200 flex flex-wrap items-center gap-3 px-4 py-2">
        <p>
          {runner.offered.part.name}, {runner.offered.part.side}: try
          {runner.offered.part.versions[
            runner.offered.part.versions[runner.offered.version]!.offer!
          ]!.name.toLowerCase()} if it is free of pain?
        </p>
        <button class="btn btn-outline btn-sm" onclick={() => runner.takeOffer()}>Try it</button>
        <button class="btn btn-ghost btn-sm" onclick={() => (runner.offered = undefined)}>No</button>
      </div>
    {/if}
    <footer class="grid gap-3 px-4 py-3">
      <p class="min-h-6 text-center">
        <span class="text-quiet">Next:</span>
        {#if runner.next}
          {runner.next.line.part.side ?? ''}
          {runner.next.line === runner.line
            ? doing(runner.next.segment).toLowerCase()
            : runner.next.line.part.name.toLowerCase()},
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
      <div
        class="flex flex-wrap items-center justify-center gap-2 text-sm"
        role="group"
        aria-label="Quality of what was just done"
      >
        <span class="text-quiet">Quality</span>
        {#each [1, 2, 3, 4, 5] as q (q)}
          <button
            class={['btn btn-sm w-10', quality === q ? 'btn-primary' : 'btn-ghost']}
            aria-pressed={quality === q}
            onclick={() => rate(q)}>{q}</button
          >
        {/each}
        <label class="text-quiet ms-4 hidden items-center gap-2 md:flex">
          <input
            type="checkbox"
            class="checkbox checkbox-sm"
            checked={keys.letters}
            onchange={(event) => keys.set(event.currentTarget.checked)}
          />
          Single-letter keys
        </label>
      </div>
    </footer>
  {/if}
</main>
