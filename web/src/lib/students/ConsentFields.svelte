<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import YesNo from '$lib/parts/YesNo.svelte';
  import { consentName, consentQuestion, refusedText } from './consents';

  interface Props {
    kinds: Schemas['ConsentKind'][];
    said: Partial<Record<Schemas['ConsentKind'], boolean>>;
    /** Who speaks for a student under 18. */
    guardian: string;
    onchange: () => void;
  }

  let { kinds, said = $bindable(), guardian = $bindable(), onchange }: Props = $props();
  const uid = $props.id();
</script>

<ul>
  {#each kinds as kind (kind)}
    <li class="ruled grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 border-b py-2">
      <span id="{uid}-{kind}" class="pt-1"><strong>{consentName(kind)}.</strong> {consentQuestion(kind)}</span
      >
      <YesNo
        name="{uid}-{kind}"
        labelledby="{uid}-{kind}"
        value={said[kind]}
        onchange={(yes) => {
          said[kind] = yes;
          onchange();
        }}
      />
      {#if said[kind] === false && refusedText(kind)}
        <p class="col-span-2 mt-1 border-s-4 ps-3 text-sm" role="status">{refusedText(kind)}</p>
      {/if}
      {#if kind === 'guardian' && said.guardian !== undefined}
        <label class="col-span-2 mt-2 grid max-w-sm gap-1 text-sm">
          <span class="font-semibold">Who said it?</span>
          <input class="input" maxlength="120" oninput={onchange} bind:value={guardian} />
        </label>
      {/if}
    </li>
  {/each}
</ul>
