<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { stateName } from './gateWords';

  interface Props {
    changes: Schemas['VerdictChange'][];
  }

  let { changes }: Props = $props();
</script>

<ul class="text-sm">
  {#each changes as c (c.studentId + c.side)}
    <li class="ruled border-t py-2">
      <a class="font-semibold hover:underline" href={resolve('/students/[id]', { id: c.studentId })}
        >{c.name}</a
      >
      <SideMark side={c.side} text="{c.side ?? 'stage'} {c.stage}" /><br />
      {stateName(c.state)}, {c.met} of {c.tests} →
      <strong
        >{c.newStage !== c.stage ? `stage ${c.newStage}, ` : ''}{stateName(c.newState)}, {c.newMet} of {c.newTests}</strong
      >
    </li>
  {/each}
</ul>
