<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal } from '$lib/api/client';
  import { keys } from '$lib/parts/keys.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { theme, type Theme } from '$lib/parts/theme.svelte';

  let name = $state(account.me?.user?.name ?? '');
  let email = $state(account.me?.user?.email ?? '');
  let asked = $state('');
  let current = $state('');
  let password = $state('');

  type Form = 'name' | 'email' | 'password';
  let saved = $state<Form>();
  let failed = $state<{ of: Form; refusal: Refusal }>();

  const refusal = (of: Form) => (failed?.of === of ? failed.refusal : undefined);

  async function save(event: SubmitEvent, of: Form, act: () => Promise<unknown>) {
    event.preventDefault();
    [saved, failed] = [undefined, undefined];
    try {
      await act();
      saved = of;
    } catch (error) {
      failed = { of, refusal: error as Refusal };
    }
  }

  const rename = () => ask(api.PUT('/api/v1/accounts/me', { body: { name } })).then(() => account.load());

  async function readdress() {
    await ask(api.PUT('/api/v1/accounts/me', { body: { email, current: asked } }));
    asked = '';
    await account.load();
  }

  async function change() {
    await ask(api.POST('/api/v1/accounts/me/password', { body: { current, password } }));
    [current, password] = ['', ''];
  }

  const themes: { key: Theme | ''; name: string }[] = [
    { key: '', name: 'As this device' },
    { key: 'chalk', name: 'Light' },
    { key: 'slate', name: 'Dark' },
  ];
</script>

<div class="grid gap-8">
  <form class="grid max-w-md gap-3" novalidate onsubmit={(event) => save(event, 'name', rename)}>
    <TextField
      label="Your name"
      hint="It stands beside all you read, log and decide, earlier entries included."
      maxlength={120}
      autocomplete="name"
      error={fieldText(refusal('name'), 'name')}
      bind:value={name}
    />
    <div class="flex flex-wrap items-center gap-3">
      <button class="btn btn-primary">Save the name</button>
      <span role="status">{saved === 'name' ? 'Saved.' : ''}</span>
    </div>
    {#if refusal('name') && !refusal('name')!.problems.length}
      <p class="text-error text-sm font-semibold" role="alert">{pageText(refusal('name')!.code)}</p>
    {/if}
  </form>

  <fieldset class="ruled border-t pt-4">
    <legend class="font-head pe-3 text-xl font-semibold">On this device</legend>
    <div class="flex flex-wrap gap-x-6 gap-y-2" role="radiogroup" aria-label="Theme">
      {#each themes as choice (choice.key)}
        <label class="flex items-center gap-2">
          <input
            type="radio"
            class="radio radio-sm"
            name="theme"
            checked={(theme.chosen ?? '') === choice.key}
            onchange={() => theme.choose(choice.key || undefined)}
          />
          {choice.name}
        </label>
      {/each}
    </div>
    <label class="mt-4 flex items-center gap-2">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={keys.letters}
        onchange={(event) => keys.set(event.currentTarget.checked)}
      />
      Single-letter keys, such as P for pain. <kbd class="kbd kbd-sm">?</kbd> lists all keys.
    </label>
  </fieldset>

  <form
    class="ruled grid max-w-md gap-3 border-t pt-4"
    novalidate
    onsubmit={(event) => save(event, 'email', readdress)}
  >
    <h2>Address</h2>
    <TextField
      label="You sign in as"
      hint="With another address every other device is signed out."
      type="email"
      autocomplete="username"
      error={fieldText(refusal('email'), 'email')}
      bind:value={email}
    />
    <TextField
      label="Your password, for the address"
      type="password"
      autocomplete="current-password"
      error={fieldText(refusal('email'), 'current')}
      bind:value={asked}
    />
    <div class="flex flex-wrap items-center gap-3">
      <button class="btn btn-outline">Change the address</button>
      <span role="status">{saved === 'email' ? 'Changed.' : ''}</span>
    </div>
    {#if refusal('email') && !refusal('email')!.problems.length}
      <p class="text-error text-sm font-semibold" role="alert">{pageText(refusal('email')!.code)}</p>
    {/if}
  </form>

  <form
    class="ruled grid max-w-md gap-3 border-t pt-4"
    novalidate
    onsubmit={(event) => save(event, 'password', change)}
  >
    <h2>Password</h2>
    <TextField
      label="Your password now"
      type="password"
      autocomplete="current-password"
      error={fieldText(refusal('password'), 'current')}
      bind:value={current}
    />
    <TextField
      label="New password"
      hint="Ten characters or more. Every other device is signed out."
      type="password"
      autocomplete="new-password"
      error={fieldText(refusal('password'), 'password')}
      bind:value={password}
    />
    <div class="flex flex-wrap items-center gap-3">
      <button class="btn btn-outline">Change the password</button>
      <span role="status">{saved === 'password' ? 'Changed.' : ''}</span>
    </div>
    {#if refusal('password') && !refusal('password')!.problems.length}
      <p class="text-error text-sm font-semibold" role="alert">{pageText(refusal('password')!.code)}</p>
    {/if}
  </form>
</div>
