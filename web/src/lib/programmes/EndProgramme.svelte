<script lang="ts">
  import { api, ask, Refusal } from '$lib/api/client';
  import { pageText } from '$lib/parts/problems';

  /** Ends the programme that stands; asked twice. */
  let { student, onended }: { student: string; onended: () => void } = $props();
  let asking = $state(false);
  let working = $state(false);
  let refusal = $state.raw<Refusal>();

  async function end() {
    working = true;
    refusal = undefined;
    try {
      const path = { studentId: student };
      await ask(api.POST('/api/v1/students/{studentId}/programme/end', { params: { path } }));
      onended();
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      working = false;
    }
  }
</script>

<div class="ruled border-t pt-4">
  {#if asking}
    <p class="mb-2 text-sm">
      Every session that is still to come is thrown away. What was done stays, and another programme can
      follow.
    </p>
    <button type="button" class="btn btn-sm btn-error" disabled={working} onclick={end}>End it</button>
    <button type="button" class="btn btn-sm btn-ghost" onclick={() => (asking = false)}>Go on with it</button>
  {:else}
    <button type="button" class="btn btn-sm btn-ghost" onclick={() => (asking = true)}
      >End the programme</button
    >
  {/if}
  {#if refusal}<p class="text-error text-sm font-semibold" role="alert">{pageText(refusal.code)}</p>{/if}
</div>
