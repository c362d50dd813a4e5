<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api/client';

  interface Props {
    side: Schemas['Side'] | null | undefined;
    /** What the side names: the front leg, the supporting arm. */
    means?: string | null;
    title: string;
    secondsLeft: number;
    /** Something is held or done, and not prepared or rested. */
    working: boolean;
    doing: string;
    effort: number | undefined;
    /** The effort has a place of its own, so that nothing moves when it comes. */
    ramps?: boolean;
    /** The line below: round, cue. */
    children: Snippet;
  }

  let { side, means, title, secondsLeft, working, doing, effort, ramps = true, children }: Props = $props();
</script>

<section
  class={[
    'flex grow flex-col items-center justify-center gap-1 border-b-8 px-4 py-3 text-center',
    side === 'left' ? 'border-left-side' : side === 'right' ? 'border-right-side' : 'ruled',
  ]}
  aria-label="Now"
>
  <p
    class={[
      'font-head text-4xl font-semibold md:text-5xl',
      side === 'left' && 'text-left-side',
      side === 'right' && 'text-right-side',
    ]}
  >
    {#if side}<span aria-hidden="true">{side === 'left' ? '◐' : '◑'}</span>
      {side === 'left' ? 'Left' : 'Right'}{#if means}&nbsp;<span class="text-2xl md:text-3xl">{means}</span
        >{/if}{:else}Both{/if}
  </p>
  <h2 class="text-2xl md:text-3xl">{title}</h2>
  <p
    class={['figures text-[9rem] leading-none md:text-[15rem]', !working && 'text-quiet']}
    aria-live="off"
    data-testid="count"
  >
    {secondsLeft}
  </p>
  <p class="font-head text-3xl font-semibold">
    {doing}{#if effort != null}&nbsp;· <span class="figures">{effort} %</span>{/if}
  </p>
  {#if ramps}
    <div class="ruled h-4 w-full max-w-xl border" aria-hidden="true">
      {#if effort != null}
        <div
          class={['h-full', side === 'right' ? 'bg-right-side' : 'bg-left-side']}
          style:width="{effort}%"
        ></div>
      {/if}
    </div>
  {/if}
  <p class="text-quiet min-h-6">{@render children()}</p>
</section>
