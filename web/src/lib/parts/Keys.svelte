<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { keys } from './keys.svelte';

  let dialog = $state<HTMLDialogElement>();

  const groups = [
    {
      title: 'Anywhere',
      keys: [
        ['?', 'this list'],
        ['/', 'find a student'],
      ],
    },
    {
      title: 'On the bench',
      keys: [
        ['Enter', 'take the trial; in an empty field, go on'],
        ['Backspace', 'drop the last trial, when the field is empty'],
        ['L R', 'left side, right side'],
        ['W', 'warm or cold'],
        ['N', 'next measure that is not read'],
        ['Space', 'start and stop the clock; capture from the device'],
        ['H M', 'an attempt held, an attempt missed'],
        ['Escape', 'leave a trial as it was'],
        ['1–5', 'quality, with the focus on it'],
        ['.2', 'the value nearest to the last trial that ends in .2'],
      ],
    },
    {
      title: 'At the timer',
      keys: [
        ['Space', 'start, pause'],
        ['→ ←', 'next stretch, back'],
      ],
    },
    {
      title: 'On the floor',
      keys: [
        ['Space', 'run, pause'],
        ['→ ←', 'next, back'],
        ['S', 'skip to the next side or drill'],
        ['B', 'back off one level'],
        ['P', 'pain'],
        ['1–5', 'quality of what was just done'],
      ],
    },
  ];

  function key(event: KeyboardEvent) {
    if (!keys.isCommand(event)) return;
    if (event.key === '?') dialog?.showModal();
    else if (event.key === '/') {
      event.preventDefault();
      void goto(resolve('/students'), { state: { find: true } });
    }
  }
</script>

<svelte:window onkeydown={key} />

<dialog
  bind:this={dialog}
  class="ruled bg-base-100 text-base-content m-auto max-w-lg border p-6"
  aria-label="Keys"
>
  {#each groups as group (group.title)}
    <h2 class="mb-1">{group.title}</h2>
    <dl class="mb-4 grid grid-cols-[6rem_1fr] gap-y-1">
      {#each group.keys as [name, does] (name)}
        <dt><kbd class="kbd kbd-sm">{name}</kbd></dt>
        <dd>{does}</dd>
      {/each}
    </dl>
  {/each}
  <label class="mb-4 flex items-center gap-2">
    <input
      type="checkbox"
      class="checkbox checkbox-sm"
      checked={keys.letters}
      onchange={(event) => keys.set(event.currentTarget.checked)}
    />
    Single-letter keys
  </label>
  <button class="btn btn-primary" onclick={() => dialog?.close()}>Close</button>
</dialog>
