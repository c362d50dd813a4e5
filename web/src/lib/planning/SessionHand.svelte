<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { fieldText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { undo } from '$lib/parts/undo.svelte';
  import { refusedText } from './verdicts';

  interface Props {
    session: Schemas['SessionSheet'];
    onchange: () => void;
  }

  let { session, onchange }: Props = $props();
  let moving = $state(false);
  let date = $state('');
  let refusal = $state<Refusal>();
  let busy = $state(false);

  /** What was seen is what is on this page; an undo is of what came of it, and asks nothing: as it was, so it stands again. */
  const send = (
    kind: Schemas['SessionChangeKind'],
    to: string | null = null,
    seen: number | null = Number(session.version),
    second = false,
  ) =>
    ask(
      api.POST('/api/v1/sessions/{sessionId}/changes', {
        params: { path: { sessionId: session.id } },
        body: { kind, date: to, id: newId(), seen, second },
      }),
    );

  async function change(act: () => Promise<void>) {
    busy = true;
    refusal = undefined;
    try {
      await act();
    } catch (error) {
      refusal = error as Refusal;
      // What stands now comes to the page, beside why nothing was done.
      if (refusal.status === 412) onchange();
    } finally {
      busy = false;
    }
  }

  const end = () =>
    change(async () => {
      await send('end');
      onchange();
      undo.offer('The session is ended.', async () => {
        await send('reopen', null, null);
        onchange();
      });
    });

  const remove = () =>
    change(async () => {
      await send('delete');
      undo.offer('The planned session is deleted.', async () => {
        await send('restore', null, null, true);
        await goto(resolve('/sessions/[id]', { id: session.id }));
        onchange();
      });
      await goto(resolve('/students/[id]/sessions', { id: session.studentId }));
    });

  const takeBack = () =>
    change(async () => {
      await send('takeBack');
      onchange();
    });

  const restore = (second = false) =>
    change(async () => {
      await send('restore', null, undefined, second);
      onchange();
    });

  function move(second = false) {
    const before = session.plan.date;
    void change(async () => {
      const changed = session.plan.bent != null;
      await send('move', date || null, undefined, second);
      const { plan } = await ask(
        api.GET('/api/v1/sessions/{sessionId}', { params: { path: { sessionId: session.id } } }),
      );
      const lost = changed && plan.bent == null;
      moving = false;
      onchange();
      undo.offer(
        lost
          ? 'Made anew: what was changed by hand is not allowed on that day.'
          : changed
            ? 'Moved, with what was changed by hand.'
            : 'The session is made anew for its new day.',
        async () => {
          await (lost ? send('takeBack', null, null) : send('move', before, null, true));
          onchange();
        },
      );
    });
  }

  const said = $derived(refusal && refusedText(refusal));
</script>

{#if account.mayWrite}
  {#if session.deleted}
    <button class="btn btn-accent" disabled={busy} onclick={() => restore()}>Bring it back</button>
  {:else if session.startedAt && !session.endedAt}
    <button class="btn btn-outline btn-sm" disabled={busy} onclick={end}>End it here</button>
  {:else if !session.startedAt}
    <button class="btn btn-outline btn-sm" aria-expanded={moving} onclick={() => (moving = !moving)}
      >Move…</button
    >
    {#if session.mayTakeBack}
      <button class="btn btn-outline btn-sm" disabled={busy} onclick={takeBack}
        >{session.plan.bent ? 'Take the change back' : 'As it was before'}</button
      >
    {/if}
    <button class="btn btn-outline btn-sm" disabled={busy} onclick={remove}>Delete</button>
  {/if}
  {#if moving}
    <form
      class="flex basis-full flex-wrap items-end gap-2"
      onsubmit={(event) => {
        event.preventDefault();
        move();
      }}
      novalidate
    >
      <TextField
        label="To which day?"
        hint={session.plan.bent ? 'What was changed by hand comes along, if that day allows it.' : undefined}
        type="date"
        width="w-44"
        error={fieldText(refusal, 'date')}
        bind:value={date}
      />
      <button class="btn btn-primary" disabled={busy}>Make it for that day</button>
    </form>
  {/if}
  {#if said && !(moving && fieldText(refusal, 'date'))}
    <p class="text-error basis-full text-sm font-semibold" role="alert">{said}</p>
  {/if}
  {#if refusal?.problems[0]?.code === 'dayHasSession'}
    <button
      class="btn btn-outline btn-sm"
      disabled={busy}
      onclick={() => (session.deleted ? restore(true) : move(true))}>Beside it, as a second one</button
    >
  {/if}
{/if}
