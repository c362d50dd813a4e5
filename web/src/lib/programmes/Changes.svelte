<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { changeText } from './ahead';

  interface Props {
    changes: Schemas['DayDifference'][];
  }

  let { changes }: Props = $props();
  const few = 6;
</script>

{#if changes.length}
  <section aria-label="What changes and why">
    <h3>What changes, and why</h3>
    <ul class="mt-1 list-disc ps-5 text-sm">
      {#each changes.slice(0, few) as change (change.day + change.half)}<li>{changeText(change)}</li>{/each}
    </ul>
    {#if changes.length > few}
      <details class="text-sm">
        <summary class="cursor-pointer ps-5">{changes.length - few} more</summary>
        <ul class="list-disc ps-5">
          {#each changes.slice(few) as change (change.day + change.half)}<li>{changeText(change)}</li>{/each}
        </ul>
      </details>
    {/if}
  </section>
{/if}
