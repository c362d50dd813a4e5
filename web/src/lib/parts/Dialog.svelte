<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    onclose: () => void;
    children: Snippet;
    /** Its buttons, the safe one first. */
    actions: Snippet;
  }

  let { title, onclose, children, actions }: Props = $props();
  const uid = $props.id();
  let dialog = $state<HTMLDialogElement>();

  // The browser keeps the focus inside, and gives it back.
  $effect(() => {
    dialog!.showModal();
  });
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="{uid}-title" {onclose}>
  <div class="modal-box grid gap-4">
    <h2 id="{uid}-title" class="text-2xl">{title}</h2>
    {@render children()}
    <div class="flex flex-wrap gap-2">{@render actions()}</div>
  </div>
</dialog>
