<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, fileBody, newId, Refusal, type Schemas } from '$lib/api/client';
  import { pageText, problemText } from '$lib/parts/problems';
  import { undo } from '$lib/parts/undo.svelte';
  import type { DrillPage } from './drills';

  interface Props {
    drill: DrillPage;
    variant: Schemas['VariantPage'];
    onchange: () => Promise<void> | void;
  }

  let { drill, variant, onchange }: Props = $props();
  let problem = $state('');
  let busy = $state(false);

  const clips = $derived(drill.clips.filter((c) => c.variant === variant.key));
  const source = (clip: Schemas['ClipView']) => `/api/v1/drills/${drill.key}/clips/${clip.id}`;

  async function send(file: File | undefined) {
    if (!file || busy) return;
    problem = '';
    busy = true;
    try {
      await ask(
        api.POST('/api/v1/drills/{drill}/clips', {
          params: { path: { drill: drill.key }, query: { id: newId(), variant: variant.key } },
          ...fileBody(file),
        }),
      );
      await onchange();
    } catch (error) {
      const refusal = error as Refusal;
      problem = refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code);
    }
    busy = false;
  }

  const change = (clip: Schemas['ClipView'], gone: boolean) =>
    ask(
      api.POST('/api/v1/drills/{drill}/clips/{clipId}/changes', {
        params: { path: { drill: drill.key, clipId: clip.id } },
        body: { gone },
      }),
    );

  async function remove(clip: Schemas['ClipView']) {
    await change(clip, true);
    await onchange();
    undo.offer('It is taken away.', async () => {
      await change(clip, false);
      await onchange();
    });
  }
</script>

<div class="mt-2 grid gap-2">
  {#each clips as clip (clip.id)}
    <div class="max-w-md">
      {#if clip.kind === 'webp'}
        <img class="w-full" src={source(clip)} alt="{drill.name}, {variant.name.toLowerCase()}" />
      {:else}
        <video
          class="w-full"
          src={source(clip)}
          controls
          playsinline
          muted
          preload="metadata"
          aria-label="Clip of {drill.name}, {variant.name.toLowerCase()}"
        ></video>
      {/if}
      {#if account.mayWrite}
        <button class="btn btn-sm btn-ghost" onclick={() => remove(clip)}
          >Take it away<span class="sr-only">: {variant.name}</span></button
        >
      {/if}
    </div>
  {/each}
  {#if account.mayWrite && !drill.gone}
    <label class="grid gap-1 text-sm">
      <span class="text-quiet">{busy ? 'Sending…' : 'A clip (mp4, webm, up to 50 MiB) or a picture'}</span>
      <input
        type="file"
        class="file-input file-input-sm w-full max-w-72"
        accept="video/mp4,video/webm,image/png,image/jpeg,image/webp"
        aria-label="Clip or picture of {variant.name.toLowerCase()}"
        aria-invalid={problem !== ''}
        disabled={busy}
        onchange={(event) => send(event.currentTarget.files?.[0])}
      />
      {#if problem}<span class="text-error font-semibold" role="alert">{problem}</span>{/if}
    </label>
  {/if}
</div>
