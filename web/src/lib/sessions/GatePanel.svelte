<script lang="ts">
  import { resolve } from '$app/paths';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { holds, type Gate } from './pack';

  interface Props {
    gate: Gate;
    /** By check, what was answered today already. */
    answered?: Record<string, number>;
    /** What it is asked for: the drill, and how it is called. */
    needed?: readonly { drill: string; text: string }[];
    onanswer: (answers: Record<string, number>) => void;
  }

  let { gate, answered = {}, needed = [], onanswer }: Props = $props();
  // The panel is made anew for each gate.
  // svelte-ignore state_referenced_locally
  let answers = $state<Record<string, number>>({ ...answered });
  let panel = $state<HTMLElement>();
  const missing = $derived(gate.checks.filter((c) => answers[c.key] === undefined));

  $effect(() => panel?.focus());
</script>

<section
  bind:this={panel}
  class="m-auto grid w-full max-w-2xl gap-5 p-6"
  aria-label="{gate.firstTime ? 'First time' : 'Today’s test'}: {gate.name}"
  tabindex="-1"
>
  <div>
    <h2 class="text-3xl">{gate.name}</h2>
    <p>
      {#if gate.side}<SideMark side={gate.side} text={gate.side} />:
      {/if}{gate.test}
      {gate.firstTime ? 'Asked before the first time.' : 'This holds for today only.'}
    </p>
    {#if gate.firstTime}
      <ul class="mt-2 list-disc ps-5">
        {#each needed as { drill, text } (text)}
          <li>
            <a class="link-line" href={resolve('/library/drills/[drill]', { drill })} target="_blank"
              >{text}</a
            >
          </li>
        {/each}
      </ul>
    {/if}
  </div>
  {#each gate.checks as check (check.key)}
    <div role="group" aria-label={check.asks}>
      <p class="mb-2 font-semibold">{check.asks}</p>
      <div class="flex flex-wrap gap-2">
        {#if check.atMost == null && check.atLeast == null}
          {#each [{ value: 1, text: 'Yes' }, { value: 0, text: 'No' }] as choice (choice.value)}
            <button
              class={['btn btn-lg w-28', answers[check.key] === choice.value ? 'btn-primary' : 'btn-outline']}
              aria-pressed={answers[check.key] === choice.value}
              onclick={() => (answers[check.key] = choice.value)}>{choice.text}</button
            >
          {/each}
        {:else}
          {#each check.offered as value (value)}
            <button
              class={['btn w-12', answers[check.key] === value ? 'btn-primary' : 'btn-outline']}
              aria-pressed={answers[check.key] === value}
              onclick={() => (answers[check.key] = value)}>{value}</button
            >
          {/each}
        {/if}
      </div>
      {#if answered[check.key] !== undefined && answers[check.key] === answered[check.key]}
        <p class="mt-1 text-sm">As answered before today; change it if it is different now.</p>
      {/if}
      {#if answers[check.key] !== undefined && !holds(check, answers[check.key])}
        <p class="mt-1 text-sm" role="status">
          {check.otherwise === 'easier' ? 'The easier version today.' : 'Not today: something else instead.'}
        </p>
      {/if}
    </div>
  {/each}
  <button
    class="btn btn-accent btn-lg justify-self-start"
    disabled={missing.length > 0}
    onclick={() => onanswer({ ...answers })}
  >
    {missing.length > 0 ? `${missing.length} to answer` : 'Go on'}
  </button>
</section>
