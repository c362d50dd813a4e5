<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { Bench } from '$lib/measuring/bench.svelte';
  import SidePanel from '$lib/measuring/SidePanel.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const bench = new Bench(student.id);

  $effect(() => {
    void bench.load().then(() => undefined);
    return () => void student.load();
  });

  function key(event: KeyboardEvent) {
    if (
      (event.target as HTMLElement).closest('input, textarea, select') ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey
    )
      return;
    const keys: Record<string, () => void> = {
      l: () => bench.choose('left'),
      r: () => bench.choose('right'),
      w: () => bench.swapWarmth(),
      n: () => bench.go(bench.index + 1),
    };
    const act = keys[event.key.toLowerCase()];
    if (act) {
      event.preventDefault();
      act();
    }
  }
</script>

<svelte:window onkeydown={key} />

{#if bench.failed}
  <div class="p-7"><Notice tone="error">{pageText(bench.failed)}</Notice></div>
{:else if bench.data}
  <div class="grid gap-x-7 gap-y-5 px-5 py-5 md:grid-cols-[12rem_minmax(0,1fr)] lg:px-7">
    <nav aria-label="Measures">
      <ol class="flex flex-wrap gap-1 md:grid">
        {#each bench.data.measures as m, i (m.measure)}
          <li>
            <button
              class={[
                'w-full px-3 py-2 text-start',
                i === bench.index ? 'bg-base-200 font-semibold' : 'text-quiet',
              ]}
              aria-current={i === bench.index ? 'step' : undefined}
              onclick={() => bench.go(i)}
            >
              {catalogue.measure(m.measure).name}
              {#if bench.pending(m.measure)}<span class="block text-xs">not saved yet</span>{/if}
            </button>
          </li>
        {/each}
      </ol>
      <p class="text-quiet mt-4 hidden text-sm md:block">
        Enter takes a trial; Enter in an empty field goes on. Outside a field: L and R choose the side, W warm
        or cold, N the next measure.
      </p>
    </nav>
    <div class="min-w-0">
      <div class="mb-4 flex flex-wrap items-start gap-x-6 gap-y-2">
        <div class="grow basis-80">
          <h2 class="text-2xl">{bench.measure.name}</h2>
          <p class="text-quiet">
            {bench.measure.reads}{#if bench.standard}. Hips {bench.standard}{/if}.
          </p>
          <ol class="mt-2 list-decimal ps-5 text-sm">
            {#each bench.measure.protocol as step (step)}<li>{step}</li>{/each}
          </ol>
        </div>
        <div>
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
          <p class="text-quiet mt-1 max-w-52 text-xs">
            {bench.warmth === 'warm'
              ? 'Within 20 minutes after at least 8 minutes of warm-up.'
              : 'No training for 4 hours. Gates read warm.'}
          </p>
        </div>
      </div>
      <div class="grid gap-6 sm:grid-cols-2">
        {#key bench.current.measure + bench.warmth}
          <SidePanel {bench} side="left" />
          <SidePanel {bench} side="right" />
        {/key}
      </div>
      {#if account.mayWrite}
        <div class="ruled bg-base-100 sticky bottom-0 mt-5 flex flex-wrap items-center gap-4 border-t py-3">
          <button class="btn btn-primary" disabled={bench.busy} onclick={() => bench.save()}
            >Save and go on</button
          >
          <p role="status" class="text-sm">{bench.saved}</p>
          {#if bench.saved}
            <a class="link-line text-sm" href={resolve('/students/[id]', { id: student.id })}>See the arch</a>
          {/if}
        </div>
      {/if}
    </div>
  </div>
{:else}
  <p class="text-quiet p-7">Loading…</p>
{/if}
