<script lang="ts">
  /** What to do with a plan that is only tried. */
  interface Props {
    /** Sessions that change against the plan that stands; none where there is none. */
    changed: number | undefined;
    disabled: boolean;
    onkeep: () => void;
    onleave: () => void;
  }

  let { changed, disabled, onkeep, onleave }: Props = $props();
</script>

<div class="bg-base-100 ruled sticky bottom-0 flex flex-wrap items-center gap-3 border-t py-3">
  <button type="button" class="btn btn-accent" {disabled} onclick={onkeep}>Keep this plan</button>
  {#if changed !== undefined}
    <button type="button" class="btn btn-ghost" onclick={onleave}>Leave it as it was</button>
    <span class="text-sm">{changed === 1 ? 'One session changes.' : `${changed} sessions change.`}</span>
  {/if}
</div>
