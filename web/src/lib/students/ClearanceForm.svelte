<script lang="ts">
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import TextField from '$lib/parts/TextField.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import type { OpenStudent } from './student.svelte';
  import { tagName } from './tags';

  interface Props {
    student: OpenStudent;
  }

  let { student }: Props = $props();
  const tags = $derived(student.page!.bars.tags.map((t) => t.tag));
  const any = $derived(
    student.page!.bars.tags.some((t) => t.reasons.some((r) => r.liftedBy === 'anyClearance')),
  );
  const blank = () => ({ role: '', from: '', until: '', tags: [] as Schemas['LoadTag'][] });
  let form = $state(blank());
  let refusal = $state<Refusal>();
  let id = newId();

  async function record(event: SubmitEvent) {
    event.preventDefault();
    const missing = (['role', 'from', 'until'] as const).filter((key) => !form[key]);
    if (missing.length) {
      refusal = new Refusal(
        422,
        'required',
        missing.map((field) => ({ code: 'required', field })),
      );
      return;
    }
    refusal = undefined;
    try {
      await ask(
        api.POST('/api/v1/students/{studentId}/clearances', {
          params: { path: { studentId: student.id } },
          body: { id, ...form },
        }),
      );
      form = blank();
      id = newId();
      await student.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

{#if tags.length}
  <details class="mt-2">
    <summary class="link-line cursor-pointer">Record a clearance</summary>
    <form class="mt-3 grid gap-3" onsubmit={record} novalidate>
      <TextField
        label="Clinician’s role"
        hint="Such as physiotherapist; no name needed."
        error={fieldText(refusal, 'role')}
        bind:value={form.role}
      />
      {#each [{ key: 'from', label: 'From' }, { key: 'until', label: 'Last day' }] as const as row (row.key)}
        <TextField
          label={row.label}
          error={fieldText(refusal, row.key)}
          type="date"
          bind:value={form[row.key]}
        />
      {/each}
      <fieldset>
        <legend class="text-sm font-semibold">It covers</legend>
        {#if any}<p class="text-quiet text-sm">
            With nothing ticked it clears training as such; what the answer bars besides stays barred.
          </p>{/if}
        {#each tags as tag (tag)}
          <label class="flex items-center gap-2">
            <input type="checkbox" class="checkbox checkbox-sm" value={tag} bind:group={form.tags} />
            {tagName(tag)}
          </label>
        {/each}
        {#if fieldText(refusal, 'tags')}<p class="text-error text-sm font-semibold">
            {fieldText(refusal, 'tags')}
          </p>{/if}
      </fieldset>
      {#if refusal && !refusal.problems.length}<p class="text-error text-sm" role="alert">
          {pageText(refusal.code)}
        </p>{/if}
      <button class="btn btn-outline justify-self-start">Record it</button>
    </form>
  </details>
{/if}
