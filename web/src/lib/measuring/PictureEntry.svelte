<script lang="ts">
  import { api, ask } from '$lib/api/client';
  import Notice from '$lib/parts/Notice.svelte';
  import { shortDay } from '$lib/parts/format';
  import type { Bench } from './bench.svelte';
  import { mostTrials, type Place } from './entry';
  import LandmarkPlacer from './LandmarkPlacer.svelte';
  import PictureUpload from './PictureUpload.svelte';

  interface Props {
    bench: Bench;
    place: Place;
    error?: string;
  }

  let { bench, place, error }: Props = $props();
  const path = $derived({ studentId: bench.studentId });
  const load = () =>
    ask(
      api.GET('/api/v1/students/{studentId}/pictures', {
        params: { path, query: { view: bench.measure.key } },
      }),
    );
  let pictures = $derived(load());
  let open = $state<string>();
</script>

{#await pictures then { pictures: list }}
  {@const shown = list.find((p) => p.id === open)}
  {#if shown}
    <LandmarkPlacer
      studentId={bench.studentId}
      picture={shown}
      fresh
      keepLabel="Take as trial {Math.min(bench.entry(place).marks.length + 1, mostTrials)}"
      onkept={(mark) => bench.addMark(place, mark.id)}
    />
    <button class="btn btn-ghost btn-sm mt-2" onclick={() => (open = undefined)}>Another picture</button>
  {:else}
    <PictureUpload
      studentId={bench.studentId}
      view={bench.measure.key}
      onkept={(picture) => {
        pictures = load();
        open = picture.id;
      }}
    />
    {#if list.length}
      <p class="mt-3 mb-1 text-sm font-semibold">Or one that is here</p>
      <ul class="flex flex-wrap gap-2">
        {#each list.slice(0, 6) as picture (picture.id)}
          <li>
            <button class="ruled border p-1 text-sm" onclick={() => (open = picture.id)}>
              <img
                class="h-24"
                alt=""
                src="/api/v1/students/{bench.studentId}/pictures/{picture.id}/image"
              />{shortDay(picture.takenAt)}
            </button>
          </li>
        {/each}
      </ul>
    {/if}
  {/if}
{:catch}
  <Notice tone="error">The pictures cannot be loaded.</Notice>
{/await}
{#if error}<p class="text-error mt-1 text-sm font-semibold">{error}</p>{/if}
