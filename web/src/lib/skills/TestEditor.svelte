<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { problemText } from '$lib/parts/problems';
  import type { LadderEditor } from './editor.svelte';
  import NumberBox from './NumberBox.svelte';
  import { kindName } from './testKinds';

  interface Props {
    editor: LadderEditor;
    test: Schemas['ReadinessTest'];
    path: string;
    onremove: () => void;
  }

  let { editor, test = $bindable(), path, onremove }: Props = $props();
  const changed = () => editor.changed();
  const measures = $derived(catalogue.content!.measures);
  const kinds: Record<string, Schemas['MeasureKind'][]> = {
    rom: ['range', 'step'],
    hold: ['hold'],
    rate: ['rate'],
    symmetry: ['range', 'step', 'hold'],
  };
  const offered = $derived(
    measures.filter(
      (m) =>
        !m.quick &&
        (kinds[test.kind ?? ''] ?? []).includes(m.kind) &&
        (test.kind !== 'symmetry' || m.perSide),
    ),
  );
  const measure = $derived('measure' in test && test.measure ? catalogue.measure(test.measure) : undefined);
  const drill = $derived('drill' in test && test.drill ? catalogue.drill(test.drill) : undefined);
  const problems = $derived(editor.problemsOf(path));
  const limbs: { key: Schemas['Limb']; text: string }[] = [
    { key: 'thisSide', text: 'this side' },
    { key: 'otherSide', text: 'the other side' },
    { key: 'eachSide', text: 'each side' },
    { key: 'betterSide', text: 'the better side' },
    { key: 'bilateral', text: 'both as one' },
  ];

  const freeKey = (items: Schemas['FormItem'][]) => {
    let n = items.length + 1;
    while (items.some((i) => i.key === `item-${n}`)) n++;
    return `item-${n}`;
  };

  /** The number stays, what it counts changes. */
  function countIn(breaths: boolean) {
    if (test.kind !== 'hold') return;
    const number = test.breaths ?? test.seconds ?? 0;
    [test.breaths, test.seconds] = breaths ? [number, null] : [null, number];
    changed();
  }

  /** Another measure brings its own levels, direction and limb with it. */
  function choose(key: string) {
    if (!('measure' in test)) return;
    const next = catalogue.measure(key);
    test.measure = key;
    if ('level' in test || next.levels.length) Object.assign(test, { level: next.levels[0]?.key ?? null });
    if (test.kind === 'rom') test.comparison = next.better === 'down' ? 'atMost' : 'atLeast';
    if ('limb' in test || test.kind !== 'symmetry')
      Object.assign(test, {
        limb: !next.perSide ? 'bilateral' : editor.ladder.perSide ? 'thisSide' : 'eachSide',
      });
    changed();
  }
</script>

<div class="ruled border-t py-2" role="group" aria-label="{kindName(test.kind)} test">
  <div
    class="grid grid-cols-[minmax(0,1fr)_2rem] items-start gap-x-2 gap-y-1 sm:grid-cols-[7rem_minmax(0,1fr)_2rem]"
  >
    <strong class="text-sm max-sm:col-span-2 sm:pt-1.5">{kindName(test.kind)}</strong>
    <div class="flex flex-wrap items-center gap-2">
      {#if 'measure' in test && test.measure}
        <select
          class="select select-sm w-52"
          aria-label="Measure"
          value={test.measure}
          onchange={(event) => choose(event.currentTarget.value)}
        >
          {#each offered as m (m.key)}<option value={m.key}>{m.name}</option>{/each}
        </select>
        {#if measure?.levels.length && 'level' in test}
          <select class="select select-sm w-36" aria-label="Level" bind:value={test.level} onchange={changed}>
            {#each measure.levels as l (l.key)}<option value={l.key}>{l.name}</option>{/each}
          </select>
        {/if}
      {/if}
      {#if 'drill' in test && test.drill}
        <select
          class="select select-sm w-52"
          aria-label="Drill"
          value={test.drill}
          onchange={(event) => {
            if (!('drill' in test)) return;
            test.drill = event.currentTarget.value;
            if ('variant' in test) test.variant = catalogue.drill(test.drill).variants[0]!.key;
            changed();
          }}
        >
          {#each catalogue.content!.drills as d (d.key)}<option value={d.key}>{d.name}</option>{/each}
        </select>
        {#if 'variant' in test && drill}
          <select
            class="select select-sm w-40"
            aria-label="Variant"
            bind:value={test.variant}
            onchange={changed}
          >
            {#each drill.variants as v (v.key)}<option value={v.key}>{v.name}</option>{/each}
          </select>
        {/if}
      {/if}
      {#if test.kind === 'rom'}
        <span>{test.comparison === 'atLeast' ? '≥' : '≤'}</span>
        <NumberBox label="Threshold" bind:value={test.threshold} {changed} />
        <span class="text-sm">{test.straddleAngle ? '° of straddle' : measure?.unit}</span>
        <NumberBox
          label="Trials"
          bind:value={
            () => (test.kind === 'rom' ? (test.minTrials ?? 3) : 3),
            (v) => {
              if (test.kind === 'rom') test.minTrials = v;
            }
          }
          {changed}
        />
        <span class="text-sm">trials</span>
      {:else if test.kind === 'hold'}
        <NumberBox
          label="How long"
          bind:value={
            () => (test.kind === 'hold' ? (test.breaths ?? test.seconds ?? 0) : 0),
            (v) => {
              if (test.kind !== 'hold') return;
              if (test.breaths != null) test.breaths = v;
              else test.seconds = v;
            }
          }
          {changed}
        />
        <select
          class="select select-sm w-28"
          aria-label="Counted in"
          value={test.breaths != null ? 'breaths' : 'seconds'}
          onchange={(event) => countIn(event.currentTarget.value === 'breaths')}
        >
          <option value="seconds">seconds</option>
          <option value="breaths">breaths</option>
        </select>
      {:else if test.kind === 'reps'}
        <NumberBox label="Repetitions" bind:value={test.reps} {changed} /><span class="text-sm"
          >clean{test.eachSeconds ? `, ${test.eachSeconds} s each, on one day` : ''}</span
        >
      {:else if test.kind === 'rate'}
        <NumberBox label="Successes" bind:value={test.successes} {changed} /><span class="text-sm">of</span>
        <NumberBox label="Attempts" bind:value={test.of} {changed} />
      {:else if test.kind === 'symmetry'}
        <span>≤</span><NumberBox label="At most" bind:value={test.atMost} {changed} /><span class="text-sm"
          >{measure?.unit ?? 's'} apart</span
        >
      {:else if test.kind === 'exposure'}
        <NumberBox label="Sessions" bind:value={test.sessions} {changed} /><span class="text-sm">over</span>
        <NumberBox label="Days" bind:value={test.days} {changed} /><span class="text-sm">days</span>
      {:else if test.kind === 'exit'}
        <input class="input input-sm w-44" aria-label="Way out" bind:value={test.name} oninput={changed} />
        <NumberBox label="Times" bind:value={test.times} {changed} /><span class="text-sm">times safe</span>
        {#if test.or}
          <span class="flex basis-full flex-wrap items-center gap-2 text-sm">
            or
            <input
              class="input input-sm w-44"
              aria-label="Other way out"
              bind:value={test.or.name}
              oninput={changed}
            />
            <select
              class="select select-sm w-52"
              aria-label="Drill of the other way out"
              bind:value={test.or.drill}
              onchange={changed}
            >
              {#each catalogue.content!.drills as d (d.key)}<option value={d.key}>{d.name}</option>{/each}
            </select>
            <button
              type="button"
              class="btn btn-ghost btn-sm"
              onclick={() => {
                if (test.kind !== 'exit') return;
                test.or = null;
                changed();
              }}>Only the first</button
            >
          </span>
        {/if}
      {/if}
      {#if 'limb' in test}
        <select class="select select-sm w-32" aria-label="Limb" bind:value={test.limb} onchange={changed}>
          {#each limbs as l (l.key)}<option value={l.key}>{l.text}</option>{/each}
        </select>
      {/if}
      {#if test.kind !== 'hold' && 'shelfDays' in test}{@render shelf(test)}{/if}
      {#if test.kind === 'hold'}
        <div class="flex basis-full flex-wrap items-center gap-x-4 gap-y-1 text-sm">
          <select
            class="select select-sm w-36"
            aria-label="Quality"
            value={String(test.quality ?? '')}
            onchange={(event) => {
              if (test.kind !== 'hold') return;
              test.quality = event.currentTarget.value ? Number(event.currentTarget.value) : null;
              changed();
            }}
          >
            <option value="">any quality</option>
            {#each [2, 3, 4, 5] as q (q)}<option value={String(q)}>quality {q} or more</option>{/each}
          </select>
          <label class="flex items-center gap-2"
            ><input
              type="checkbox"
              class="checkbox checkbox-sm"
              bind:checked={test.twoDays}
              onchange={changed}
            />on two days</label
          >
          <label class="flex items-center gap-2"
            ><input
              type="checkbox"
              class="checkbox checkbox-sm"
              bind:checked={test.breathFree}
              onchange={changed}
            />breath free</label
          >
          {#if test.orDrill}<span>or in {catalogue.drill(test.orDrill).name.toLowerCase()}</span>{/if}
          {@render shelf(test)}
        </div>
      {/if}
    </div>
    <button type="button" class="btn btn-ghost btn-sm btn-square" title="Remove" onclick={onremove}
      ><span aria-hidden="true" class="text-lg leading-none">×</span><span class="sr-only"
        >Remove the {kindName(test.kind).toLowerCase()} test</span
      ></button
    >
  </div>
  {#if test.kind === 'form'}
    <div class="mt-1 grid gap-1 sm:ps-30">
      {#each test.items as item, i (item.key)}
        <div class="flex gap-2">
          <input
            class="input input-sm min-w-0 grow"
            aria-label="Item {i + 1}"
            bind:value={item.name}
            oninput={changed}
          />
          {#if test.items.length > 1}
            <button
              type="button"
              class="btn btn-ghost btn-sm"
              onclick={() => {
                if (test.kind !== 'form') return;
                test.items.splice(i, 1);
                changed();
              }}>Remove<span class="sr-only"> item {i + 1}</span></button
            >
          {/if}
        </div>
      {/each}
      <button
        type="button"
        class="link-line justify-self-start text-sm"
        onclick={() => {
          if (test.kind !== 'form') return;
          test.items.push({ key: freeKey(test.items), name: '' });
          changed();
        }}>Add an item</button
      >
    </div>
  {/if}
  {#each problems as p, i (i)}<p class="text-error text-sm font-semibold sm:ps-30" role="alert">
      {problemText(p)}
    </p>{/each}
</div>

{#snippet shelf(of: { shelfDays?: number })}
  <span class="flex items-center gap-2 text-sm">
    counts for
    <NumberBox
      label="Days it counts for"
      bind:value={() => of.shelfDays ?? 21, (v) => (of.shelfDays = v)}
      {changed}
    /> days
  </span>
{/snippet}
