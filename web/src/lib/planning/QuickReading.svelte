<script lang="ts">
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { chosen } from '$lib/parts/format';
  import { pageText, problemText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';

  interface Props {
    student: string;
    measure: string;
    side: Schemas['Side'] | null;
    /** When the session ended; now, while it is still on the floor. */
    at?: string | null;
  }

  let { student, measure, side, at }: Props = $props();
  const read = $derived(catalogue.measure(measure));
  const label = $derived(
    `${read.name}${side ? `, ${side} ${read.sideMeans ?? ''}`.trimEnd() : ''}, ${read.unit}`,
  );
  let id = newId();
  let typed = $state('');
  let saved = $state<number>();
  let problem = $state('');
  let unlikely = $state(false);
  let busy = $state(false);

  /** A rough number by the student's own hand: kept as a reading of its own, which no gate reads. */
  async function keep(event: SubmitEvent) {
    event.preventDefault();
    problem = '';
    const value = parseNumber(typed);
    if (value === null || Number.isNaN(value)) {
      problem = 'Write a number, such as 12.';
      return;
    }
    busy = true;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/readings', {
          params: { path: { studentId: student } },
          body: {
            id,
            measure,
            side,
            warmth: 'warm',
            standard: null,
            instrument: read.instruments[0]!,
            trials: [value],
            compensations: [],
            quality: null,
            sensation: null,
            pain: null,
            note: null,
            takenAt: at ?? null,
            confirmed: unlikely,
          },
        }),
      );
      saved = value;
      typed = '';
      id = newId();
      unlikely = false;
    } catch (error) {
      const refusal = error as Refusal;
      unlikely = refusal.problems.some((p) => p.code === 'unlikely');
      problem = refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code);
    } finally {
      busy = false;
    }
  }
</script>

<form class="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm" onsubmit={keep} novalidate>
  <label class="flex items-center gap-2">
    {label}
    <input
      class="input input-sm figures w-20"
      inputmode="decimal"
      autocomplete="off"
      aria-invalid={problem !== ''}
      bind:value={typed}
      oninput={() => (unlikely = false)}
    />
  </label>
  <button class="btn btn-outline btn-sm" disabled={busy}>{unlikely ? 'Yes, really' : 'Keep'}</button>
  {#if saved !== undefined}<span role="status">{chosen(saved, read.unit)} kept</span>{/if}
  {#if problem}<p class="text-error basis-full font-semibold" role="alert">{problem}</p>{/if}
</form>
