<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { withUnit } from '$lib/parts/format';

  interface Props {
    comparison: Schemas['SideComparison'];
  }

  let { comparison }: Props = $props();
  const measure = $derived(catalogue.measure(comparison.measure));
</script>

<p class="text-sm">
  {#if comparison.difference != null && comparison.mdc95 == null}
    {measure.name}: right {comparison.difference >= 0 ? 'more' : 'less'} by {withUnit(
      Math.abs(comparison.difference),
      measure.unit,
    )}. Holds have no noise to tell a weaker side by.
  {:else if comparison.difference == null || comparison.mdc95 == null}
    <span class="text-quiet"
      >The sides are not compared yet: read {measure.name.toLowerCase()} on both, warm.</span
    >
  {:else if comparison.weaker}
    <strong>{comparison.weaker === 'left' ? 'Left' : 'Right'} is the weaker side</strong>: {measure.name.toLowerCase()}
    differs by
    {withUnit(Math.abs(comparison.difference), measure.unit)}, noise {withUnit(
      comparison.mdc95,
      measure.unit,
    )}.
  {:else}
    <strong>No weaker side</strong>: {measure.name.toLowerCase()} differs by {withUnit(
      Math.abs(comparison.difference),
      measure.unit,
    )}, within the noise of {withUnit(comparison.mdc95, measure.unit)}.
  {/if}
</p>
