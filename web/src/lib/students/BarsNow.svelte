<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api/client';
  import { reasonText, tagName } from './tags';

  interface Props {
    answers: Record<string, boolean>;
    /** What was told of the question that is counted. */
    signs?: string[];
    birthDate?: string;
    guardianConsent: boolean;
    sensationCeiling?: number | null;
  }

  let { answers, signs, birthDate, guardianConsent, sensationCeiling }: Props = $props();
  let cautions = $state<Schemas['BarsView']>();
  const yes = $derived(Object.keys(answers).filter((k) => answers[k]));

  // The core says what the answers bar; an answer that comes late is thrown away.
  $effect(() => {
    const body = {
      yes,
      birthDate: birthDate || null,
      guardianConsent,
      sensationCeiling: sensationCeiling || null,
      signs: signs ? [...signs] : null,
    };
    let stale = false;
    ask(api.POST('/api/v1/compute/bars', { body })).then(
      (said) => {
        if (!stale) cautions = said;
      },
      () => {},
    );
    return () => (stale = true);
  });

  const levels = [
    { key: 'offLimits', text: 'Off limits: nothing with it is planned' },
    { key: 'lightOnly', text: 'Light only' },
  ] as const;
</script>

<aside
  class="ruled bg-base-200 border-y p-4 lg:sticky lg:top-4 lg:border"
  aria-label="What the answers bar"
  aria-live="polite"
>
  <h2 class="mb-2">What this bars</h2>
  {#if !cautions || cautions.tags.length === 0}
    <p class="text-sm">Nothing so far.</p>
  {:else}
    {#each levels as level (level.key)}
      {@const tags = cautions.tags.filter((t) => t.level === level.key)}
      {#if tags.length}
        <h3 class="mt-3 mb-1 text-base">{level.text}</h3>
        <ul class="text-sm">
          {#each tags as tag (tag.tag)}
            <li class="ruled border-t py-1">
              <strong>{tagName(tag.tag)}</strong>
              <span class="text-quiet"
                >{[...new Set(tag.reasons.filter((r) => r.level === tag.level).map(reasonText))].join(
                  '; ',
                )}</span
              >
            </li>
          {/each}
        </ul>
      {/if}
    {/each}
  {/if}
  {#if cautions}
    <p class="text-quiet mt-3 text-sm">
      Sensation ceiling {cautions.sensationCeiling} of 10{cautions.rampTopPercent < 100
        ? `; ramps top out at ${cautions.rampTopPercent} %`
        : ''}.
    </p>
  {/if}
</aside>
