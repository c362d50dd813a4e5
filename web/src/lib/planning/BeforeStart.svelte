<script lang="ts">
  import { tick } from 'svelte';
  import { resolve } from '$app/paths';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { longDay, timeOf } from '$lib/parts/format';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';
  import YesNo from '$lib/parts/YesNo.svelte';
  import { checkInText, type Felt } from '$lib/students/checkIn';
  import ConsentFields from '$lib/students/ConsentFields.svelte';
  import FeltFields from '$lib/students/FeltFields.svelte';

  interface Props {
    student: string;
    page: Schemas['StudentPage'];
    /** Something was said: what is planned may not be run as it is any more. */
    onsaid: () => void;
  }

  let { student, page, onsaid }: Props = $props();
  const uid = $props.id();
  const path = $derived({ studentId: student });
  const said = $derived(page.checkIn.said);
  const touch = $derived(page.consents.said.find((c) => c.kind === 'touch'));
  const unasked = $derived(page.screen.state === 'current' ? page.screen.unasked : []);
  let again = $state(false);
  const open = $derived(!said || again);

  let consents = $state<Partial<Record<Schemas['ConsentKind'], boolean>>>({});
  let guardian = $state('');
  let answers = $state<Record<string, boolean>>({});
  let day = $state({ sleptBadly: false, ill: false, trainedHard: false });
  let felt = $state<Felt[]>([]);
  let refusal = $state<Refusal>();
  let busy = $state(false);
  let panel = $state<HTMLElement>();
  /** Each is sent once, however often it is tried. */
  let ids = $state<Record<string, string>>({});
  const idOf = (what: string) => (ids[what] ??= newId());

  const questions = [
    { key: 'sleptBadly', text: 'Slept badly' },
    { key: 'ill', text: 'Ill or feverish today' },
    { key: 'trainedHard', text: 'Other hard training in the last 24 hours' },
  ] as const;

  /** What was said stands in the form, to be said otherwise. */
  function change() {
    day = { sleptBadly: said!.sleptBadly, ill: said!.ill, trainedHard: said!.trainedHard };
    felt = said!.felt.map((f) => ({ kind: f.kind, place: f.place, side: f.side, level: Number(f.level) }));
    again = true;
  }

  async function send() {
    busy = true;
    refusal = undefined;
    try {
      for (const kind of page.consents.unasked)
        if (consents[kind] !== undefined)
          await ask(
            api.POST('/api/v1/students/{studentId}/consents', {
              params: { path },
              body: {
                id: idOf(kind),
                kind,
                given: consents[kind],
                saidBy: kind === 'guardian' ? guardian || null : null,
              },
            }),
          );
      const answered = unasked.filter((q) => answers[q] !== undefined);
      if (answered.length)
        await ask(
          api.POST('/api/v1/students/{studentId}/answers', {
            params: { path },
            body: {
              id: idOf('answers'),
              answers: answered.map((question) => ({ question, yes: answers[question]! })),
            },
          }),
        );
      await ask(
        api.POST('/api/v1/students/{studentId}/check-ins', {
          params: { path },
          body: { id: idOf('checkIn'), ...day, felt },
        }),
      );
      [again, ids] = [false, {}];
      onsaid();
      // The form is gone, and what it led to stands above.
      await tick();
      panel?.scrollIntoView({ block: 'nearest' });
    } catch (error) {
      refusal = error as Refusal;
      // Said otherwise meanwhile, it is another thing that is said.
      if (refusal.code === 'idTaken') ids = {};
    } finally {
      busy = false;
    }
  }
</script>

<section
  bind:this={panel}
  class="ruled mt-4 max-w-3xl scroll-mt-48 border-y py-3"
  aria-labelledby="{uid}-title"
>
  <h2 id="{uid}-title" class="text-lg">Before the start</h2>
  {#if touch && !touch.given}<p class="mt-1 font-semibold">Hands off: no consent to touch.</p>{/if}
  {#if !open && said}
    <p class="mt-1 wrap-break-word">
      Asked at {timeOf(said.at)}: {checkInText(said)}.
      <button class="link-line" onclick={change}>Say it otherwise</button>
    </p>
    {#if said.felt.some((f) => f.kind === 'injury')}
      <p class="mt-1 text-sm">
        An injury waits for your look:
        <a class="link-line" href={resolve('/students/[id]/cautions', { id: student })}>review it</a> tomorrow or
        later; send a health question to a licensed clinician.
      </p>
    {/if}
  {:else}
    <div class="mt-2 grid gap-3">
      {#if page.consents.unasked.length && !again}
        <div>
          <h3 class="text-base">Never asked yet</h3>
          <ConsentFields
            kinds={page.consents.unasked}
            bind:said={consents}
            bind:guardian
            onchange={() => undefined}
          />
        </div>
      {/if}
      {#if unasked.length && !again}
        <div>
          <h3 class="text-base">New in the intake screen</h3>
          <ul>
            {#each unasked as key (key)}
              <li class="ruled grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 border-b py-2">
                <span id="{uid}-{key}" class="pt-1">{catalogue.question(key)?.text ?? key}</span>
                <YesNo
                  name="{uid}-{key}"
                  labelledby="{uid}-{key}"
                  value={answers[key]}
                  onchange={(yes) => (answers[key] = yes)}
                />
                {#if answers[key]}<p class="col-span-2 mt-1 border-s-4 ps-3 text-sm" role="status">
                    {catalogue.question(key)?.advice}
                  </p>{/if}
              </li>
            {/each}
          </ul>
        </div>
      {/if}
      <div class="flex flex-wrap gap-x-5 gap-y-1">
        {#each questions as q (q.key)}
          <label class="flex items-center gap-2 py-1">
            <input type="checkbox" class="checkbox checkbox-sm" bind:checked={day[q.key]} />
            {q.text}
          </label>
        {/each}
      </div>
      <FeltFields title="Sore, painful or injured" kinds={['sore', 'pain', 'injury']} bind:felt />
      {#if page.checkIn.afterSessionOn}
        <FeltFields
          title="On the day after {longDay(page.checkIn.afterSessionOn)}"
          kinds={['soreAfter', 'painAfter']}
          bind:felt
        />
      {/if}
      {#if day.ill}<p class="border-s-4 ps-3 text-sm" role="status">
          No session today: rest. A health question goes to a licensed clinician.
        </p>{/if}
      {#if refusal}<Notice tone="error">{pageText(refusal.code)}</Notice>{/if}
      <div class="flex flex-wrap items-center gap-3">
        <button class="btn btn-sm btn-outline" disabled={busy} onclick={send}
          >{Object.values(day).some(Boolean) || felt.length ? 'Write it down' : 'All well'}</button
        >
        {#if again}<button class="btn btn-sm btn-ghost" onclick={() => (again = false)}>Leave it</button>
        {:else}<span class="text-quiet text-sm">Half a minute; it may be skipped.</span>{/if}
      </div>
    </div>
  {/if}
</section>
