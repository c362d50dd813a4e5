<script lang="ts">
  import { minutes } from '$lib/parts/format';
  import { parseNumber } from '$lib/students/body';
  import type { Runner } from './runner.svelte';

  interface Props {
    runner: Runner;
    onclose: () => void;
  }

  let { runner, onclose }: Props = $props();
  const uid = $props.id();
  let typed = $state('15');
  const asked = $derived(parseNumber(typed));
  const sound = $derived(asked !== null && Number.isInteger(asked) && asked >= 1 && asked <= 120);
  const toGo = $derived(runner.secondsToGo);
  const made = $derived(sound ? runner.reshaped(asked! * 60) : undefined);
  /** Both sides of a drill are one thing to say. */
  const names = (versions: readonly string[]) =>
    [...new Set(versions.map((v) => runner.packed.version(v).name))].join(', ');
</script>

<section class="mx-auto w-full max-w-xl p-5" aria-label="Less time">
  <h2 class="text-2xl">How many minutes are left?</h2>
  <p class="text-quiet">What is still to do takes <span class="figures">{minutes(toGo)}</span>.</p>
  <div class="mt-3 flex flex-wrap items-end gap-2">
    {#each [5, 10, 15, 20, 30] as n (n)}
      <button
        class={['btn', String(n) === typed ? 'btn-primary' : 'btn-outline']}
        aria-pressed={String(n) === typed}
        onclick={() => (typed = String(n))}>{n}</button
      >
    {/each}
    <label class="grid text-sm font-semibold" for="{uid}-minutes">
      Minutes
      <input
        id="{uid}-minutes"
        class="input w-20"
        inputmode="numeric"
        aria-invalid={!sound}
        aria-describedby={sound ? undefined : `${uid}-error`}
        bind:value={typed}
      />
    </label>
  </div>
  {#if !sound}
    <p id="{uid}-error" class="text-error mt-1 text-sm font-semibold" role="alert">
      A whole number, 1 to 120.
    </p>
  {/if}
  <div class="mt-4 grid gap-1" role="status">
    {#if made}
      {#if Object.keys(made.versions).length === 0}
        <p>
          {made.seconds <= asked! * 60
            ? 'It fits as it is.'
            : `Nothing more can be left out: it takes ${minutes(made.seconds)}.`}
        </p>
      {:else}
        <p><strong>Then it takes {minutes(made.seconds)}.</strong></p>
        {#if made.shorter.length}<p>Fewer rounds: {names(made.shorter)}.</p>{/if}
        {#if made.out.length}<p>Left out: {names(made.out)}.</p>{/if}
        {#if made.seconds > asked! * 60}<p>Nothing more can be left out.</p>{/if}
      {/if}
    {/if}
  </div>
  <div class="mt-5 flex flex-wrap gap-2">
    <button class="btn btn-outline" onclick={onclose}>Leave it as it is</button>
    <button
      class="btn btn-accent"
      disabled={!made || Object.keys(made.versions).length === 0}
      onclick={() => {
        runner.reshape(asked! * 60);
        onclose();
      }}>Shorten it</button
    >
  </div>
</section>
