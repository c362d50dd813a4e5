<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import Entry from '$lib/accounts/Entry.svelte';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { pageText } from '$lib/parts/problems';

  let email = $state('');
  let password = $state('');
  let refusal = $state<Refusal>();
  let busy = $state(false);

  async function signIn(event?: SubmitEvent) {
    event?.preventDefault();
    busy = true;
    refusal = undefined;
    try {
      await ask(api.POST('/api/v1/accounts/sign-in', { body: { email, password } }));
      await account.load();
      await goto(resolve('/today'));
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

<Entry title="Sign in">
  <form class="grid gap-4" onsubmit={signIn}>
    {#if refusal}<Notice tone="error">{pageText(refusal.code)}</Notice>{/if}
    <Field label="E-mail">
      {#snippet children({ id })}
        <input {id} class="input w-full" type="email" autocomplete="username" required bind:value={email} />
      {/snippet}
    </Field>
    <Field label="Password">
      {#snippet children({ id })}
        <input
          {id}
          class="input w-full"
          type="password"
          autocomplete="current-password"
          required
          bind:value={password}
        />
      {/snippet}
    </Field>
    <button class="btn btn-primary" disabled={busy}>Sign in</button>
  </form>
  {#if account.me?.demoAccounts.length}
    <section class="ruled mt-8 border-t pt-4" aria-label="Demo sign-ins">
      <h2 class="mb-2">The demo studio</h2>
      <ul class="grid gap-1">
        {#each account.me.demoAccounts as demo (demo.email)}
          <li class="flex items-center justify-between gap-3">
            <span>{demo.name}<span class="text-quiet">&nbsp;· {demo.role}</span></span>
            <button
              class="btn btn-outline btn-sm"
              onclick={() => {
                email = demo.email;
                password = demo.password;
                void signIn();
              }}>Enter as {demo.name.split(' ')[0]}</button
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</Entry>
