<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import type { Schemas } from '$lib/api/client';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import EvidenceForm from './EvidenceForm.svelte';
  import { placeOf } from './nextStep';
  import { courseName } from './sides';
  import { onTheSpot } from './words';

  interface Props {
    student: OpenStudent;
    gate: Schemas['SideGate'];
  }

  let { student, gate }: Props = $props();

  const open = $derived([...gate.tests.entries()].filter(([, t]) => onTheSpot(t)));
</script>

{#if account.mayWrite && open.length}
  <section class="ruled mt-6 border-t pt-4" aria-label="Write down for {courseName(gate.side)}">
    <h2 class="mb-3">Seen just now{gate.side ? ` on ${gate.side}` : ''}?</h2>
    {#each open as [index, test] (index)}
      <div id={placeOf(test)} class="target:bg-base-100 scroll-mt-4 target:p-3">
        <EvidenceForm
          studentId={student.id}
          skill={student.skill!.skill}
          {gate}
          {test}
          onkept={() => student.load()}
        />
      </div>
    {/each}
  </section>
{/if}
