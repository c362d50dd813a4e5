<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { dayAndTime } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';

  type Run = Schemas['RosterRunView'];

  let run = $state.raw<Run | null>(null);
  let alsoNew = $state(true);
  let refusal = $state.raw<Refusal>();
  const soon = 700;
  const running = $derived(!!run && !run.endedAt);
  const first = load();

  async function load() {
    run = (await ask(api.GET('/api/v1/roster-runs/newest'))).run;
  }

  // Looked at again while it runs; a server that is away for a moment is asked again.
  $effect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      load().then(
        () => (refusal = undefined),
        (error: unknown) => (refusal = error as Refusal),
      );
    }, soon);
    return () => clearInterval(timer);
  });

  async function send(call: Promise<Run>) {
    refusal = undefined;
    try {
      run = await call;
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  const begin = () => send(ask(api.POST('/api/v1/roster-runs', { body: { id: newId(), alsoNew } })));
  const cancel = () =>
    send(ask(api.POST('/api/v1/roster-runs/{runId}/cancel', { params: { path: { runId: run!.id } } })));

  const outcome = (line: Schemas['RosterRunLine']): string => {
    switch (line.outcome) {
      case 'planned':
        return line.changed === 1
          ? 'planned, one session is another'
          : `planned, ${line.changed} sessions are others`;
      case 'same':
        return 'stays as it is';
      case 'failed':
        return `not planned: ${pageText(line.code ?? 'unexpected')}`;
      case 'skipped':
        return 'left alone: no programme, or on no ladder';
      default:
        return running && !run?.cancelledAt ? 'waits' : 'not reached';
    }
  };
  const failed = $derived(run?.lines.filter((l) => l.outcome === 'failed').length ?? 0);
</script>

<svelte:head><title>Everybody’s weeks · Tensarch</title></svelte:head>

<main class="min-w-0 px-5 py-5 lg:px-7">
  <h1>Everybody’s weeks</h1>
  <Loaded of={first}>
    {#if account.mayWrite && !running}
      <p class="mt-3 max-w-2xl">
        Every plan is worked out again from today, with what was trained, missed and pinned. What is the same
        stays as it is; versions before can be read.
      </p>
      <div class="mt-3 flex flex-wrap items-center gap-4">
        <button type="button" class="btn btn-accent" onclick={begin}>Plan everybody</button>
        <label class="flex items-center gap-2">
          <input type="checkbox" class="checkbox" bind:checked={alsoNew} />
          those without a programme too, from their goals and days
        </label>
      </div>
    {/if}
    {#if refusal}<div class="mt-3"><Notice tone="error">{pageText(refusal.code)}</Notice></div>{/if}
    {#if run}
      <section class="mt-6 max-w-3xl" aria-label="The newest run">
        <div class="flex flex-wrap items-center gap-4">
          <label class="grid grow gap-1">
            <span role="status"
              >{run.done} of {run.lines.length}{failed ? `, ${failed} not planned` : ''}{run.cancelledAt
                ? ', cancelled'
                : ''}</span
            >
            <progress class="progress w-full" value={run.done} max={Math.max(1, run.lines.length)}></progress>
          </label>
          {#if running && account.mayWrite}
            <button type="button" class="btn btn-outline btn-sm" disabled={!!run.cancelledAt} onclick={cancel}
              >{run.cancelledAt ? 'Stopping…' : 'Cancel'}</button
            >
          {/if}
        </div>
        <p class="text-quiet text-sm">{run.by}, {dayAndTime(run.at)}{run.endedAt ? '' : ', under way'}</p>
        <ul class="ruled mt-3 border-t">
          {#each run.lines as line (line.studentId)}
            <li class="ruled flex flex-wrap items-baseline justify-between gap-x-4 border-b py-1.5">
              <a
                class="link-line min-w-0 wrap-break-word"
                href={resolve('/students/[id]/plan', { id: line.studentId })}>{line.name}</a
              >
              <span class={['text-sm', line.outcome === 'failed' ? 'text-error font-semibold' : 'text-quiet']}
                >{outcome(line)}</span
              >
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  </Loaded>
</main>
