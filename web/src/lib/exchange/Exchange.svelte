<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import Download from '$lib/parts/Download.svelte';
  import ImportForm from './ImportForm.svelte';

  interface Props {
    /** Whose readings; the whole studio's when none is given. */
    studentId?: string;
  }

  let { studentId }: Props = $props();
  const columns = [
    ['measure', 'its key, such as knee-to-wall', 'needed'],
    ['warmth', 'warm or cold', 'needed'],
    ['taken_at', 'a day, or a day and time', 'needed'],
    ['student or student_id', 'the name, when only one has it', 'needed for the studio'],
    ['side', 'left or right, where the measure has sides', ''],
    ['trials', 'one to five numbers with ; between them', ''],
    ['successes, attempts', 'for counts', ''],
    ['level, standard, instrument', 'where the measure has them', ''],
    ['compensations, quality, sensation, pain, note, taken_by, void_reason, id', '', ''],
  ];
</script>

<section>
  <h2 class="mb-2">Readings out</h2>
  <p class="mb-3 max-w-prose">
    A CSV file with every reading, void ones too. It can be read in again: what is here already adds nothing.
  </p>
  <Download path={studentId ? `/api/v1/students/${studentId}/exchange/readings` : '/api/v1/exchange/readings'}
    >Export {studentId ? 'this student’s' : 'the studio’s'} readings</Download
  >
</section>
{#if account.mayWrite}
  <section class="mt-7">
    <h2 class="mb-2">Readings in</h2>
    <p class="mb-3 max-w-prose">
      A file is tried first, line by line. Then all of it is taken, or nothing.{#if studentId}
        Lines need no name here, and those of someone else are refused.{/if}
    </p>
    {#key studentId}<ImportForm {studentId} />{/key}
  </section>
{/if}
<details class="ruled mt-7 border-t pt-3">
  <summary class="cursor-pointer font-semibold">The columns</summary>
  <dl class="mt-2 grid gap-x-4 gap-y-1 text-sm sm:grid-cols-[minmax(0,20rem)_minmax(0,1fr)]">
    {#each columns as [name, what, need] (name)}
      <dt class="font-semibold">{name}</dt>
      <dd class="text-quiet mb-1">{[what, need].filter(Boolean).join('; ')}</dd>
    {/each}
  </dl>
</details>
