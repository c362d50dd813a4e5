<script lang="ts">
  import { resolve } from '$app/paths';
  import type { Schemas } from '$lib/api/client';
  import Notice from '$lib/parts/Notice.svelte';
  import { newsText } from './words';

  interface Props {
    news: readonly Schemas['PlanNews'][];
    student: string;
  }

  let { news, student }: Props = $props();
</script>

<Notice tone="caution">
  <ul>
    {#each news as one (one.code + one.skill)}
      <li>
        {newsText(one)}
        {#if one.code === 'twice'}
          <a class="link-line" href={resolve('/students/[id]/sessions', { id: student })}>To the sessions</a>
        {/if}
      </li>
    {/each}
  </ul>
</Notice>
