<script lang="ts">
  import { resolve } from '$app/paths';
  import QuickReadings from '$lib/planning/QuickReadings.svelte';
  import type { SetFact } from './say';
  import type { Runner } from './runner.svelte';

  interface Props {
    runner: Runner;
    session: string;
    student: string;
    /** Something is still on this device. */
    waits: boolean;
    evidence: SetFact | undefined;
    onconfirm: () => void;
  }

  let { runner, session, student, waits, evidence, onconfirm }: Props = $props();
</script>

<section class="m-auto max-w-xl p-6 text-center">
  <p class="font-head text-5xl font-semibold">Done</p>
  <p class="my-4">
    {waits
      ? 'Some of it is still on this device and goes out when the server answers.'
      : 'Everything is logged.'}
  </p>
  {#if evidence}
    <p class="mb-4">
      <button class="btn btn-outline" onclick={onconfirm}
        >Confirm the last one: {evidence.seconds ?? evidence.cleanReps}</button
      >
    </p>
  {/if}
  <div class="flex justify-center gap-3">
    <a class="btn btn-accent" href={resolve('/students/[id]', { id: student })}>See what it changed</a>
    <a class="btn btn-outline" href={resolve('/sessions/[id]', { id: session })}>What was done</a>
  </div>
  <QuickReadings {student} done={runner.done} />
</section>
