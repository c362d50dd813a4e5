<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { newId } from '$lib/api/client';
  import { dayAndTime } from '$lib/parts/format';
  import { undo } from '$lib/parts/undo.svelte';
  import NewStudent from '$lib/students/NewStudent.svelte';
  import {
    dropIntake,
    intakeKey,
    rawIntake,
    takeOverIntake,
    unfinishedIntakes,
    type Unfinished,
  } from '$lib/students/unfinished';

  const author = account.me!.user!.id;
  takeOverIntake(author, Date.now());
  /** One draft for one person: which one stands in the address, so that a reload goes on with it and "Add a student" begins a new one. */
  const id = $derived(page.url.searchParams.get('draft'));
  let all = $state<Unfinished[]>([]);
  const others = $derived(all.filter((i) => i.id !== id));

  const begin = (draft = newId()) =>
    // eslint-disable-next-line svelte/no-navigation-without-resolve -- the path is resolved; the draft stands behind it.
    goto(`${resolve('/students/new')}?draft=${draft}`, { replaceState: true });

  const look = () => (all = unfinishedIntakes(author, Date.now()));

  $effect(() => {
    if (!id) void begin();
    look();
  });

  /** Thrown away, and to be had back for a moment. */
  function drop(intake: string, name: string) {
    const text = rawIntake(author, intake);
    dropIntake(author, intake);
    look();
    if (text !== null)
      undo.offer(`The intake of ${name || 'somebody without a name'} was thrown away.`, async () => {
        localStorage.setItem(intakeKey(author, intake), text);
        look();
      });
  }

  function afresh() {
    const gone = unfinishedIntakes(author, Date.now()).find((i) => i.id === id);
    if (gone) drop(gone.id, gone.name);
    void begin();
  }
</script>

<svelte:head><title>New student · Tensarch</title></svelte:head>

<main class="p-5 lg:p-7">
  <h1 class="mb-1">New student</h1>
  <p class="text-quiet mb-5">Intake: the person, what they want, and the screen that keeps them safe.</p>
  {#if others.length}
    <section class="ruled mb-6 max-w-6xl border-y py-3" aria-labelledby="unfinished">
      <h2 id="unfinished" class="mb-1 text-lg">Not saved yet on this device</h2>
      <ul>
        {#each others as intake (intake.id)}
          <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-1">
            <span class="font-semibold wrap-anywhere">{intake.name || 'No name yet'}</span>
            <span class="text-quiet text-sm">
              {intake.answered === 1 ? 'one question' : `${intake.answered} questions`} answered, {dayAndTime(
                new Date(intake.at).toISOString(),
              )}
            </span>
            <span class="ms-auto flex gap-2">
              <button
                class="btn btn-outline btn-sm"
                aria-label="Go on with {intake.name || 'the intake without a name'}"
                onclick={() => begin(intake.id)}>Go on</button
              >
              <button
                class="btn btn-ghost btn-sm"
                aria-label="Throw away the intake of {intake.name || 'somebody without a name'}"
                onclick={() => drop(intake.id, intake.name)}>Throw away</button
              >
            </span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if id}
    {#key id}<NewStudent {author} {id} onafresh={afresh} />{/key}
  {/if}
</main>
