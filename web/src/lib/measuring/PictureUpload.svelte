<script lang="ts">
  import { api, ask, fileBody, newId, Refusal, type Schemas } from '$lib/api/client';
  import { pageText, problemText } from '$lib/parts/problems';

  interface Props {
    studentId: string;
    view: string;
    onkept: (picture: Schemas['PictureItem']) => void;
  }

  let { studentId, view, onkept }: Props = $props();
  let problem = $state('');
  let busy = $state(false);
  let over = $state(false);

  async function send(file: File | undefined) {
    if (!file || busy) return;
    problem = '';
    busy = true;
    try {
      const kept = await ask(
        api.POST('/api/v1/students/{studentId}/pictures', {
          params: { path: { studentId }, query: { id: newId(), view } },
          ...fileBody(file),
        }),
      );
      onkept(kept as Schemas['PictureItem']);
    } catch (error) {
      const refusal = error as Refusal;
      problem = refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code);
    }
    busy = false;
  }
</script>

<label
  class={['block border border-dashed p-4 text-center', over ? 'border-base-content bg-base-200' : 'ruled']}
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(event) => {
    event.preventDefault();
    over = false;
    void send(event.dataTransfer?.files[0]);
  }}
>
  <span class="font-semibold">{busy ? 'Sending…' : 'Add a side picture'}</span>
  <span class="text-quiet block text-sm">Drop it here or choose it: PNG, JPEG or WebP, at most 10 MiB.</span>
  <input
    type="file"
    class="file-input file-input-sm mt-2 w-full max-w-64"
    accept="image/png,image/jpeg,image/webp"
    aria-label="Side picture"
    aria-invalid={problem !== ''}
    disabled={busy}
    onchange={(event) => send(event.currentTarget.files?.[0])}
  />
  {#if problem}<span class="text-error mt-1 block text-sm font-semibold" role="alert">{problem}</span>{/if}
</label>
