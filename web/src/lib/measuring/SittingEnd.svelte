<script lang="ts">
  import { resolve } from '$app/paths';
  import Notice from '$lib/parts/Notice.svelte';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { stateName } from '$lib/skills/gateWords';
  import { courseName } from '$lib/skills/sides';
  import { nextText } from '$lib/skills/words';
  import { theStudent } from '$lib/students/student.svelte';

  interface Props {
    onend: () => void;
  }

  let { onend }: Props = $props();
  const student = theStudent();
  let button = $state<HTMLButtonElement>();

  // What was read has changed what the gates say.
  $effect(() => {
    void student.load();
    button?.focus();
  });
</script>

<section class="mb-5" aria-label="Finished">
  <Notice>
    <h2 class="text-2xl">All read</h2>
    {#if student.page?.skills.length}
      <p class="mt-1">What the gates say now:</p>
      <ul class="mt-1 grid gap-1">
        {#each student.page.skills as skill (skill.skill)}
          {#each skill.sides as s (s.side)}
            <li>
              <SideMark side={s.side} text="{skill.ladderName}, {courseName(s.side)}" />: stage {s.stage},
              {s.met} of {s.tests} met, {stateName(s.state)}{#if s.nearest}<span class="text-quiet"
                  >. {nextText(s.nearest)}</span
                >{/if}
            </li>
          {/each}
        {/each}
      </ul>
    {:else}
      <p class="mt-1">The baseline is there: put them on a ladder next.</p>
    {/if}
    <p class="mt-3 flex flex-wrap items-center gap-3">
      <button bind:this={button} class="btn btn-accent" onclick={onend}>End the sitting</button>
      <a class="link-line" href={resolve('/students/[id]/readings', { id: student.id })}>See the readings</a>
    </p>
  </Notice>
</section>
