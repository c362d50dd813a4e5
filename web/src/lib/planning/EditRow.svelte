<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { minutes } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { problemText } from '$lib/parts/problems';
  import DoseFields from './DoseFields.svelte';
  import type { Change, SessionEditor } from './editor.svelte';
  import { sameOnBoth, sideSeconds } from './phases';
  import { doseText, propText } from './words';

  interface Props {
    editor: SessionEditor;
    planned: Schemas['PlannedDrill'];
    place: number;
    last: boolean;
    onswap: () => void;
    onmove: (by: number) => void;
    onremove: () => void;
  }

  let { editor, planned, place, last, onswap, onmove, onremove }: Props = $props();

  const drill = $derived(catalogue.drill(planned.drill));
  const isTest = $derived(planned.reason.code === 'dayGate');
  const name = $derived(`${drill.name}${isTest ? ' (test)' : ''}`);
  let apart = $state(false);
  let more = $state(false);
  const together = $derived(
    !apart &&
      (planned.sides.length === 1 || sameOnBoth(planned.sides, (s) => `${s.variant} ${doseText(s.dose)}`)),
  );
  const verdicts = $derived(editor.view!.verdicts.filter((v) => v.drill === planned.drill));
  const lasts = $derived(
    sideSeconds(editor.view!.parts, planned)
      .map((s) => minutes(s))
      .join(' + '),
  );
  const change = (c: Omit<Change, 'id'>) => editor.change({ ...c, id: planned.id });

  async function dose(
    side: Schemas['Side'] | null,
    numbers: Schemas['DoseChange'],
  ): Promise<string | undefined> {
    if (await change({ kind: 'dose', side, dose: numbers })) return undefined;
    const problem = editor.refusal?.refusal.problems[0];
    return problem ? problemText(problem) : 'Not taken: try again.';
  }

  const text = (kind: 'cue' | 'note' | 'prop', value: string, was: string | null | undefined) =>
    value.trim() !== (was ?? '') && void change({ kind, text: value });
</script>

<li
  class={['ruled border-b py-3', verdicts.some((v) => v.refused) && 'border-s-error -ms-3 border-s-4 ps-2']}
  aria-label={name}
  data-place={place}
  draggable="true"
  ondragstart={(e) => e.dataTransfer?.setData('text/plain', String(place))}
  ondragover={(e) => e.preventDefault()}
  ondrop={(e) => {
    e.preventDefault();
    const from = Number(e.dataTransfer?.getData('text/plain') ?? NaN);
    const moved = editor.view!.plan.drills[from];
    if (moved && from !== place) void editor.change({ kind: 'move', id: moved.id, to: place });
  }}
>
  <div class="flex flex-wrap items-start justify-between gap-x-4 gap-y-1">
    <div class="min-w-0">
      <strong>{name}</strong>
      {#if planned.skill && editor.view!.plan.beside?.length}<span class="text-quiet text-sm">
          · {catalogue.ladder(planned.skill).name}</span
        >{/if}
      <span class="text-quiet text-sm tabular-nums"> · {lasts}</span>
    </div>
    <div class="flex flex-wrap gap-1">
      <button
        class="btn btn-sm btn-ghost"
        aria-label="Move {name} up"
        aria-keyshortcuts="Alt+ArrowUp"
        disabled={place === 0}
        data-move="{planned.id}-up"
        onclick={() => onmove(-1)}>↑</button
      >
      <button
        class="btn btn-sm btn-ghost"
        aria-label="Move {name} down"
        aria-keyshortcuts="Alt+ArrowDown"
        disabled={last}
        data-move="{planned.id}-down"
        onclick={() => onmove(1)}>↓</button
      >
      {#if !isTest}
        <button class="btn btn-sm btn-ghost" aria-label="Swap {name}" onclick={onswap}>Swap</button>
      {/if}
      <button class="btn btn-sm btn-ghost" aria-label="Remove {name}" data-remove={place} onclick={onremove}
        >Remove</button
      >
      <button
        class="btn btn-sm btn-ghost"
        aria-expanded={more}
        aria-label="More about {name}"
        onclick={() => (more = !more)}>More</button
      >
    </div>
  </div>
  <div class="mt-1 grid gap-2">
    {#each together ? [planned.sides[0]!] : planned.sides as side, i (i)}
      <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
        {#if side.side && !together}
          <span class="w-full text-sm sm:w-24"
            ><SideMark side={side.side} text={side.side} means={drill.sideMeans} /></span
          >
        {/if}
        {#if drill.variants.length > 1}
          <label class="text-quiet grid text-xs">
            <span>Version<span class="sr-only">, {name}{together ? '' : `, ${side.side}`}</span></span>
            <select
              class="select select-sm text-base-content w-60 max-w-full text-sm"
              value={side.variant}
              onchange={(e) =>
                change({
                  kind: 'variant',
                  variant: e.currentTarget.value,
                  side: together ? null : (side.side ?? null),
                })}
            >
              {#each drill.variants as v (v.key)}<option value={v.key}>{v.name}</option>{/each}
            </select>
          </label>
        {/if}
        <DoseFields
          dose={side.dose}
          of={together ? name : `${name}, ${side.side}`}
          onchange={(numbers) => dose(together ? null : (side.side ?? null), numbers)}
        />
        {#if planned.sides.length > 1 && (together || i === planned.sides.length - 1)}
          <p class="flex flex-wrap items-center gap-x-3 text-sm">
            <span>{planned.sides.map((s) => s.side).join(', then ')}</span>
            <button
              class="link-line min-h-9"
              aria-label="Turn the sides of {name}"
              onclick={() => change({ kind: 'turnSides' })}>Turn the sides</button
            >
            {#if together}
              <button
                class="link-line min-h-9"
                aria-label="Change the sides of {name} apart"
                onclick={() => (apart = true)}>Each side for itself</button
              >
            {/if}
          </p>
        {/if}
      </div>
    {/each}
    {#if planned.prop || propText(planned.sides[0]!.props)}
      <p class="text-quiet text-sm">{planned.prop ?? propText(planned.sides[0]!.props)}</p>
    {/if}
    {#if !more && (planned.cue || planned.note)}
      <p class="text-sm">{[planned.cue, planned.note].filter(Boolean).join(' · ')}</p>
    {/if}
    {#if more}
      <div class="grid gap-2 sm:grid-cols-3">
        {#each [{ kind: 'cue', label: 'Cue for this student', hint: drill.cues[0] ?? '', was: planned.cue }, { kind: 'note', label: 'Note', hint: '', was: planned.note }, { kind: 'prop', label: 'Prop', hint: propText(planned.sides[0]!.props), was: planned.prop }] as const as f (f.kind)}
          <label class="text-quiet text-xs">
            {f.label}<span class="sr-only">, {name}</span>
            <input
              class="input input-sm text-base-content block w-full"
              maxlength="200"
              placeholder={f.hint}
              value={f.was ?? ''}
              onchange={(e) => text(f.kind, e.currentTarget.value, f.was)}
            />
          </label>
        {/each}
      </div>
    {/if}
  </div>
</li>
