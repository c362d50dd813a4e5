<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { longDay } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';
  import { consentKinds, consentName, consentQuestion, refusedText } from './consents';
  import type { OpenStudent } from './student.svelte';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  type Kind = Schemas['ConsentKind'];
  const consents = $derived(student.page!.consents);
  const said = (kind: Kind) => consents.said.find((c) => c.kind === kind);
  const when = (kind: Kind) => {
    const now = said(kind);
    return now
      ? `, ${longDay(now.on)}${now.saidBy ? `, said by ${now.saidBy}` : ''}${now.by ? `, written down by ${now.by}` : ''}`
      : '';
  };
  const shown = $derived(
    consentKinds.filter((k) => k !== 'guardian' || said(k) || consents.unasked.includes(k)),
  );
  let asking = $state<Kind>();
  let guardian = $state('');
  let refusal = $state<Refusal>();
  let busy = $state(false);

  async function say(kind: Kind, given: boolean) {
    busy = true;
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/consents', {
          params: { path: { studentId: student.id } },
          body: { id: newId(), kind, given, saidBy: kind === 'guardian' ? guardian || null : null },
        }),
      );
      [asking, guardian] = [undefined, ''];
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }
</script>

<section aria-label="Consents">
  <h2 class="mb-2">Consents</h2>
  <ul>
    {#each shown as kind (kind)}
      {@const now = said(kind)}
      <li class="ruled border-t py-2">
        <div class="flex flex-wrap items-baseline justify-between gap-x-3">
          <p>
            <strong>{consentName(kind)}:</strong>
            {now ? (now.given ? 'yes' : 'no') : 'not asked yet'}<span class="text-quiet text-sm"
              >{when(kind)}</span
            >
          </p>
          {#if account.mayWrite && asking !== kind}
            <button
              class="link-line text-sm"
              onclick={() => ([asking, refusal] = [kind, undefined])}
              aria-label="{now ? (now.given ? 'Withdraw' : 'Change') : 'Ask'}: {consentName(kind)}"
              >{now ? (now.given ? 'Withdraw…' : 'Change…') : 'Ask…'}</button
            >
          {/if}
        </div>
        {#if now && !now.given && refusedText(kind)}<p class="text-sm">{refusedText(kind)}</p>{/if}
        {#if asking === kind}
          <p class="mt-1 text-sm">{consentQuestion(kind)}</p>
          {#if kind === 'guardian'}
            <label class="mt-2 grid gap-1 text-sm">
              <span class="font-semibold">Who said it?</span>
              <input class="input input-sm" maxlength="120" bind:value={guardian} />
            </label>
          {/if}
          <div class="mt-2 flex flex-wrap gap-2">
            {#if !now?.given}
              <button class="btn btn-sm btn-outline" disabled={busy} onclick={() => say(kind, true)}
                >Yes</button
              >
            {/if}
            {#if now?.given !== false}
              <button class="btn btn-sm btn-outline" disabled={busy} onclick={() => say(kind, false)}
                >{now ? 'Withdraw it: this holds at once' : 'No'}</button
              >
            {/if}
            <button class="btn btn-sm btn-ghost" onclick={() => (asking = undefined)}>Cancel</button>
          </div>
          {#if refusal}<p class="text-error mt-1 text-sm" role="alert">{pageText(refusal.code)}</p>{/if}
        {/if}
      </li>
    {/each}
  </ul>
</section>
