<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import OpeningFields from '$lib/accounts/OpeningFields.svelte';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import BlocksForm from '$lib/measuring/BlocksForm.svelte';
  import Field from '$lib/parts/Field.svelte';
  import { shortDay } from '$lib/parts/format';
  import Notice from '$lib/parts/Notice.svelte';
  import NotLoaded from '$lib/parts/NotLoaded.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import TextField from '$lib/parts/TextField.svelte';
  import { propName } from '$lib/planning/words';

  let studio = $state<Schemas['StudioView']>();
  /** The zone that holds, and what another one would change. */
  let zone = $state('');
  let change = $state<Schemas['TimeZoneChange']>();
  let refusal = $state<Refusal>();
  let failed = $state<string>();
  let saved = $state(false);
  const zones = Intl.supportedValuesOf('timeZone');
  const mayWrite = $derived(account.me?.user?.role === 'owner');

  async function load() {
    try {
      studio = await ask(api.GET('/api/v1/studio'));
      zone = studio.timeZone;
      change = undefined;
      failed = undefined;
    } catch (error) {
      failed = (error as Refusal).code;
    }
  }
  void load();

  async function look() {
    const asked = studio!.timeZone;
    saved = false;
    change = undefined;
    if (asked === zone) return;
    try {
      const found = await ask(api.GET('/api/v1/studio/time-zone', { params: { query: { zone: asked } } }));
      if (asked === studio?.timeZone) change = found;
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    [refusal, saved] = [undefined, false];
    try {
      studio = await ask(api.PUT('/api/v1/studio', { body: $state.snapshot(studio!) }));
      zone = studio.timeZone;
      change = undefined;
      saved = true;
      await account.load();
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  const many = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;
</script>

{#if failed}<NotLoaded code={failed} />
{:else if !studio}<p class="text-quiet" aria-live="polite">Loading…</p>
{:else}
  {#if !mayWrite}<p class="text-quiet mb-4">The owner changes what stands here.</p>{/if}
  <form class="grid gap-6" novalidate onsubmit={save}>
    <fieldset class="grid max-w-md gap-4" disabled={!mayWrite}>
      <TextField
        label="Name of the studio"
        maxlength={120}
        error={fieldText(refusal, 'name')}
        bind:value={studio.name}
      />
      <Field
        label="Time zone"
        hint="Training days are counted in it, and times are shown in it."
        error={fieldText(refusal, 'timeZone')}
      >
        {#snippet children({ id, describedBy })}
          <select
            {id}
            class="select w-full"
            aria-describedby={describedBy}
            bind:value={studio!.timeZone}
            onchange={look}
          >
            {#each zones.includes(studio!.timeZone) ? zones : [studio!.timeZone, ...zones] as name (name)}
              <option>{name}</option>
            {/each}
          </select>
        {/snippet}
      </Field>
      {#if change}
        <Notice tone="caution">
          There it is {shortDay(change.today)}, {change.localTime.slice(0, 5)}.
          {#if change.students}
            Of the last 120 days, {many(change.readings, 'reading')}, {many(change.sets, 'round')} and {many(
              change.sessions,
              'session',
            )} of {many(change.students, 'student')} would count for the day before or after. Their gates are judged
            anew.
          {:else}Nothing of the last 120 days would count for another day.{/if}
          Planned sessions keep their day.
        </Notice>
      {/if}
    </fieldset>
    <OpeningFields
      bind:times={studio.opening}
      problem={(field) => fieldText(refusal, field)}
      disabled={!mayWrite}
      onchange={() => (saved = false)}
    />
    <fieldset class="ruled border-t pt-4" disabled={!mayWrite}>
      <legend class="font-head pe-3 text-xl font-semibold">Household stand-ins</legend>
      <p class="text-quiet mb-3 text-sm">
        What the sheet offers in the place of a prop that a student does not have at home.
      </p>
      <div class="grid gap-3 sm:grid-cols-2">
        {#each studio.standIns as standIn, i (standIn.prop)}
          <TextField
            label={propName(standIn.prop)}
            maxlength={80}
            error={fieldText(refusal, `standIns[${i}].what`)}
            bind:value={standIn.what}
          />
        {/each}
      </div>
    </fieldset>
    {#if mayWrite}
      <div class="flex flex-wrap items-center gap-3">
        <button class="btn btn-primary">Save the studio</button>
        <span role="status">{saved ? 'Saved.' : ''}</span>
      </div>
      {#if refusal && !refusal.problems.length}
        <Notice tone="error">
          {pageText(refusal.code)}
          {#if refusal.code === 'changedMeanwhile'}
            <button type="button" class="link-line" onclick={() => void load()}>Show what stands now</button>
          {/if}
        </Notice>
      {/if}
    {/if}
  </form>
  <section class="ruled mt-8 border-t pt-4" aria-label="Blocks">
    <h2 class="mb-1">Blocks</h2>
    <BlocksForm />
  </section>
{/if}
