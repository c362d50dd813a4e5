<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import MemberRow from '$lib/accounts/MemberRow.svelte';
  import { roles } from '$lib/accounts/roles';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import TextField from '$lib/parts/TextField.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';

  const load = () => ask(api.GET('/api/v1/accounts/members'));
  let members = $state(load());
  let refusal = $state<Refusal>();
  const blank = (): Schemas['MemberRequest'] => ({ name: '', email: '', password: '', role: 'coach' });
  let member = $state(blank());

  async function add(event: SubmitEvent) {
    event.preventDefault();
    refusal = undefined;
    try {
      await ask(api.POST('/api/v1/accounts/members', { body: member }));
      member = blank();
      members = load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<div>
  <Loaded of={members}>
    {#snippet children(list)}
      <ul class="ruled border-t">
        {#each list as member (member.id)}
          <MemberRow
            {member}
            mayChange={account.me?.user?.role === 'owner'}
            onchange={() => (members = load())}
          />
        {/each}
      </ul>
    {/snippet}
  </Loaded>
  {#if account.me?.user?.role === 'owner'}
    <h2 class="mt-8 mb-4">Add someone</h2>
    <form class="grid max-w-md gap-4" onsubmit={add} novalidate>
      {#if refusal && !refusal.problems.length}<Notice tone="error">{pageText(refusal.code)}</Notice>{/if}
      {#each [{ key: 'name', label: 'Name', type: 'text' }, { key: 'email', label: 'E-mail', type: 'email' }, { key: 'password', label: 'First password', type: 'password' }] as const as field (field.key)}
        <TextField
          label={field.label}
          error={fieldText(refusal, field.key)}
          type={field.type}
          autocomplete="off"
          bind:value={member[field.key]}
        />
      {/each}
      <Field label="Role">
        {#snippet children({ id })}
          <select {id} class="select w-full" bind:value={member.role}>
            <option value="coach">{roles.coach}</option>
            <option value="assistant">{roles.assistant}</option>
          </select>
        {/snippet}
      </Field>
      <button class="btn btn-primary justify-self-start">Add</button>
    </form>
  {/if}
</div>
