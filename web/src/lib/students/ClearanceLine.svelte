<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import TextField from '$lib/parts/TextField.svelte';
  import { longDay } from '$lib/parts/format';
  import { fieldText, pageText } from '$lib/parts/problems';
  import type { OpenStudent } from './student.svelte';
  import { tagName } from './tags';

  interface Props {
    student: OpenStudent;
    clearance: Schemas['ClearanceView'];
  }

  let { student, clearance }: Props = $props();
  let asking = $state(false);
  let reason = $state('');
  let refusal = $state<Refusal>();
  let id = newId();

  async function withdraw() {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/clearances/{clearanceId}/withdrawal', {
          params: { path: { studentId: student.id, clearanceId: clearance.id } },
          body: { id, reason },
        }),
      );
      [asking, reason, id] = [false, '', newId()];
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<div class="ruled border-t py-2">
  <p>
    <strong>{clearance.role}</strong>: {clearance.tags.map(tagName).join(', ')}.
    {#if clearance.standing}
      Until {longDay(clearance.until)}.
    {:else}
      <strong>{clearance.withdrawn ? 'Withdrawn' : 'Lapsed'} {longDay(clearance.lapsesOn)}.</strong>
    {/if}
  </p>
  {#if clearance.standing && account.mayWrite}
    {#if asking}
      <TextField
        label="Why does it no longer hold?"
        hint="Ten characters or more."
        error={fieldText(refusal, 'reason')}
        bind:value={reason}
      />
      {#if refusal && !fieldText(refusal, 'reason')}<p class="text-error text-sm" role="alert">
          {pageText(refusal.code)}
        </p>{/if}
      <button class="btn btn-outline btn-sm mt-2" onclick={withdraw}>Withdraw it</button>
    {:else}
      <button class="link-line text-sm" onclick={() => (asking = true)}>Withdraw…</button>
    {/if}
  {/if}
</div>
