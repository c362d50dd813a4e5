<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { number } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { signalName } from '$lib/students/tags';
  import SayRounds from './SayRounds.svelte';

  interface Props {
    line: Schemas['DoneSet'];
    student: string;
    onchange: () => void;
  }

  let { line, student, onchange }: Props = $props();
  let saying = $state(false);
  const rounds = (count: number) => `${count} ${count === 1 ? 'round' : 'rounds'}`;
</script>

<li
  class={[
    'ruled grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-4 border-b py-1 sm:grid-cols-[9rem_minmax(0,1fr)_auto]',
    line.skipped && 'text-quiet',
  ]}
>
  <span
    >{#if line.side}<SideMark
        side={line.side}
        text={line.side}
        means={catalogue.drill(line.drill).sideMeans}
      />{/if}</span
  >
  <span class="min-w-0 wrap-break-word">
    <strong>{catalogue.drill(line.drill).name}</strong>
    {#if line.variant !== 'standard'}<span class="text-quiet"
        >{catalogue.variant(line.drill, line.variant).toLowerCase()}</span
      >{/if}
    {#if line.practice}
      <span class="block text-sm"
        >{rounds(line.practice)} not confirmed: practice, and no proof for the gate.
        {#if account.mayWrite && line.unsaid?.length && !saying}
          <button class="link-line" onclick={() => (saying = true)}>Say the number</button>
        {/if}</span
      >
      {#if saying}
        <SayRounds
          {student}
          rounds={line.unsaid ?? []}
          onsaid={() => {
            saying = false;
            onchange();
          }}
          onleave={() => (saying = false)}
        />
      {/if}
    {/if}
    {#if line.underBar}
      <span class="block text-sm">{rounds(line.underBar)} under a bar: counts for no gate.</span>
    {/if}
  </span>
  <span class="col-start-2 tabular-nums sm:col-start-auto sm:text-end">
    {#if line.takenOut}taken out: {signalName(line.takenOut)}
    {:else if line.skipped}skipped
    {:else}
      {rounds(line.rounds)}{#if line.longestSeconds != null}, longest {number(line.longestSeconds, 0)} s{/if}{#if line.mostReps != null},
        {line.mostReps} reps{/if}{#if line.quality}, quality {line.quality}{/if}
    {/if}
  </span>
</li>
