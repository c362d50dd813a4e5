<script lang="ts">
  import type { Refusal, Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { account } from '$lib/accounts/account.svelte';
  import EvidenceForm from './EvidenceForm.svelte';
  import { capital } from './sides';
  import { asks, onTheSpot, status, testName } from './words';

  interface Props {
    course: Schemas['StartAdvice'];
    ladder: Schemas['Ladder'];
    stage: number;
    studentId: string;
    refusal: Refusal | undefined;
    onchange: (stage: number) => void;
    onkept: () => Promise<unknown>;
  }

  let { course, ladder, stage, studentId, refusal, onchange, onkept }: Props = $props();
  const name = $derived(course.side ? `${capital(course.side)} starts at` : 'Starts at');
  const stageName = (number: number) => ladder.stages.find((s) => s.number === number)?.name ?? '';
  const limit = $derived(
    course.highest < ladder.stages.length
      ? ` At most stage ${course.highest}: what lies past it was not shown here, or is off limits.`
      : '',
  );
  const tooHigh = $derived(refusal?.problems.some((p) => p.code === 'startTooHigh') ?? false);
</script>

<section class="ruled border-t pt-3">
  {#if course.side}<h3 class="mb-2"><SideMark side={course.side} means={ladder.sideMeans} /></h3>{/if}
  <Field
    label={name}
    hint="Suggested: stage {course.suggested} {stageName(course.suggested)}.{limit}"
    error={tooHigh && stage > course.highest ? `At most stage ${course.highest}.` : undefined}
  >
    {#snippet children({ id, describedBy, invalid })}
      <select
        {id}
        class="select w-full"
        aria-describedby={describedBy}
        aria-invalid={invalid}
        value={stage}
        onchange={(event) => onchange(Number(event.currentTarget.value))}
      >
        {#each ladder.stages.filter((s) => s.number <= course.highest) as s (s.number)}
          <option value={s.number}>{s.number} {s.name}</option>
        {/each}
      </select>
    {/snippet}
  </Field>
  {#each [...course.stages].reverse() as at (at.stage)}
    <details class="mt-2" open={at.stage === course.suggested}>
      <summary class="cursor-pointer text-sm">
        <strong>Stage {at.stage} {stageName(at.stage)}</strong>
        <span class="text-quiet"
          >{at.stage === course.suggested ? 'still asks for' : 'would still add'}
          {at.adds!.length === 0 ? 'nothing' : `${at.adds!.length} of ${at.tests.length}`}</span
        >
      </summary>
      <ul class="text-quiet mt-1 grid gap-0.5 ps-4 text-sm">
        {#each at.adds! as test, i (i)}
          <li>
            {[
              `${testName(test.test)}${test.readOn && test.readOn !== course.side ? `, ${test.readOn}` : ''}`,
              asks(test.test),
            ]
              .filter(Boolean)
              .join(' ')}: {status(test)}
          </li>
        {:else}
          <li>Everything here is met.</li>
        {/each}
      </ul>
      {#if account.mayWrite && at.adds!.some(onTheSpot)}
        <div
          class="mt-3 ps-4"
          role="group"
          aria-label="Seen just now at stage {at.stage}{course.side ? `, ${course.side}` : ''}"
        >
          <p class="mb-2 text-sm font-semibold">Seen just now?</p>
          {#each at.adds!.filter(onTheSpot) as test (`${testName(test.test)} ${test.readOn ?? ''}`)}
            <EvidenceForm
              {studentId}
              skill={ladder.skill}
              gate={{ stage: at.stage, side: course.side }}
              {test}
              {onkept}
            />
          {/each}
        </div>
      {/if}
    </details>
  {/each}
</section>
