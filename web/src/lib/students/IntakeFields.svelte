<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import YesNo from '$lib/parts/YesNo.svelte';
  import JointSigns from './JointSigns.svelte';
  import { tagName } from './tags';

  interface Props {
    /** The answers so far, by question. */
    answers: Record<string, boolean>;
    /** What was told of a question that is counted. */
    signs: Record<string, string[]>;
    /** Whose answers these are; nothing while nobody has said. */
    name: string;
    /** The answers that are kept already: what clearing a choice leads back to. */
    stands?: Record<string, boolean>;
    onchange: () => void;
  }

  let { answers = $bindable(), signs = $bindable(), name, stands = {}, onchange }: Props = $props();
  const questions = $derived(catalogue.content!.questions);
  const rest = $derived(questions.filter((q) => answers[q.key] === undefined));
  const left = $derived(rest.length);
  /** "No to the rest" shows what it answers, and asks once more. */
  let asking = $state(false);

  function effects(question: Schemas['IntakeQuestion']): string {
    return question.effects
      .map((e) => {
        const tags =
          e.scope === 'all'
            ? 'everything'
            : e.scope === 'regions'
              ? 'every region'
              : e.tags.map(tagName).join(', ');
        const level =
          e.level === 'offLimits' ? 'Off limits' : e.manner === 'notHeavy' ? 'Nothing heavy' : 'Light only';
        return `${level}${e.anyClearance ? ' until a clearance' : ''}: ${tags}${e.on ? `, ${tagName(e.on)}` : ''}`;
      })
      .join('. ');
  }

  function answer(key: string, yes: boolean) {
    answers[key] = yes;
    onchange();
  }

  /** A choice that was a slip: as it was before. */
  function clear(key: string) {
    const before = stands[key];
    delete signs[key];
    if (before === undefined) delete answers[key];
    else answers[key] = before;
    onchange();
  }
</script>

<fieldset class="ruled border-t pt-4">
  <legend class="font-head pe-3 text-xl font-semibold">Intake screen{name ? ` of ${name}` : ''}</legend>
  <p class="mb-3 max-w-prose text-sm">
    Tensarch plans training; it diagnoses nothing. Ask each question aloud. Send a health question to a
    licensed clinician.
  </p>
  <ul>
    {#each questions as question (question.key)}
      <li class="ruled grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 border-b py-2">
        <span id="q-{question.key}" class="pt-1">{question.text}</span>
        <div class="flex flex-wrap items-center justify-end gap-1">
          {#if answers[question.key] !== stands[question.key]}
            <button
              type="button"
              class="btn btn-ghost btn-sm px-2"
              aria-label="{stands[question.key] === undefined
                ? 'Clear the answer'
                : 'As it was before'}: {question.text}"
              onclick={() => clear(question.key)}
              >{stands[question.key] === undefined ? 'Clear' : 'As it was'}</button
            >
          {/if}
          {#if !question.signs}
            <YesNo
              name={question.key}
              labelledby="q-{question.key}"
              value={answers[question.key]}
              onchange={(yes) => answer(question.key, yes)}
            />
          {/if}
        </div>
        {#if question.signs}
          <JointSigns
            signs={question.signs}
            told={signs[question.key]}
            whole={stands[question.key]}
            onchange={(told) => {
              signs[question.key] = told;
              // How many are a yes is counted where the rules are.
              answer(question.key, answers[question.key] ?? false);
            }}
          />
        {/if}
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
        ? `Every question is answered${name ? ` for ${name}` : ''}.`
        : `${left} of ${questions.length} questions are open.${rest.some((q) => !q.addedLater) ? ' Nothing is planned until all are answered.' : ''}`}
    </p>
    {#if left > 0 && !asking}
      <button type="button" class="btn btn-outline btn-sm" onclick={() => (asking = true)}
        >No to the rest…</button
      >
    {/if}
  </div>
  {#if asking && left > 0}
    <div class="mt-3 border-s-4 ps-3" role="group" aria-labelledby="rest-asked">
      <p id="rest-asked" class="font-semibold">
        No to {left === 1 ? 'this one' : `all of these ${left}`}? Read {left === 1 ? 'it' : 'them'} out once more.
      </p>
      <ul class="my-2 list-disc ps-5">
        {#each rest as question (question.key)}
          {#each question.signs?.items ?? [question] as asked (asked.key)}<li>{asked.text}</li>{/each}
        {/each}
      </ul>
      <div class="flex flex-wrap gap-2">
        <button
          type="button"
          class="btn btn-outline btn-sm"
          onclick={() => {
            for (const q of rest) {
              answers[q.key] = false;
              if (q.signs) signs[q.key] = [];
            }
            asking = false;
            onchange();
          }}>No to {left === 1 ? 'it' : `all ${left}`}</button
        >
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => (asking = false)}
          >Ask one by one</button
        >
      </div>
    </div>
  {/if}
</fieldset>
