<script lang="ts">
  import type { Schemas } from '$lib/api/client';

  interface Props {
    signs: NonNullable<Schemas['IntakeQuestion']['signs']>;
    /** What was told; nothing while nobody has asked. */
    told: string[] | undefined;
    /** Answered as a whole, before each was asked for itself. */
    whole: boolean | undefined;
    onchange: (told: string[]) => void;
  }

  let { signs, told, whole, onchange }: Props = $props();
  const toggle = (key: string) =>
    onchange(told?.includes(key) ? told.filter((k) => k !== key) : [...(told ?? []), key]);
</script>

{#snippet box(key: string, text: string, of: string)}
  <label class="flex items-center gap-2">
    <input
      type="checkbox"
      class="checkbox checkbox-sm"
      checked={told?.includes(key) ?? false}
      aria-label="{of} {text}"
      onchange={() => toggle(key)}
    />
    <span aria-hidden="true">{text}</span>
  </label>
{/snippet}

{#if whole !== undefined && told === undefined}
  <p class="text-quiet col-span-2 text-sm">Said before, as a whole: {whole ? 'yes' : 'no'}.</p>
{/if}
<ul class="col-span-2 mt-1 ps-4">
  {#each signs.items as sign (sign.key)}
    <li class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1">
      <span>{sign.text}</span>
      <span class="flex gap-4">
        {#if sign.sided}
          {@render box(`${sign.key}-left`, 'left', sign.text)}
          {@render box(`${sign.key}-right`, 'right', sign.text)}
        {:else}{@render box(sign.key, 'yes', sign.text)}{/if}
      </span>
    </li>
  {/each}
  <li class="flex justify-end py-1">
    <label class="flex items-center gap-2">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={told?.length === 0}
        onchange={() => onchange([])}
      />
      None of these
    </label>
  </li>
</ul>
