<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { phaseTitles } from './phases';
  import { noteText } from './words';

  interface Props {
    title: string;
    options: Promise<Schemas['DrillOption'][]>;
    onpick: (option: Schemas['DrillOption']) => void;
    onclose: () => void;
  }

  let { title, options, onpick, onclose }: Props = $props();
  const uid = $props.id();
  let typed = $state('');
  let dialog = $state<HTMLDialogElement>();

  $effect(() => {
    dialog!.showModal();
  });

  const found = (all: Schemas['DrillOption'][]) =>
    all.filter((o) => catalogue.drill(o.drill).name.toLowerCase().includes(typed.trim().toLowerCase()));
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="{uid}-title" {onclose}>
  <div class="modal-box grid max-h-[85dvh] grid-rows-[auto_auto_minmax(0,1fr)_auto] gap-3">
    <h2 id="{uid}-title" class="text-2xl">{title}</h2>
    <input
      class="input w-full"
      type="search"
      aria-label="Find a drill"
      placeholder="Find"
      bind:value={typed}
    />
    <div class="overflow-y-auto">
      <Loaded of={options}>
        {#snippet children(all)}
          <ul class="ruled border-t">
            {#each found(all) as o (o.drill)}
              <li class="ruled flex items-center justify-between gap-3 border-b py-2">
                <div class="min-w-0">
                  <p>
                    <strong>{catalogue.drill(o.drill).name}</strong>
                    <span class="text-quiet text-sm"
                      >{phaseTitles[catalogue.drill(o.drill).phase].toLowerCase()}{#if o.fits}, for the same{/if}{#if o.companion},
                        beside the skill{/if}</span
                    >
                  </p>
                  <p class="text-quiet text-sm">
                    {o.why ? noteText(o.why) : catalogue.drill(o.drill).purpose}
                  </p>
                </div>
                <button
                  class="btn btn-sm btn-outline"
                  disabled={!!o.why}
                  aria-label="Take {catalogue.drill(o.drill).name}"
                  onclick={() => onpick(o)}>Take</button
                >
              </li>
            {:else}<li class="py-2">Nothing is called so.</li>{/each}
          </ul>
        {/snippet}
      </Loaded>
    </div>
    <div><button class="btn btn-sm btn-ghost" onclick={onclose}>Close</button></div>
  </div>
</dialog>
