<script lang="ts">
  import { tick } from 'svelte';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask, newId, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { minutes, shortDay } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText, problemText } from '$lib/parts/problems';
  import { undo } from '$lib/parts/undo.svelte';
  import DrillPicker from '$lib/planning/DrillPicker.svelte';
  import EditRow from '$lib/planning/EditRow.svelte';
  import { SessionEditor } from '$lib/planning/editor.svelte';
  import { phaseBlocks, skillNames } from '$lib/planning/phases';
  import { ruleText } from '$lib/planning/verdicts';
  import { parseNumber } from '$lib/students/body';

  const id = $derived(page.params.id!);
  let editor = $state.raw<SessionEditor>();
  const sheet = $derived(
    ask(api.GET('/api/v1/sessions/{sessionId}', { params: { path: { sessionId: id } } })).then(async (s) => {
      const made = new SessionEditor(id, s.version);
      await made.start();
      editor = made;
      return s;
    }),
  );
  /** Chosen in place of a drill, or added. */
  let picking = $state.raw<{
    instead: Schemas['PlannedDrill'] | undefined;
    options: Promise<Schemas['DrillOption'][]>;
  }>();
  let to = $state('');
  let toError = $state<string>();

  const pick = (instead?: Schemas['PlannedDrill']) =>
    (picking = { instead, options: editor!.options(instead?.id ?? null) });

  async function taken(option: Schemas['DrillOption']) {
    const instead = picking!.instead;
    picking = undefined;
    await editor!.change(
      instead
        ? { kind: 'swap', id: instead.id, drill: option.drill, skill: option.skill }
        : { kind: 'add', drill: option.drill, skill: option.skill },
    );
  }

  async function move(planned: Schemas['PlannedDrill'], place: number, by: number) {
    await editor!.change({ kind: 'move', id: planned.id, to: place + by });
    await tick();
    const [same, other] = by < 0 ? ['up', 'down'] : ['down', 'up'];
    const button = (way: string) =>
      document.querySelector<HTMLButtonElement>(`[data-move="${planned.id}-${way}"]:not(:disabled)`);
    (button(same!) ?? button(other!))?.focus();
  }

  /** The focus stays where the drill was. */
  async function remove(planned: Schemas['PlannedDrill'], place: number) {
    await editor!.change({ kind: 'remove', id: planned.id });
    await tick();
    const at = Math.min(place, editor!.view!.plan.drills.length - 1);
    document.querySelector<HTMLButtonElement>(`[data-remove="${at}"]`)?.focus();
  }

  async function length(event: SubmitEvent) {
    event.preventDefault();
    const value = parseNumber(to);
    toError = undefined;
    if (value === null || !Number.isInteger(value)) {
      toError = 'A whole number of minutes.';
      return;
    }
    const kind = value * 60 < editor!.view!.totalSeconds ? 'shorten' : 'lengthen';
    if (await editor!.change({ kind, to: value })) to = '';
    else {
      const problem = editor!.refusal?.refusal.problems[0];
      toError = problem ? problemText(problem) : undefined;
    }
  }

  async function keep() {
    const kept = await editor!.keep();
    if (!kept) return;
    undo.offer('The session is changed.', async () => {
      await ask(
        api.POST('/api/v1/sessions/{sessionId}/changes', {
          params: { path: { sessionId: id } },
          body: { kind: 'takeBack', date: null, id: newId(), seen: null, second: false },
        }),
      );
      await goto(resolve('/sessions/[id]', { id }), { invalidateAll: true });
      location.reload();
    });
    await goto(resolve('/sessions/[id]', { id }));
  }

  function keys(event: KeyboardEvent) {
    const typing = (event.target as HTMLElement).closest('input, textarea, select, dialog');
    if (event.key === 'z' && (event.ctrlKey || event.metaKey) && !typing && editor?.changes.length) {
      event.preventDefault();
      void editor.undo();
    }
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      const row = (event.target as HTMLElement).closest('[data-place]');
      if (!row || !editor) return;
      event.preventDefault();
      const place = Number((row as HTMLElement).dataset.place);
      const by = event.key === 'ArrowUp' ? -1 : 1;
      const planned = editor.view!.plan.drills[place];
      if (planned && editor.view!.plan.drills[place + by]) void move(planned, place, by);
    }
  }

  const over = (e: SessionEditor) => e.bent.some((v) => v.code === 'overMinutes');
  const unexplained = (e: SessionEditor) => {
    const said = e.refusal;
    if (
      !said ||
      said.change?.kind === 'dose' ||
      said.change?.kind === 'shorten' ||
      said.change?.kind === 'lengthen'
    )
      return undefined;
    const { code, problems } = said.refusal;
    return problems[0]?.code === 'editRefused'
      ? problems.map((p) => ruleText(p.field)).join(' ')
      : problems[0]
        ? problemText(problems[0])
        : pageText(code);
  };
</script>

<svelte:head><title>Change the session · Tensarch</title></svelte:head>
<svelte:window onkeydown={keys} />

<main class="min-w-0">
  <Loaded of={sheet}>
    {#snippet children(s)}
      {#if editor && !editor.view}
        <div class="max-w-2xl px-5 py-5 lg:px-7">
          <h1>Change the session</h1>
          <div class="mt-4">
            <Notice tone="caution">{unexplained(editor) ?? pageText('unexpected')}</Notice>
          </div>
          <p class="mt-4">
            <a class="link-line" href={resolve('/sessions/[id]', { id })}>Back to the session</a>
          </p>
        </div>
      {:else if editor?.view}
        {@const e = editor}
        {@const view = editor.view}
        <div class="grid xl:grid-cols-[minmax(0,1fr)_22rem]">
          <div class="order-2 px-5 py-5 lg:px-7 xl:order-1">
            <h1 class="wrap-break-word">{s.studentName}: change the session</h1>
            <p class="text-quiet mt-1">{skillNames(s.skill, s.beside)} · {shortDay(view.plan.date)}</p>
            {#each phaseBlocks(view.plan.drills) as block, b (b)}
              <section class="mt-5" aria-label={block.title}>
                <h2 class="ruled border-b pb-1">{block.title}</h2>
                <ul>
                  {#each block.drills as planned (planned.id)}
                    {@const place = view.plan.drills.indexOf(planned)}
                    <EditRow
                      editor={e}
                      {planned}
                      {place}
                      last={place === view.plan.drills.length - 1}
                      onswap={() => pick(planned)}
                      onmove={(by) => move(planned, place, by)}
                      onremove={() => remove(planned, place)}
                    />
                  {/each}
                </ul>
              </section>
            {/each}
            <p class="mt-4"><button class="btn btn-outline" onclick={() => pick()}>Add a drill</button></p>
          </div>
          <aside
            class="ruled bg-base-200 order-1 border-b px-5 py-4 xl:order-2 xl:min-h-dvh xl:border-s xl:border-b-0"
            aria-label="What it comes to"
          >
            <div class="grid gap-3 xl:sticky xl:top-4">
              <p class="text-xl">
                <span class={['figures', over(e) && 'text-error']}>{minutes(view.totalSeconds)}</span>
                <span class="text-quiet text-base">of {view.plan.minutes} min</span>
              </p>
              <div class="flex flex-wrap gap-2">
                <button
                  class="btn btn-primary"
                  disabled={!e.changes.length || e.refused.length > 0}
                  onclick={keep}>Keep it</button
                >
                <button
                  class="btn btn-outline"
                  aria-keyshortcuts="Control+Z"
                  disabled={!e.changes.length}
                  onclick={() => e.undo()}>Undo</button
                >
                <a class="btn btn-ghost" href={resolve('/sessions/[id]', { id })}>Back</a>
              </div>
              {#if e.resumed && e.changes.length}
                <p class="text-sm">
                  Your changes from before are here, not kept yet.
                  <button class="link-line" onclick={() => e.leave()}>Drop them all</button>
                </p>
              {/if}
              <div role="status" class="grid gap-2">
                {#if e.refused.length}
                  <div>
                    <h2 class="text-error text-base font-semibold">Not like this</h2>
                    <ul class="mt-1 grid gap-1 text-[0.95rem]">
                      {#each e.refused as v, i (i)}<li>{ruleText(v.code, v.drill, v.tag)}</li>{/each}
                    </ul>
                    {#if e.refused.some((v) => v.tag)}
                      <p class="mt-1 text-sm">
                        Why: <a
                          class="link-line"
                          href={resolve('/students/[id]/cautions', { id: s.studentId })}>the cautions</a
                        >. A health question goes to a licensed clinician.
                      </p>
                    {/if}
                  </div>
                {/if}
                {#if e.bent.length}
                  <div>
                    <h2 class="text-base font-semibold">Bent, and yours to decide</h2>
                    <ul class="mt-1 grid gap-1 text-[0.95rem]">
                      {#each e.bent as v, i (i)}<li>{ruleText(v.code, v.drill, v.tag)}</li>{/each}
                    </ul>
                  </div>
                {/if}
                {#if !e.refused.length && !e.bent.length}
                  <p class="text-quiet">
                    {e.changes.length ? 'The checker has nothing against it.' : 'Nothing is changed yet.'}
                  </p>
                {/if}
              </div>
              {#if unexplained(e)}<p class="text-error font-semibold" role="alert">{unexplained(e)}</p>{/if}
              <form class="ruled border-t pt-3" onsubmit={length} novalidate>
                <label class="block text-sm font-semibold" for="to">Shorter or longer: minutes</label>
                <div class="mt-1 flex gap-2">
                  <input
                    id="to"
                    class="input w-20"
                    inputmode="numeric"
                    aria-invalid={!!toError}
                    aria-describedby={toError ? 'to-error' : undefined}
                    bind:value={to}
                  />
                  <button class="btn btn-outline" disabled={e.busy}>Fit it</button>
                </div>
                {#if toError}<p id="to-error" class="text-error mt-1 text-sm font-semibold" role="alert">
                    {toError}
                  </p>{/if}
              </form>
            </div>
          </aside>
        </div>
        {#if picking}
          <DrillPicker
            title={picking.instead
              ? `In place of ${catalogue.drill(picking.instead.drill).name}`
              : 'Add a drill'}
            options={picking.options}
            onpick={taken}
            onclose={() => (picking = undefined)}
          />
        {/if}
      {/if}
    {/snippet}
  </Loaded>
</main>
