<script lang="ts">
  import { api, ask, fileBody, Refusal, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { dayAndTime, number, withUnit } from '$lib/parts/format';
  import { pageText, problemText } from '$lib/parts/problems';

  interface Props {
    studentId?: string;
  }

  let { studentId }: Props = $props();
  let file = $state<File>();
  let acceptUnlikely = $state(false);
  let report = $state<Schemas['ImportReport']>();
  let problem = $state('');
  let busy = $state(false);
  let onlyWrong = $state(false);
  const most = 200;

  const status: Record<Schemas['ImportStatus'], string> = {
    new: '+ new',
    same: '= here already',
    unlikely: '? unlikely',
    problem: '✕ problem',
  };

  async function send(apply: boolean) {
    if (!file || busy) return;
    busy = true;
    problem = '';
    const query = { apply, acceptUnlikely };
    const body = fileBody(file);
    try {
      report = await ask(
        studentId
          ? api.POST('/api/v1/students/{studentId}/exchange/readings', {
              params: { path: { studentId }, query },
              ...body,
            })
          : api.POST('/api/v1/exchange/readings', { params: { query }, ...body }),
      );
    } catch (error) {
      const refusal = error as Refusal;
      const line = refusal.problems[0]?.numbers?.line;
      problem = pageText(refusal.code) + (line ? ` Line ${line}.` : '');
      if (!apply) report = undefined;
    }
    busy = false;
  }

  function choose(chosen: File | undefined) {
    file = chosen;
    report = undefined;
    void send(false);
  }

  const measureOf = (key: string | null) => catalogue.content!.measures.find((m) => m.key === key);
  const shown = $derived(
    report?.lines.filter((l) => !onlyWrong || l.status === 'problem' || l.status === 'unlikely') ?? [],
  );
  const clean = $derived(
    report && !report.applied && report.problems === 0 && report.unlikely === 0 && report.new > 0,
  );
</script>

<div class="flex flex-wrap items-end gap-3">
  <label class="grid gap-1 text-sm font-semibold">
    CSV file
    <input
      type="file"
      class="file-input w-80 max-w-full"
      accept=".csv,text/csv"
      aria-invalid={problem !== ''}
      onchange={(event) => choose(event.currentTarget.files?.[0])}
    />
  </label>
  {#if report && report.unlikely + Number(acceptUnlikely) > 0 && !report.applied}
    <label class="flex items-center gap-2 pb-3 text-sm">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        bind:checked={acceptUnlikely}
        onchange={() => send(false)}
      /> Yes, the unlikely values are right
    </label>
  {/if}
  {#if clean}
    <button class="btn btn-accent" disabled={busy} onclick={() => send(true)}
      >Take {report!.new} {report!.new === 1 ? 'reading' : 'readings'}</button
    >
  {/if}
</div>
{#if problem}<p class="text-error mt-2 font-semibold" role="alert">{problem}</p>{/if}
{#if report}
  <p class="mt-3" role="status">
    {#if report.applied}<strong>Taken: {report.new}.</strong>{/if}
    {report.new} new, {report.same} here already, {report.unlikely} unlikely, {report.problems} with problems.
    {#if !report.applied && report.problems > 0}Nothing is taken before every line is right.{/if}
  </p>
  <label class="my-2 flex items-center gap-2 text-sm">
    <input type="checkbox" class="checkbox checkbox-sm" bind:checked={onlyWrong} /> Only what needs a look
  </label>
  <div class="overflow-x-auto">
    <table class="w-full text-sm">
      <thead>
        <tr class="text-quiet ruled border-b">
          {#each ['Line', 'Verdict', 'Student', 'Measure', 'Value', 'Taken'] as h (h)}
            <th class="py-1 pe-4 text-start font-normal">{h}</th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each shown.slice(0, most) as line (line.line)}
          {@const m = measureOf(line.measure)}
          <tr class="ruled border-b align-top">
            <td class="figures py-1 pe-4">{line.line}</td>
            <td class="pe-4">
              <strong>{status[line.status]}</strong>
              {#if line.problem}<span class="block">{line.problem.field}: {problemText(line.problem)}</span
                >{/if}
            </td>
            <td class="pe-4">{line.student ?? ''}</td>
            <td class="pe-4">{[m?.name ?? line.measure, line.side].filter(Boolean).join(', ')}</td>
            <td class="figures pe-4"
              >{line.value == null ? '' : m ? withUnit(line.value, m.unit) : number(line.value)}</td
            >
            <td>{line.takenAt ? dayAndTime(line.takenAt) : ''}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if shown.length > most}<p class="text-quiet mt-2 text-sm">
      The first {most} of {shown.length} lines.
    </p>{/if}
{/if}
