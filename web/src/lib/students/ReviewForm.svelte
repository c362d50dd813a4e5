<script lang="ts">
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import type { OpenStudent } from './student.svelte';

  interface Props {
    student: OpenStudent;
    tag: Schemas['LoadTag'];
  }

  let { student, tag }: Props = $props();
  let asking = $state(false);
  let note = $state('');
  let refusal = $state<Refusal>();
  let id = newId();

  async function review() {
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/reviews', {
          params: { path: { studentId: student.id } },
          body: { id, tag, note },
        }),
      );
      [asking, note, id] = [false, '', newId()];
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

{#if asking}
  <Field label="What did you see?" hint="Ten characters or more." error={fieldText(refusal, 'note')}>
    {#snippet children({ id: field, describedBy, invalid })}
      <textarea
        id={field}
        class="textarea w-full"
        rows="2"
        aria-describedby={describedBy}
        aria-invalid={invalid}
        bind:value={note}></textarea>
    {/snippet}
  </Field>
  {#if refusal && !fieldText(refusal, 'note')}<p class="text-error text-sm" role="alert">
      {pageText(refusal.code)}
    </p>{/if}
  <button class="btn btn-primary btn-sm mt-2" onclick={review}>Lift the hold</button>
{:else}
  <button class="btn btn-outline btn-sm mt-1" onclick={() => (asking = true)}>Review…</button>
{/if}
