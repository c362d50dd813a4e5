<script lang="ts">
  import { minutes } from '$lib/parts/format';

  interface Props {
    /** How long the device slept. */
    seconds: number;
    what: string;
    /** Of the segment that was under way. */
    left: number;
    ontold: (doneSeconds: number) => void;
  }

  let { seconds, what, left, ontold }: Props = $props();
  let panel = $state<HTMLElement>();

  $effect(() => panel?.focus());
</script>

<section
  bind:this={panel}
  class="m-auto grid max-w-xl gap-4 p-6 text-center"
  aria-label="The clock stood still"
  tabindex="-1"
>
  <h2 class="text-3xl">Away for {minutes(seconds)}</h2>
  <p>The clock stood still. What was done of {what.toLowerCase()} meanwhile?</p>
  <div class="grid gap-2">
    <button class="btn btn-primary btn-lg" onclick={() => ontold(0)}>Nothing: go on where it stood</button>
    <button class="btn btn-outline btn-lg" onclick={() => ontold(left)}>All of it, {left} seconds</button>
  </div>
</section>
