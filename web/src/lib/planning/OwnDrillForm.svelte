<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import Field from '$lib/parts/Field.svelte';
  import TextField from '$lib/parts/TextField.svelte';
  import { fieldText, pageText, problemText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';
  import { tagName } from '$lib/students/tags';
  import { doseFields } from './doseFields';
  import type { DrillPage } from './drills';
  import { propName } from './words';

  interface Props {
    /** The shipped drill, or the own one that gets a new version. */
    drill: DrillPage;
    /** Every prop that a drill may want. */
    props: readonly string[];
    onsaved: (saved: DrillPage) => void;
    oncancel: () => void;
  }

  let { drill, props, onsaved, oncancel }: Props = $props();
  const id = newId();
  const from = untrack(() => drill);
  const own = from.copyOf != null;
  let name = $state(own ? from.name : `${from.name}, ours`);
  let cues = $state(from.cues.map((c) => c.says).join('\n'));
  let checks = $state(from.checks.join('\n'));
  let stopSigns = $state(from.stopSigns.join('\n'));
  let chosen = $state([...from.props]);
  let variants = $state(
    from.variants.map((v) => ({
      key: v.key,
      name: v.name,
      dose: Object.fromEntries(doseFields(v.dose).map((f) => [f.field, String(f.value)])) as Record<
        string,
        string
      >,
    })),
  );
  /** By tag, how much more it loads than the one it was copied from. */
  let loads = $state<Record<string, Schemas['LoadLevel']>>({});
  let refusal = $state<Refusal>();
  let busy = $state(false);

  const lines = (text: string) =>
    text
      .split('\n')
      .map((s) => s.trim())
      .filter(Boolean);
  const levelOf = (tag: Schemas['LoadTag']): Schemas['LoadLevel'] =>
    from.variants.some((v) => v.loads.some((l) => l.tag === tag && l.level === 'heavy'))
      ? 'heavy'
      : from.variants.some((v) => v.loads.some((l) => l.tag === tag))
        ? 'light'
        : 'none';
  const levels: Schemas['LoadLevel'][] = ['none', 'light', 'heavy'];
  const tags = [
    'neck',
    'wrist',
    'shoulder',
    'elbow',
    'low-back',
    'hip-front',
    'hip-deep-flexion',
    'hamstring',
    'adductor',
    'knee-deep-flexion',
    'knee-twist',
    'ankle',
  ] as Schemas['LoadTag'][];

  async function save(event: SubmitEvent) {
    event.preventDefault();
    refusal = undefined;
    const problems: { code: string; field: string }[] = [];
    const body = variants.map((v, i) => {
      const was = doseFields(from.variants[i]!.dose);
      const dose: Record<string, number> = {};
      for (const f of was) {
        const value = parseNumber(v.dose[f.field] ?? '');
        if (value === null || !Number.isInteger(value))
          problems.push({ code: 'notANumber', field: `own.variants[${i}].dose.${f.field}` });
        else dose[f.field] = value;
      }
      return { key: v.key, name: v.name, dose: dose as Schemas['DoseChange'] };
    });
    if (problems.length) {
      refusal = new Refusal(422, 'notANumber', problems);
      return;
    }
    busy = true;
    try {
      const saved = await ask(
        api.POST('/api/v1/drills', {
          body: {
            id,
            drill: own ? from.key : null,
            source: from.copyOf ?? from.key,
            basedOn: from.version,
            gone: false,
            own: {
              name,
              cues: lines(cues),
              checks: lines(checks),
              stopSigns: lines(stopSigns),
              props: chosen,
              variants: body,
              loads: tags
                .map((tag) => ({ tag, level: loads[tag] ?? levelOf(tag) }))
                .filter((l) => l.level !== 'none'),
            },
          },
        }),
      );
      onsaved(saved as DrillPage);
    } catch (error) {
      refusal = error as Refusal;
    } finally {
      busy = false;
    }
  }

  const general = $derived(
    refusal &&
      (refusal.problems.find((p) => !p.field.startsWith('own.')) ??
        (refusal.problems.length ? undefined : { code: refusal.code, field: '' })),
  );
</script>

<form class="grid max-w-3xl gap-4" onsubmit={save} novalidate>
  <TextField label="Name" error={fieldText(refusal, 'own.name')} bind:value={name} />
  {#each [{ label: 'What is said, a line each', field: 'own.cues', get: () => cues, set: (t: string) => (cues = t) }, { label: 'What to look at, a line each', field: 'own.checks', get: () => checks, set: (t: string) => (checks = t) }, { label: 'When to stop, a line each', field: 'own.stopSigns', get: () => stopSigns, set: (t: string) => (stopSigns = t) }] as f (f.field)}
    <Field label={f.label} error={fieldText(refusal, f.field)}>
      {#snippet children({ id, describedBy, invalid })}
        <textarea
          {id}
          class="textarea w-full"
          rows="3"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          bind:value={f.get, f.set}></textarea>
      {/snippet}
    </Field>
  {/each}
  <fieldset>
    <legend class="text-sm font-semibold">Props</legend>
    <div class="flex flex-wrap gap-x-4">
      {#each props as prop (prop)}
        <label class="flex min-h-9 items-center gap-2">
          <input class="checkbox checkbox-sm" type="checkbox" value={prop} bind:group={chosen} />
          {propName(prop)}
        </label>
      {/each}
    </div>
  </fieldset>
  <fieldset class="grid gap-3">
    <legend class="text-sm font-semibold">Versions</legend>
    {#each variants as v, i (v.key)}
      <div class="ruled flex flex-wrap items-start gap-3 border-b pb-3">
        <TextField
          label="Version {i + 1}"
          width="w-56"
          error={fieldText(refusal, `own.variants[${i}].name`)}
          bind:value={v.name}
        />
        {#each doseFields(from.variants[i]!.dose) as f (f.field)}
          <TextField
            label={f.label}
            width="w-20"
            inputmode="numeric"
            error={fieldText(refusal, `own.variants[${i}].dose.${f.field}`)}
            bind:value={() => v.dose[f.field] ?? '', (text) => (v.dose[f.field] = text ?? '')}
          />
        {/each}
      </div>
    {/each}
  </fieldset>
  <details>
    <summary class="text-sm font-semibold">What it loads: stricter, never lighter</summary>
    <div class="mt-2 grid gap-2 sm:grid-cols-3">
      {#each tags as tag (tag)}
        <label class="grid text-sm">
          {tagName(tag)}
          <select
            class="select select-sm w-full"
            value={loads[tag] ?? levelOf(tag)}
            onchange={(e) => (loads[tag] = e.currentTarget.value as Schemas['LoadLevel'])}
          >
            {#each levels.slice(levels.indexOf(levelOf(tag))) as level (level)}<option value={level}
                >{level === 'none' ? 'not' : level === 'light' ? 'lightly' : 'heavily'}</option
              >{/each}
          </select>
        </label>
      {/each}
    </div>
  </details>
  {#if refusal}
    <p class="text-error font-semibold" role="alert">
      {general ? (general.field ? problemText(general) : pageText(general.code)) : 'See the fields above.'}
    </p>
  {/if}
  <div class="flex gap-2">
    <button class="btn btn-primary" disabled={busy}>Keep it</button>
    <button class="btn btn-ghost" type="button" onclick={oncancel}>Leave</button>
  </div>
</form>
