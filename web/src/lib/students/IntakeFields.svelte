<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { tagName } from './tags';

  interface Props {
    /** The answers so far, by question. */
    answers: Record<string, boolean>;
    onchange: () => void;
  }

  let { answers = $bindable(), onchange }: Props = $props();
  const questions = $derived(catalogue.content!.questions);
  const left = $derived(questions.filter((q) => answers[q.key] === undefined).length);

  function effects(question: Schemas['IntakeQuestion']): string {
    return question.effects
      .map((e) => {
        const tags =
          e.scope === 'all'
            ? 'everything'
            : e.scope === 'regions'
              ? 'every region'
              : e.tags.map(tagName).join(', ');
        return `${e.level === 'offLimits' ? 'Off limits:' : 'Light only:'} ${tags}`;
      })
      .join('. ');
  }

  function answer(key: string, yes: boolean) {
    answers[key] = yes;
    onchange();
  }
</script>

<fieldset class="ruled border-t pt-4">
  <legend class="font-head pe-3 text-xl font-semibold">Intake screen</legend>
  <p class="mb-3 max-w-prose text-sm">
    Tensarch plans training; it diagnoses nothing. Ask each question aloud. Send a health question to a
    licensed clinician.
  </p>
  <ul>
    {#each questions as question (question.key)}
      <li class="ruled grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 border-b py-2">
        <span id="q-{question.key}" class="pt-1">{question.text}</span>
        <div class="join" role="radiogroup" aria-labelledby="q-{question.key}">
          {#each [{ yes: true, text: 'Yes' }, { yes: false, text: 'No' }] as option (option.text)}
            <label
              class="join-item btn btn-sm btn-outline has-checked:bg-base-content has-checked:text-base-100"
            >
              <input
                type="radio"
                class="sr-only"
                name={question.key}
                checked={answers[question.key] === option.yes}
                onchange={() => answer(question.key, option.yes)}
              />
              {option.text}
            </label>
          {/each}
        </div>
        {#if answers[question.key]}
          <p class="col-span-2 mt-1 border-s-4 ps-3 text-sm" role="status">
            {#if question.effects.length}<strong>{effects(question)}.</strong>{/if}
            {question.advice}
          </p>
        {/if}
      </li>
    {/each}
  </ul>
  <div class="mt-3 flex flex-wrap items-center gap-3">
    <p class="text-quiet text-sm">
      {left === 0
        ? 'Every question is answered.'
        : `${left} of ${questions.length} questions are open. Nothing is planned until all are answered.`}
    </p>
    {#if left > 0}
      <button
        type="button"
        class="btn btn-outline btn-sm"
        onclick={() => {
          for (const q of questions) answers[q.key] ??= false;
          onchange();
        }}>No to the rest</button
      >
    {/if}
  </div>
</fieldset>
