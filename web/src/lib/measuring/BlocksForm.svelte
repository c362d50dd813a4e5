<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, Refusal, type Schemas } from '$lib/api/client';
  import TextField from '$lib/parts/TextField.svelte';
  import { fieldText, pageText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';

  const heights = [
    { key: 'lowCm', label: 'Low, cm' },
    { key: 'middleCm', label: 'Middle, cm' },
    { key: 'highCm', label: 'Tall, cm' },
  ] as const;
  type Typed = { key: string; name: string; lowCm: string; middleCm: string; highCm: string };

  let version = $state(0);
  let kinds = $state<Typed[]>([]);
  let refusal = $state<Refusal>();
  let saved = $state('');

  function show(blocks: Schemas['BlockKinds']) {
    version = blocks.version;
    kinds = blocks.kinds.map((k) => ({
      key: k.key,
      name: k.name,
      lowCm: String(k.lowCm),
      middleCm: String(k.middleCm),
      highCm: String(k.highCm),
    }));
  }

  void ask(api.GET('/api/v1/blocks'))
    .then(show)
    .catch((error: Refusal) => (refusal = error));

  async function save() {
    refusal = undefined;
    saved = '';
    const problems = kinds.flatMap((kind, i) =>
      heights
        .filter(({ key }) => !Number.isFinite(parseNumber(kind[key]) ?? NaN))
        .map(({ key }) => ({ code: 'notANumber', field: `kinds[${i}].${key}` })),
    );
    if (problems.length) {
      refusal = new Refusal(422, 'notANumber', problems);
      return;
    }
    try {
      show(
        await ask(
          api.PUT('/api/v1/blocks', {
            body: {
              version,
              kinds: kinds.map((k) => ({
                key: k.key,
                name: k.name,
                lowCm: parseNumber(k.lowCm)!,
                middleCm: parseNumber(k.middleCm)!,
                highCm: parseNumber(k.highCm)!,
              })),
            },
          }),
        ),
      );
      saved = 'The blocks are saved.';
    } catch (error) {
      refusal = error as Refusal;
    }
  }
</script>

<p class="text-quiet mb-3 text-sm">
  A gap can be read as a stack of blocks. These are the heights that it is converted with.
</p>
<form
  class="grid gap-3"
  novalidate
  onsubmit={(event) => {
    event.preventDefault();
    void save();
  }}
>
  {#each kinds as kind, i (kind.key)}
    <div class="flex flex-wrap items-start gap-3">
      <TextField
        label="Kind"
        error={fieldText(refusal, `kinds[${i}].name`)}
        width="w-44"
        bind:value={kind.name}
      />
      {#each heights as h (h.key)}
        <TextField
          label={h.label}
          error={fieldText(refusal, `kinds[${i}].${h.key}`)}
          width="w-24"
          inputmode="decimal"
          bind:value={kind[h.key]}
        />
      {/each}
    </div>
  {/each}
  {#if account.mayWrite}
    <div class="flex flex-wrap items-center gap-3">
      <button class="btn btn-primary btn-sm">Save the blocks</button>
      {#if kinds.length === 1}
        <button
          type="button"
          class="btn btn-outline btn-sm"
          onclick={() =>
            (kinds = [
              ...kinds,
              { key: 'second', name: 'Second kind', lowCm: '6', middleCm: '12', highCm: '20' },
            ])}>Add a second kind</button
        >
      {:else if kinds.length === 2}
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => (kinds = kinds.slice(0, 1))}
          >Remove the second kind</button
        >
      {/if}
      <p role="status" class="text-sm">{saved}</p>
    </div>
  {/if}
  {#if refusal && !refusal.problems.length}<p class="text-error text-sm" role="alert">
      {pageText(refusal.code)}
    </p>{/if}
</form>
