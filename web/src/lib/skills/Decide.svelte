<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import { courseName } from './sides';

  interface Props {
    studentId: string;
    skill: string;
    gate: Pick<Schemas['SideGate'], 'side' | 'stage' | 'state'>;
    /** Whose gate it is, where more than one student is on the screen. */
    name?: string;
    ondecided: () => void;
  }

  let { studentId, skill, gate, name, ondecided }: Props = $props();
  let reason = $state('');
  let asking = $state<'stepBack' | 'override'>();
  /** The stage of which a reason is being written: another coach may move the side meanwhile. */
  let from = $state<number>();
  let refusal = $state<Refusal>();
  let id = newId();
  let said = $state('');
  const words: Partial<Record<Schemas['DecisionKind'], string>> = {
    stay: 'Written down: stays here.',
    advance: 'Written down: one stage on.',
    stepBack: 'Written down: one stage back.',
    override: 'Written down: one stage on, by override.',
  };

  const owned = $derived(gate.state === 'owned');

  async function decide(kind: Schemas['DecisionKind']) {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/skills/{skill}/decisions', {
          params: { path: { studentId, skill } },
          body: { id, side: gate.side, kind, fromStage: gate.stage, reason: reason.trim() || null },
        }),
      );
      id = newId();
      [reason, asking] = ['', undefined];
      said = words[kind] ?? '';
      ondecided();
    } catch (error) {
      refusal = error as Refusal;
      // Another coach came first: the newest is shown, and what was typed stays.
      if (refusal.problems.some((p) => p.code === 'stageMoved')) ondecided();
    }
  }
</script>

{#if account.mayWrite && !owned}
  <div
    class="flex flex-wrap gap-2"
    role="group"
    aria-label="Decide for {name ? `${name}, ` : ''}{courseName(gate.side)}"
  >
    <button
      class={['btn', gate.state === 'open' ? 'btn-accent' : 'btn-outline']}
      disabled={gate.state !== 'open'}
      onclick={() => decide('advance')}>Advance to {gate.stage + 1}</button
    >
    <button class="btn btn-outline" onclick={() => decide('stay')}>Stay</button>
    {#if gate.stage > 1}
      <button
        class="btn btn-outline"
        aria-expanded={asking === 'stepBack'}
        onclick={() => ([asking, from] = ['stepBack', gate.stage])}>Step back…</button
      >
    {/if}
    {#if gate.state !== 'open' && gate.state !== 'blocked'}
      <button
        class="btn btn-outline"
        aria-expanded={asking === 'override'}
        onclick={() => ([asking, from] = ['override', gate.stage])}>Override…</button
      >
    {/if}
  </div>
  {#if asking}
    <form
      class="mt-3 grid gap-3"
      novalidate
      onsubmit={(event) => {
        event.preventDefault();
        void decide(asking!);
      }}
    >
      <Field
        label={asking === 'override'
          ? 'Why advance although the gate is not open?'
          : 'Why step back? (if you like)'}
        hint={asking === 'override' ? 'Ten characters or more; it stays in the log.' : undefined}
        error={fieldText(refusal, 'reason')}
      >
        {#snippet children({ id: field, describedBy, invalid })}
          <textarea
            id={field}
            class="textarea w-full"
            rows="3"
            aria-describedby={describedBy}
            aria-invalid={invalid}
            bind:value={reason}></textarea>
        {/snippet}
      </Field>
      <div class="flex gap-2">
        <button class="btn btn-primary"
          >{asking === 'override'
            ? `Advance to ${gate.stage + 1} anyway`
            : `Back to ${gate.stage - 1}`}</button
        >
        <button type="button" class="btn btn-ghost" onclick={() => (asking = undefined)}>Cancel</button>
      </div>
    </form>
  {/if}
  <p class="text-sm" role="status">{said}</p>
  {#if asking && from !== gate.stage}
    <div class="mt-3"><Notice tone="error">{pageText('stageMoved')}</Notice></div>
  {:else if refusal && !fieldText(refusal, 'reason')}
    <div class="mt-3"><Notice tone="error">{pageText(refusal.code)}</Notice></div>
  {/if}
{/if}
