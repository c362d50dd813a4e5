<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import type { OpenStudent } from '$lib/students/student.svelte';
  import Arch from './Arch.svelte';
  import { courseName } from './sides';

  interface Props {
    student: OpenStudent;
    /** The skill that is looked at; none while a ladder is chosen. */
    here: string | undefined;
  }

  let { student, here }: Props = $props();
  const skills = $derived(student.page!.skills);
  const more = $derived(catalogue.content!.ladders.some((l) => skills.every((s) => s.skill !== l.skill)));
</script>

<!-- eslint-disable svelte/no-navigation-without-resolve -- the path itself is resolved -->
<nav aria-label="Skills" class="flex flex-wrap gap-2 px-5 pt-4 lg:px-7">
  {#each skills as skill (skill.skill)}
    <a
      href="{resolve('/students/[id]', { id: student.id })}?skill={skill.skill}"
      aria-current={skill.skill === here ? 'page' : undefined}
      class={[
        'ruled flex items-center gap-2 rounded border px-3 py-1.5',
        skill.skill === here ? 'bg-base-200 font-semibold' : '',
      ]}
    >
      <span class="w-9">
        <Arch
          stones={skill.arch}
          stages={skill.stages}
          small
          label={skill.sides.map((s) => `${courseName(s.side)} stage ${s.stage}`).join(', ')}
          next={skill.sides.filter((s) => s.state === 'open').map((s) => s.side)}
        />
      </span>
      {skill.ladderName}
    </a>
  {/each}
  {#if more && account.mayWrite}
    <a
      href="{resolve('/students/[id]', { id: student.id })}?add=skill"
      aria-current={here === undefined ? 'page' : undefined}
      class={['btn btn-ghost self-center', here === undefined && 'bg-base-200']}>Put on another ladder</a
    >
  {/if}
</nav>
