<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { minutes, shortDay } from '$lib/parts/format';
  import SideMark from '$lib/parts/SideMark.svelte';
  import { phaseBlocks, sameOnBoth, sideSeconds, skillNames } from '$lib/planning/phases';
  import { doseText, packingText, propText } from '$lib/planning/words';

  interface Props {
    session: Schemas['SessionSheet'];
    /** Drills that are ticked on this device; none on paper. */
    ticked?: Set<string>;
    ontick?: (drill: string) => void;
  }

  let { session, ticked, ontick }: Props = $props();

  const several = $derived(session.beside.length > 0);
  const sideText = (side: Schemas['PlannedSide'], drill: string): string =>
    [
      side.variant === 'standard' ? '' : catalogue.variant(drill, side.variant).toLowerCase(),
      doseText(side.dose),
      propText(side.props),
    ]
      .filter(Boolean)
      .join(', ');
  const cueOf = (planned: Schemas['PlannedDrill']): string | undefined =>
    planned.cue ?? catalogue.drill(planned.drill).cues[0];
  const lasts = (planned: Schemas['PlannedDrill']): string =>
    sideSeconds(session.parts, planned)
      .map((s) => minutes(s))
      .join(' + ');
  const nameOf = (planned: Schemas['PlannedDrill']): string =>
    `${catalogue.drill(planned.drill).name}${planned.reason.code === 'dayGate' ? ' (test)' : ''}`;
</script>

<article class="paper" aria-label="Sheet">
  <header class="mb-2 flex flex-wrap items-baseline justify-between gap-x-4">
    <h2 class="text-lg font-bold wrap-break-word">{session.studentName}</h2>
    <p>
      {skillNames(session.skill, session.beside)} · {shortDay(session.plan.date)} · {minutes(
        session.totalSeconds,
      )} min · ceiling {session.sensationCeiling} of 10
    </p>
  </header>
  {#if session.packing.length}<p class="mb-2">
      <strong>Lay out:</strong>
      {packingText(session.packing)}
    </p>{/if}
  {#if session.carryOver}<p class="mb-2"><strong>From last time:</strong> {session.carryOver.text}</p>{/if}
  <div class="columns">
    {#each phaseBlocks(session.plan.drills) as block, i (i)}
      <section aria-label={block.title}>
        <h3 class="phase">{block.title}</h3>
        <ul>
          {#each block.drills as planned (planned.id)}
            {@const means = catalogue.drill(planned.drill).sideMeans}
            <li class="item">
              {#if ontick}
                <input
                  class="checkbox checkbox-sm mt-0.5"
                  type="checkbox"
                  aria-label="{catalogue.drill(planned.drill).name} is done"
                  checked={ticked?.has(planned.id)}
                  onchange={() => ontick(planned.id)}
                />
              {:else}<span class="box" aria-hidden="true"></span>{/if}
              <div class={['min-w-0 grow', ticked?.has(planned.id) && 'text-quiet line-through']}>
                <p class="flex justify-between gap-2">
                  <span
                    ><strong>{nameOf(planned)}</strong>
                    {#if several && planned.skill && block.phase !== 'warm' && block.phase !== 'down'}
                      · {catalogue.ladder(planned.skill).name}{/if}</span
                  >
                  <span class="tabular-nums">{lasts(planned)}</span>
                </p>
                {#if sameOnBoth(planned.sides, (s) => sideText(s, planned.drill))}
                  <p>
                    <SideMark side={planned.sides[0]!.side} text={planned.sides[0]!.side!} {means} />, then
                    <SideMark side={planned.sides[1]!.side} text={planned.sides[1]!.side!} />: {sideText(
                      planned.sides[0]!,
                      planned.drill,
                    )}
                  </p>
                {:else}
                  {#each planned.sides as side, n (n)}
                    <p>
                      {#if side.side}<SideMark side={side.side} text={side.side} {means} />:{/if}
                      {sideText(side, planned.drill)}
                    </p>
                  {/each}
                {/if}
                {#if planned.prop}<p>{planned.prop}</p>{/if}
                {#if cueOf(planned)}<p class="italic">{cueOf(planned)}</p>{/if}
                {#if planned.note}<p><strong>Note:</strong> {planned.note}</p>{/if}
              </div>
            </li>
          {/each}
        </ul>
      </section>
    {/each}
  </div>
  <footer class="mt-2">
    <p class="line">Notes</p>
    <p class="line" aria-hidden="true"></p>
    <p class="line" aria-hidden="true"></p>
    <p class="mt-1">
      Stop at a pinch, sharp pain, numbness or dizziness; pain above 3 stops. A training plan, not medical
      advice: health questions go to a licensed clinician.
    </p>
  </footer>
</article>

<style>
  .phase {
    border-bottom: 1px solid currentColor;
    font-weight: 600;
    margin: 0.6em 0 0.2em;
    break-after: avoid;
  }

  .item {
    display: flex;
    gap: 0.6em;
    padding: 0.2em 0;
    break-inside: avoid;
  }

  .box {
    flex: none;
    width: 0.95em;
    height: 0.95em;
    margin-top: 0.2em;
    border: 1px solid currentColor;
  }

  .line {
    min-height: 1.7em;
    border-bottom: 1px solid currentColor;
  }

  @media (width >= 64rem) {
    .columns {
      columns: 2;
      column-gap: 2rem;
    }
  }

  @media print {
    .paper {
      font-size: 9.6pt;
      line-height: 1.25;
    }

    .columns {
      columns: 2;
      column-gap: 7mm;
    }
  }
</style>
