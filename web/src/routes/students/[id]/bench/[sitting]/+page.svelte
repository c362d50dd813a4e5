<script lang="ts">
  import { onMount, tick, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { Bench } from '$lib/measuring/bench.svelte';
  import { Device } from '$lib/measuring/device.svelte';
  import Figure from '$lib/measuring/Figure.svelte';
  import ScenarioPanel from '$lib/measuring/ScenarioPanel.svelte';
  import SittingNav, { itemName } from '$lib/measuring/SittingNav.svelte';
  import SittingEnd from '$lib/measuring/SittingEnd.svelte';
  import SidePanel from '$lib/measuring/SidePanel.svelte';
  import { Stopwatch } from '$lib/measuring/stopwatch.svelte';
  import { levelName } from '$lib/measuring/words';
  import Dialog from '$lib/parts/Dialog.svelte';
  import { keys } from '$lib/parts/keys.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import NotLoaded from '$lib/parts/NotLoaded.svelte';
  import { theStudent } from '$lib/students/student.svelte';
  import { tagName } from '$lib/students/tags';

  const student = theStudent();
  const bench = untrack(() => new Bench(student.id, page.params.sitting!));
  const watch = new Stopwatch();
  let instruments = $state<Schemas['InstrumentsResponse']>();
  let saveButton = $state<HTMLButtonElement>();
  const device = new Device((angle) => here && bench.capture(here, Math.round(angle * 10) / 10));

  const here = $derived(
    bench.view
      ? (bench.places.find((p) => p.side === null || p.side === bench.side) ?? bench.places[0])
      : undefined,
  );
  const usesDevice = $derived(
    !!instruments?.inclinometer &&
      bench.view !== undefined &&
      bench.places.some((p) => bench.entry(p).instrument === 'inclinometer' && !p.taken),
  );

  onMount(() => {
    const side = page.url.searchParams.get('side');
    void bench.load(side === 'left' || side === 'right' ? side : undefined);
    void ask(api.GET('/api/v1/instruments')).then((answer) => (instruments = answer));
    return () => {
      device.stop();
      watch.stop();
      void student.load();
    };
  });

  // Another coach reads in the same sitting, or has voided what was read.
  $effect(() => {
    if (student.heard) void untrack(() => bench.refresh());
  });

  $effect(() => {
    if (usesDevice) untrack(() => device.start());
    else untrack(() => device.stop());
  });

  $effect(() => {
    if (bench.complete) void tick().then(() => saveButton?.focus());
  });

  function press() {
    const seconds = watch.press();
    if (seconds !== undefined && here) bench.capture(here, seconds, true);
  }

  function key(event: KeyboardEvent) {
    if (!bench.view || !here || !account.mayWrite || !keys.isCommand(event)) return;
    const target = event.target as HTMLElement;
    const onButton = target.closest('button, a, [role=application]');
    // A space ticks what has the focus; Enter does not, and saves.
    const onTick = onButton ?? target.closest('label');
    const kind = bench.measure.kind;
    const acts: Record<string, () => void> = {
      l: () => bench.choose('left'),
      r: () => bench.choose('right'),
      w: () => bench.swapWarmth(),
      n: () => bench.next(),
      Backspace: () => bench.drop(here),
      ...(onButton && onButton !== saveButton ? {} : { Enter: () => void bench.save() }),
      ...(kind === 'hold' && !onTick ? { ' ': press } : {}),
      ...(usesDevice && !onTick ? { ' ': () => device.capture() } : {}),
      ...(kind === 'rate' ? { h: () => bench.addHit(here, true), m: () => bench.addHit(here, false) } : {}),
    };
    const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  }

  let asking = $state(false);

  /** What was taken and not saved is never thrown away without a question. */
  async function end() {
    if (bench.pending.length && !asking) {
      asking = true;
      return;
    }
    await bench.end();
    await goto(resolve('/students/[id]', { id: student.id }));
  }

  function goOn() {
    asking = false;
    bench.go(bench.view!.items.indexOf(bench.pending[0]!));
  }
</script>

<svelte:window onkeydown={key} />

{#if bench.failed}
  <div class="p-7"><NotLoaded code={bench.failed} /></div>
{:else if bench.view && bench.empty}
  <div class="grid max-w-2xl gap-4 p-7">
    <Notice tone="caution">
      Nothing of this sitting can be read any more.
      {#if bench.view.leftOut.length}
        Off limits by now: {bench.view.leftOut
          .map((h) => `${catalogue.measure(h.measure).name} (${tagName(h.tag)})`)
          .join('; ')}.
      {/if}
      {#if bench.view.changed.length}
        Changed since it began: {bench.view.changed.join('; ')}. A new sitting reads them as they are now.
      {/if}
    </Notice>
    <p class="flex flex-wrap gap-3">
      <button class="btn btn-accent" onclick={end}>End the sitting</button>
      <a class="btn btn-outline" href={resolve('/students/[id]/bench', { id: student.id })}>To the bench</a>
    </p>
  </div>
{:else if bench.view}
  <div class="grid gap-x-7 gap-y-5 px-5 py-5 md:grid-cols-[12rem_minmax(0,1fr)] lg:px-7">
    <SittingNav {bench} />
    <div class="min-w-0">
      {#if bench.finished}<SittingEnd onend={end} />{/if}
      <div class="mb-4 grid gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_auto]">
        <div class="min-w-0">
          <h2 class="text-2xl">{bench.measure.name}</h2>
          <p class="text-quiet">
            {bench.measure.reads}{#if bench.standard}. Hips {bench.standard}{/if}.
          </p>
          <ol class="mt-2 list-decimal ps-5 text-sm">
            {#each bench.item.protocol as step (step)}<li>{step}</li>{/each}
          </ol>
          <p class="mt-1 text-sm">
            <span class="text-quiet">From and to:</span>
            {bench.measure.landmarks.join(' · ')}
          </p>
        </div>
        <div class="w-44 max-sm:hidden">
          <Figure figure={bench.measure.figure} label={bench.measure.name} />
        </div>
        <div class="flex flex-wrap items-center gap-3 sm:col-span-2">
          {#if bench.mayBeCold}
            <div class="join" role="radiogroup" aria-label="Warmth">
              {#each ['warm', 'cold'] as const as warmth (warmth)}
                <label class="join-item btn btn-sm has-checked:bg-base-content has-checked:text-base-100">
                  <input
                    type="radio"
                    class="sr-only"
                    name="warmth"
                    checked={bench.warmth === warmth}
                    onchange={() => bench.warmth !== warmth && bench.swapWarmth()}
                  />
                  {warmth === 'warm' ? 'Warm' : 'Cold'}
                </label>
              {/each}
            </div>
            <p class="text-quiet text-sm">
              {bench.warmth === 'warm'
                ? 'Within 20 minutes after at least 8 minutes of warm-up.'
                : 'No training for 4 hours. Gates read warm.'}
            </p>
          {/if}
          {#if bench.measure.levels.length}
            <label class="flex items-center gap-2 text-sm">
              Level
              <select
                class="select select-sm w-40"
                value={bench.level}
                onchange={(event) => bench.chooseLevel(event.currentTarget.value)}
              >
                {#each bench.measure.levels as level (level.key)}
                  <option value={level.key}>{levelName(bench.measure, level.key)}</option>
                {/each}
              </select>
            </label>
          {/if}
        </div>
      </div>
      {#if bench.notice}<div class="mb-4"><Notice>{bench.notice}</Notice></div>{/if}
      <div class={['grid gap-6', bench.measure.perSide && 'sm:grid-cols-2']}>
        {#each bench.places as place (place.slot)}
          <SidePanel
            {bench}
            {place}
            device={instruments?.inclinometer ? device : undefined}
            {watch}
            onpress={press}
          />
        {/each}
      </div>
      {#if usesDevice && instruments?.inclinometer?.scenario}
        <ScenarioPanel scenario={instruments.inclinometer.scenario} />
      {/if}
      {#if account.mayWrite}
        <div class="ruled bg-base-100 sticky bottom-0 mt-5 flex flex-wrap items-center gap-4 border-t py-3">
          <button
            bind:this={saveButton}
            class={['btn', bench.complete ? 'btn-accent' : 'btn-primary']}
            disabled={bench.busy}
            onclick={() => bench.save()}>Save and go on</button
          >
          {#if bench.unlikely}
            <button class="btn btn-outline" disabled={bench.busy} onclick={() => bench.save(true)}
              >Yes, really</button
            >
          {/if}
          <p role="status" class="text-sm">{bench.saved}</p>
          {#if !bench.finished}
            <button class="btn btn-ghost ms-auto" onclick={end}>End the sitting</button>
          {/if}
        </div>
      {/if}
    </div>
  </div>
{:else}
  <p class="text-quiet p-7">Loading…</p>
{/if}

{#if asking}
  <Dialog title="Something is taken and not saved" onclose={() => (asking = false)}>
    <p>{bench.pending.map((item) => itemName(bench, item)).join('; ')}: ending the sitting throws it away.</p>
    {#snippet actions()}
      <button class="btn btn-accent" onclick={goOn}>Go back and save it</button>
      <button class="btn btn-error" onclick={end}>Throw it away and end</button>
    {/snippet}
  </Dialog>
{/if}
