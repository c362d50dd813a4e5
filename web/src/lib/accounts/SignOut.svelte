<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask } from '$lib/api/client';
  import { eraseDrafts } from '$lib/parts/draft.svelte';
  import { unfinishedIntakes } from '$lib/students/unfinished';
  import { outbox } from '$lib/sessions/outbox.svelte';
  import { saveFile } from '$lib/sessions/saveFile';
  import { account } from './account.svelte';

  let dialog = $state<HTMLDialogElement>();
  let left = $state(0);
  let intakes = $state<string[]>([]);

  async function look() {
    left = (await outbox.left().catch(() => [])).length;
    intakes = unfinishedIntakes(account.me!.user!.id, Date.now()).map(
      (i) => i.name || 'somebody without a name',
    );
    return left + intakes.length;
  }

  /** With something waiting it asks: send it, save it, or leave without it. */
  async function start() {
    if ((await look()) > 0) dialog!.showModal();
    else await leave();
  }

  async function send() {
    await outbox.send();
    if ((await look()) === 0) await leave();
  }

  const sentence = new Intl.ListFormat('en-GB');

  async function leave() {
    dialog?.close();
    const author = account.me!.user!.id;
    await ask(api.POST('/api/v1/accounts/sign-out'));
    await outbox.leave();
    eraseDrafts(author);
    await account.load();
    await goto(resolve('/sign-in'));
  }
</script>

<button class="btn btn-ghost btn-sm px-2 lg:justify-start" onclick={start}>Sign out</button>

<dialog bind:this={dialog} class="modal" aria-labelledby="leaving">
  <div class="modal-box grid gap-4">
    <h2 id="leaving" class="text-2xl">{left > 0 ? 'Not all of it is logged' : 'Not all of it is saved'}</h2>
    {#if left > 0}
      <p>
        {left}
        {left === 1 ? 'thing' : 'things'} that you said on this device {left === 1 ? 'is' : 'are'} not in the studio’s
        books.
      </p>
    {/if}
    {#if intakes.length}
      <p>
        {intakes.length === 1 ? 'The intake' : 'The intakes'} of {sentence.format(intakes)}
        {intakes.length === 1 ? 'is' : 'are'} not saved.
      </p>
    {/if}
    <p>Signing out erases what is here.</p>
    <div class="flex flex-wrap gap-2">
      {#if left > 0}
        <button class="btn btn-accent" onclick={send}>Send it first</button>
        <button class="btn btn-outline" onclick={async () => saveFile(await outbox.left())}
          >Save it as a file</button
        >
      {/if}
      <button class="btn btn-error" onclick={leave}>Discard it and sign out</button>
      <button class="btn btn-ghost" onclick={() => dialog!.close()}>Stay</button>
    </div>
  </div>
</dialog>
