<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, type Refusal, type Schemas } from '$lib/api/client';
  import { minutes } from '$lib/parts/format';
  import { fieldText, pageText, problemText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { undo } from '$lib/parts/undo.svelte';

  interface Props {
    /** What is typed now, where it can stand. */
    practice: Schemas['Practice'] | undefined;
    onuse: (practice: Schemas['Practice']) => void;
  }

  let { practice, onuse }: Props = $props();
  let presets = $state<Schemas['PresetView'][]>();
  let failed = $state<string>();
  let refusal = $state<Refusal>();
  let name = $state('');
  let used = $state<string>();
  let renaming = $state<string>();
  let newName = $state('');
  let id = newId();

  async function load() {
    try {
      presets = await ask(api.GET('/api/v1/practice-presets'));
      failed = undefined;
    } catch (error) {
      failed = (error as Refusal).code;
    }
  }
  void load();

  const mine = $derived(presets?.find((p) => p.id === used));

  async function act(what: () => Promise<unknown>): Promise<boolean> {
    refusal = undefined;
    try {
      await what();
      await load();
      return true;
    } catch (error) {
      refusal = error as Refusal;
      return false;
    }
  }

  const change = (preset: string, body: Schemas['PresetChange']) =>
    ask(
      api.POST('/api/v1/practice-presets/{presetId}/changes', {
        params: { path: { presetId: preset } },
        body,
      }),
    );

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    if (!practice) return;
    const body = { id, name, practice };
    if (await act(() => ask(api.POST('/api/v1/practice-presets', { body })))) {
      used = id;
      id = newId();
      name = '';
    }
  }

  const save = () => used && practice && act(() => change(used!, { practice }));

  async function rename(event: SubmitEvent, preset: string) {
    event.preventDefault();
    if (await act(() => change(preset, { name: newName }))) renaming = undefined;
  }

  async function remove(preset: Schemas['PresetView']) {
    if (await act(() => change(preset.id, { gone: true })))
      undo.offer(`“${preset.name}” is deleted.`, async () => {
        await change(preset.id, { gone: false });
        await load();
      });
  }

  const said = (field: string) => (renaming ? undefined : fieldText(refusal, field));
</script>

<section aria-label="Presets">
  <h2 class="mb-1">Presets</h2>
  {#if failed}<p class="text-error text-sm" role="alert">{pageText(failed)}</p>{/if}
  <ul class="ruled border-t">
    {#each presets ?? [] as preset (preset.id)}
      <li class="ruled border-b py-2">
        {#if renaming === preset.id}
          <form class="flex flex-wrap items-end gap-2" novalidate onsubmit={(e) => rename(e, preset.id)}>
            <TextField
              label="New name"
              width="w-52"
              maxlength={60}
              error={fieldText(refusal, 'name')}
              bind:value={newName}
            />
            <button class="btn btn-primary btn-sm">Rename</button>
            <button type="button" class="btn btn-ghost btn-sm" onclick={() => (renaming = undefined)}
              >Leave it</button
            >
          </form>
        {:else}
          <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
            <button
              class={['link-line min-w-0 text-start wrap-anywhere', used === preset.id && 'font-semibold']}
              aria-pressed={used === preset.id}
              onclick={() => {
                used = preset.id;
                onuse(preset.practice);
              }}>{preset.name}</button
            >
            <span class="text-quiet figures ms-auto text-sm">{minutes(preset.seconds)}</span>
            {#if account.mayWrite}
              <button
                class="btn btn-ghost btn-xs"
                aria-label="Rename {preset.name}"
                onclick={() => {
                  refusal = undefined;
                  renaming = preset.id;
                  newName = preset.name;
                }}>Rename</button
              >
              <button
                class="btn btn-ghost btn-xs"
                aria-label="Delete {preset.name}"
                onclick={() => remove(preset)}>Delete</button
              >
            {/if}
          </div>
        {/if}
      </li>
    {:else}
      {#if presets}<li class="text-quiet py-2">None yet. Name what you use again.</li>{/if}
    {/each}
  </ul>
  {#if account.mayWrite}
    <form class="mt-3 flex flex-wrap items-end gap-2" onsubmit={keep} novalidate>
      <TextField label="Name this one" width="w-52" maxlength={60} error={said('name')} bind:value={name} />
      <button class="btn btn-outline btn-sm" disabled={!practice}>Keep it</button>
      {#if mine}
        <button type="button" class="btn btn-outline btn-sm" disabled={!practice} onclick={save}
          >Save into “{mine.name}”</button
        >
      {/if}
    </form>
    {#if refusal && !fieldText(refusal, 'name')}
      <p class="text-error mt-1 text-sm font-semibold" role="alert">
        {refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code)}
      </p>
    {/if}
  {/if}
</section>
