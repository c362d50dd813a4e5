<script lang="ts">
  import { catalogue } from '$lib/catalogue/catalogue.svelte';

  interface Props {
    /** Skills, the most wanted first. */
    goals: string[];
    onchange: () => void;
  }

  let { goals = $bindable(), onchange }: Props = $props();
  const skills = $derived(catalogue.content!.ladders);
  const name = (skill: string) => skills.find((s) => s.skill === skill)?.name ?? skill;

  function change(next: string[]) {
    goals = next;
    onchange();
  }

  function up(index: number) {
    const next = [...goals];
    [next[index - 1], next[index]] = [next[index]!, next[index - 1]!];
    change(next);
  }
</script>

<fieldset class="ruled border-t pt-4">
  <legend class="font-head pe-3 text-xl font-semibold">Goals</legend>
  {#if goals.length}
    <ol class="mb-3">
      {#each goals as goal, i (goal)}
        <li class="ruled flex items-center gap-3 border-b py-1">
          <span class="figures text-quiet w-5">{i + 1}</span>
          <span class="grow">{name(goal)}</span>
          {#if i > 0}
            <button
              type="button"
              class="btn btn-ghost btn-sm"
              aria-label="{name(goal)} first"
              onclick={() => up(i)}>Up</button
            >
          {/if}
          <button
            type="button"
            class="btn btn-ghost btn-sm"
            aria-label="Remove {name(goal)}"
            onclick={() => change(goals.filter((g) => g !== goal))}>Remove</button
          >
        </li>
      {/each}
    </ol>
  {/if}
  <div class="flex flex-wrap gap-2">
    {#each skills.filter((s) => !goals.includes(s.skill)) as skill (skill.skill)}
      <button
        type="button"
        class="btn btn-outline btn-sm"
        aria-label="Add {skill.name} to the goals"
        onclick={() => change([...goals, skill.skill])}>+ {skill.name}</button
      >
    {/each}
  </div>
</fieldset>
