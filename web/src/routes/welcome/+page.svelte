<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import Entry from '$lib/accounts/Entry.svelte';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import TextField from '$lib/parts/TextField.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';

  let owner = $state({
    studioName: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
    name: '',
    email: '',
    password: '',
    setupCode: '',
  });
  let refusal = $state<Refusal>();
  let busy = $state(false);
  const zones = Intl.supportedValuesOf('timeZone');

  const fields = [
    { key: 'studioName', label: 'Studio', type: 'text', complete: 'organization' },
    { key: 'name', label: 'Your name', type: 'text', complete: 'name' },
    { key: 'email', label: 'E-mail', type: 'email', complete: 'username' },
    {
      key: 'password',
      label: 'Password',
      type: 'password',
      complete: 'new-password',
      hint: 'Ten characters or more.',
    },
  ] as const;

  async function create(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    refusal = undefined;
    try {
      await ask(api.POST('/api/v1/accounts/owner', { body: owner }));
      await account.load();
      await goto(resolve('/students'));
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

<Entry title="Create the owner">
  <p class="mb-5">
    This studio has nobody yet. The first person in owns it and can add coaches and assistants.
  </p>
  <form class="grid gap-4" onsubmit={create} novalidate>
    {#if account.me?.asksSetupCode}
      <TextField
        label="Setup code"
        hint="It stands in the server’s log, where the server was started."
        error={fieldText(refusal, 'setupCode')}
        autocomplete="off"
        autocapitalize="characters"
        spellcheck="false"
        bind:value={owner.setupCode}
      />
    {/if}
    {#if refusal && !refusal.problems.length}<Notice tone="error">{pageText(refusal.code)}</Notice>{/if}
    {#each fields as field (field.key)}
      <TextField
        label={field.label}
        hint={'hint' in field ? field.hint : undefined}
        error={fieldText(refusal, field.key)}
        type={field.type}
        autocomplete={field.complete}
        bind:value={owner[field.key]}
      />
    {/each}
    <Field label="Time zone" hint="Training days are counted in it." error={fieldText(refusal, 'timeZone')}>
      {#snippet children({ id, describedBy })}
        <select {id} class="select w-full" aria-describedby={describedBy} bind:value={owner.timeZone}>
          {#each zones.includes(owner.timeZone) ? zones : [owner.timeZone, ...zones] as zone (zone)}
            <option>{zone}</option>
          {/each}
        </select>
      {/snippet}
    </Field>
    <button class="btn btn-primary" disabled={busy}>Create the owner</button>
  </form>
</Entry>
