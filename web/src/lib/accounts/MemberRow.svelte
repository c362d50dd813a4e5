<script lang="ts">
  import { resolve } from '$app/paths';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import Dialog from '$lib/parts/Dialog.svelte';
  import Field from '$lib/parts/Field.svelte';
  import { shortDay } from '$lib/parts/format';
  import { fieldText, pageText, problemText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { undo } from '$lib/parts/undo.svelte';
  import { account } from './account.svelte';
  import { roles } from './roles';

  interface Props {
    member: Schemas['MemberView'];
    /** The owner looks. */
    mayChange: boolean;
    onchange: () => void;
  }

  let { member, mayChange, onchange }: Props = $props();
  let open = $state(false);
  let asking = $state(false);
  let refusal = $state<Refusal>();
  let typed = $state({ name: '', email: '', password: '', role: 'coach' as Schemas['Role'] });

  const send = (body: Schemas['MemberChange']) =>
    ask(
      api.POST('/api/v1/accounts/members/{memberId}/changes', {
        params: { path: { memberId: member.id } },
        body,
      }),
    );

  async function act(what: () => Promise<unknown>): Promise<boolean> {
    refusal = undefined;
    try {
      await what();
      onchange();
      return true;
    } catch (error) {
      refusal = error as Refusal;
      return false;
    }
  }

  function edit() {
    refusal = undefined;
    typed = { name: member.name, email: member.email, password: '', role: member.role };
    open = !open;
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const { name, email, password, role } = typed;
    if (await act(() => send(own ? { name } : { name, email, role, ...(password ? { password } : {}) })))
      open = false;
  }

  async function leave() {
    asking = false;
    if (await act(() => send({ left: true })))
      undo.offer(`${member.name} can no longer sign in.`, async () => {
        await send({ left: false });
        onchange();
      });
  }

  const noted = () =>
    ask(
      api.DELETE('/api/v1/accounts/members/{memberId}/unsent', { params: { path: { memberId: member.id } } }),
    );
  const entries = (n: number) => (n === 1 ? '1 thing' : `${n} things`);

  const own = $derived(member.id === account.me?.user?.id);
  const rest = $derived(
    refusal?.problems.find((p) => !['name', 'email', 'password', 'role'].includes(p.field)),
  );
</script>

<li class="ruled border-b py-3">
  <div class="grid items-baseline gap-x-4 gap-y-1 sm:grid-cols-[minmax(0,12rem)_minmax(0,1fr)_auto]">
    <span class="font-semibold wrap-anywhere">{member.name}</span>
    <span class="text-quiet wrap-anywhere">
      {member.email} · {member.leftAt ? `left on ${shortDay(member.leftAt)}` : roles[member.role]}
    </span>
    {#if mayChange}
      <span class="flex gap-2">
        {#if member.leftAt}
          <button class="btn btn-outline btn-sm" onclick={() => act(() => send({ left: false }))}
            >Bring back</button
          >
        {:else}
          <button
            class="btn btn-ghost btn-sm"
            aria-expanded={open}
            aria-label="Change {member.name}"
            onclick={edit}>Change…</button
          >
          {#if member.role !== 'owner'}
            <button
              class="btn btn-ghost btn-sm"
              aria-label="{member.name} has left"
              onclick={() => (asking = true)}>Has left…</button
            >
          {/if}
        {/if}
      </span>
    {/if}
  </div>
  {#if member.unsent?.waiting}
    <p class="mt-1 text-sm">
      {entries(member.unsent.waiting)} that they said {member.unsent.waiting === 1 ? 'waits' : 'wait'} on a device
      of the studio{member.unsent.oldest ? ` since ${shortDay(member.unsent.oldest)}` : ''}: sent when they
      sign in there, dropped after thirty days.
    </p>
  {/if}
  {#if member.unsent?.dropped}
    <p class="mt-1 flex flex-wrap items-baseline gap-x-3 text-sm">
      <span
        >{entries(member.unsent.dropped)} that they said on a device never came here and {member.unsent
          .dropped === 1
          ? 'was'
          : 'were'} dropped after thirty days. Ask them what is missing, and log it by hand.</span
      >
      <button
        class="btn btn-outline btn-sm"
        aria-label="Noted what was dropped of {member.name}"
        onclick={() => act(noted)}>Noted</button
      >
    </p>
  {/if}
  {#if open}
    <form class="mt-3 grid max-w-md gap-3" novalidate onsubmit={save}>
      <TextField label="Name" maxlength={120} error={fieldText(refusal, 'name')} bind:value={typed.name} />
      {#if own}
        <p class="text-quiet text-sm">
          Your address and password are changed <a class="link-line" href={resolve('/settings')}
            >under Settings</a
          >, where your password is asked.
        </p>
      {:else}
        <TextField
          label="E-mail"
          type="email"
          autocomplete="off"
          error={fieldText(refusal, 'email')}
          bind:value={typed.email}
        />
      {/if}
      {#if member.role !== 'owner'}
        <Field label="Role" hint="It holds at once." error={fieldText(refusal, 'role')}>
          {#snippet children({ id, describedBy })}
            <select {id} class="select w-full" aria-describedby={describedBy} bind:value={typed.role}>
              <option value="coach">{roles.coach}</option>
              <option value="assistant">{roles.assistant}</option>
            </select>
          {/snippet}
        </Field>
        <TextField
          label="New first password"
          hint="Only when they have lost theirs: they are signed out everywhere."
          type="password"
          autocomplete="off"
          error={fieldText(refusal, 'password')}
          bind:value={typed.password}
        />
      {/if}
      <div class="flex gap-2">
        <button class="btn btn-primary btn-sm">Save</button>
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => (open = false)}>Leave it</button>
      </div>
    </form>
  {/if}
  {#if refusal && (!refusal.problems.length || rest)}
    <p class="text-error mt-1 text-sm font-semibold" role="alert">
      {rest ? problemText(rest) : pageText(refusal.code)}
    </p>
  {/if}
</li>
{#if asking}
  <Dialog title="{member.name} works here no longer?" onclose={() => (asking = false)}>
    <p>
      They are signed out everywhere and cannot sign in. What they read, logged and decided stays under their
      name. You can bring them back.
    </p>
    {#snippet actions()}
      <button class="btn btn-outline" onclick={() => (asking = false)}>Leave it</button>
      <button class="btn btn-error" onclick={leave}>They have left</button>
    {/snippet}
  </Dialog>
{/if}
