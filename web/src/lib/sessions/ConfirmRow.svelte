<script lang="ts">
  import type { SetFact } from './say';

  interface Props {
    /** The round that a gate reads and nobody confirmed yet. */
    evidence: SetFact | undefined;
    onconfirm: () => void;
  }

  let { evidence, onconfirm }: Props = $props();
</script>

{#if evidence}
  <div class="bg-base-200 flex flex-wrap items-center gap-3 px-4 py-2">
    <p>
      A gate reads {evidence.seconds != null
        ? `these ${evidence.seconds} seconds`
        : `these ${evidence.cleanReps} repetitions`}. Was it done, clean to the end?
    </p>
    <button class="btn btn-outline btn-sm" onclick={onconfirm}
      >Confirm {evidence.seconds ?? evidence.cleanReps}
      <kbd class="kbd kbd-xs hidden md:inline">C</kbd></button
    >
  </div>
{/if}
