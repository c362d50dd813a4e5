<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { shortDay } from '$lib/parts/format';
  import NotLoaded from '$lib/parts/NotLoaded.svelte';
  import FactRow from './FactRow.svelte';

  interface Props {
    student: string;
    /** Counts what was saved about them: the list is read again with it. */
    heard: number;
  }

  let { student, heard }: Props = $props();
  let lines = $state<Schemas['FactLine'][]>([]);
  let before = $state<string | null>(null);
  let loaded = $state(false);
  let failed = $state<string>();

  async function read(from: string | null): Promise<Schemas['FactPage']> {
    return ask(
      api.GET('/api/v1/students/{studentId}/facts', {
        params: { path: { studentId: student }, query: from ? { before: from } : {} },
      }),
    );
  }

  /** As many pages as are shown, anew: a correction changes its line and what stands after it. */
  async function show(count = 1) {
    try {
      const all: Schemas['FactLine'][] = [];
      let from: string | null = null;
      for (let page = 0; page < count; page++) {
        const fresh = await read(from);
        all.push(...fresh.facts);
        from = fresh.before ?? null;
        if (!from) break;
      }
      [lines, before, loaded, failed] = [all, from, true, undefined];
    } catch (error) {
      failed = (error as { code?: string }).code ?? 'unexpected';
    }
  }

  let pages = 1;
  const more = () => void show(++pages);
  $effect(() => {
    void heard;
    void untrack(() => show(pages));
  });
</script>

<section aria-label="What was done, said and decided">
  <h2 class="mb-1">What was done, said and decided</h2>
  <p class="text-quiet mb-3 max-w-prose">
    Anything here can be corrected or struck out, with a reason. What was said first stays readable.
  </p>
  {#if failed}<NotLoaded code={failed} />
  {:else if !loaded}<p class="text-quiet" aria-live="polite">Loading…</p>
  {:else}
    <ul class="ruled border-t">
      {#each lines as line, i (line.id)}
        {#if i === 0 || shortDay(line.at) !== shortDay(lines[i - 1]!.at)}
          <li class="font-head ruled border-b pt-4 pb-1 text-lg font-semibold">{shortDay(line.at)}</li>
        {/if}
        <FactRow {student} {line} onchange={() => void show(pages)} />
      {:else}<li class="py-2">Nothing was done, said or decided yet.</li>{/each}
    </ul>
    {#if before}<button class="btn btn-sm btn-outline mt-3" onclick={more}>Earlier</button>{/if}
  {/if}
</section>
