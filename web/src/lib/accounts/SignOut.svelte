<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { api, ask } from '$lib/api/client';
  import { outbox } from '$lib/sessions/outbox.svelte';
  import { saveFile } from '$lib/sessions/saveFile';
  import { account } from './account.svelte';

  let dialog = $state<HTMLDialogElement>();
  let left = $state(0);

  async function look() {
    left = (await outbox.left().catch(() => [])).length;
    return left;
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

  async function leave() {
    dialog?.close();
    await ask(api.POST('/api/v1/accounts/sign-out'));
    await outbox.leave();
    await account.load();
    await goto(resolve('/sign-in'));
  }
</script>

<button class="btn btn-ghost btn-sm px-2 lg:justify-start" onclick={start}>Sign out</button>

<dialog bind:this={dialog} class="modal" aria-labelledby="leaving">
  <div class="modal-box grid gap-4">
    <h2 id="leaving" class="text-2xl">Not all of it is logged</h2>
    <p>
      {left}
      {left === 1 ? 'thing' : 'things'} that you said on this device {left === 1 ? 'is' : 'are'} not in the studio’s
      books. Signing out erases what is here.
    </p>
    <div class="flex flex-wrap gap-2">
      <button class="btn btn-accent" onclick={send}>Send it first</button>
      <button class="btn btn-outline" onclick={async () => saveFile(await outbox.left())}
        >Save it as a file</button
      >
      <button class="btn btn-error" onclick={leave}>Discard it and sign out</button>
      <button class="btn btn-ghost" onclick={() => dialog!.close()}>Stay</button>
    </div>
  </div>
</dialog>
