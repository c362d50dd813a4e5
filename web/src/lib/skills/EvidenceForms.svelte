<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import type { Schemas } from '$lib/api/client';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import EvidenceForm from './EvidenceForm.svelte';
  import { placeOf } from './nextStep';
  import { courseName } from './sides';

  interface Props {
    student: OpenStudent;
    gate: Schemas['SideGate'];
  }

  let { student, gate }: Props = $props();

  /** What a coach can write down on the spot: not what the bench reads, and nothing that is barred. */
  const onTheSpot = (t: Schemas['TestVerdict']) =>
    t.outcome !== 'met' &&
    t.next.code !== 'liftBar' &&
    (t.test.kind === 'reps' ||
      t.test.kind === 'form' ||
      t.test.kind === 'exit' ||
      (t.test.kind === 'hold' && !!t.test.drill) ||
      (t.test.kind === 'rom' && !!t.test.adaptation));
  const open = $derived([...gate.tests.entries()].filter(([, t]) => onTheSpot(t)));
</script>

{#if account.mayWrite && open.length}
  <section class="ruled mt-6 border-t pt-4" aria-label="Write down for {courseName(gate.side)}">
    <h2 class="mb-3">Seen just now{gate.side ? ` on ${gate.side}` : ''}?</h2>
    {#each open as [index, test] (index)}
      <div id={placeOf(test)} class="target:bg-base-100 scroll-mt-4 target:p-3">
        <EvidenceForm {student} {gate} {test} />
      </div>
    {/each}
  </section>
{/if}
