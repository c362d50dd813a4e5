<script lang="ts">
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { today } from '$lib/parts/format';
  import { refusedText } from './verdicts';

  interface Props {
    session: Schemas['SessionSheet'];
    onchange: () => void;
  }

  let { session, onchange }: Props = $props();
  let refusal = $state<Refusal>();
  let busy = $state(false);
  let again = '';

  /** In its own place, where it has not begun: of planned weeks it stays what they ask of it. */
  const inPlace = () =>
    ask(
      api.POST('/api/v1/sessions/{sessionId}/changes', {
        params: { path: { sessionId: session.id } },
        body: { kind: 'again', date: null, id: again, seen: Number(session.version), second: false },
      }),
    );

  /** The same skill and minutes, for today and under today's facts. */
  async function make() {
    const id = newId();
    again = newId();
    busy = true;
    refusal = undefined;
    try {
      if (!session.startedAt) {
        await inPlace();
        onchange();
        return;
      }
      await ask(
        api.POST('/api/v1/students/{studentId}/sessions', {
          params: { path: { studentId: session.studentId } },
          body: {
            id,
            date: null,
            minutes: session.plan.minutes,
            skill: session.skill,
            beside: session.beside,
            // The one under way is that of the day: this one comes after it.
            second: session.plan.date === today(),
          },
        }),
      );
      await goto(resolve('/sessions/[id]', { id }));
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

{#if account.mayWrite}
  <button class="btn btn-sm btn-accent ms-2" disabled={busy} onclick={make}>Make it again for today</button>
  {#if refusal}<span role="alert">{refusedText(refusal)}</span>{/if}
{/if}
