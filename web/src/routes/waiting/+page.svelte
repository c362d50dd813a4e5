<script lang="ts">
  import { resolve } from '$app/paths';
  import { account } from '$lib/accounts/account.svelte';
  import { dayAndTime, minutes } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';
  import { log, type Kept } from '$lib/sessions/log';
  import { outbox } from '$lib/sessions/outbox.svelte';
  import { saveFile } from '$lib/sessions/saveFile';

  const packs = log.packs(account.me!.user!.id, Date.now()).catch(() => []);
  let asking = $state<Kept>();
  const said = (kept: Kept) => kept.entry.facts.map((f) => f.kind).join(', ') || kept.entry.event.is;

  async function again(kept: Kept) {
    await log.mark(kept, 'waiting');
    await outbox.send();
  }

  async function discard(kept: Kept) {
    asking = undefined;
    await log.mark(kept, 'sent');
    await outbox.send();
  }
</script>

<svelte:head><title>Not logged yet · Tensarch</title></svelte:head>

<main class="px-5 py-5 lg:px-7">
  <h1>Not logged yet</h1>
  <p class="text-quiet mt-1 max-w-prose">
    What was said on this device by {account.me?.user?.name} and is not in the studio’s books.
  </p>
  <p class="mt-4">
    {outbox.waiting === 0 ? 'Nothing waits to be sent.' : `${outbox.waiting} wait to be sent.`}
    {#if outbox.lost}{pageText(outbox.lost)}{/if}
    {#if outbox.waiting > 0}
      <button class="btn btn-sm btn-outline ms-2" onclick={() => void outbox.send()}>Send now</button>
    {/if}
  </p>
  {#if outbox.refused.length}
    <section class="mt-5" aria-label="Refused">
      <h2 class="mb-1">Refused</h2>
      <p class="mb-2">
        <button class="btn btn-sm btn-outline" onclick={async () => saveFile(await outbox.left())}
          >Save as a file</button
        >
      </p>
      <ul class="ruled border-t">
        {#each outbox.refused as kept (kept.entry.event.id)}
          <li class="ruled flex flex-wrap items-center gap-x-4 gap-y-1 border-b py-2">
            <span>{dayAndTime(new Date(kept.entry.event.at).toISOString())}</span>
            <strong>{said(kept)}</strong>
            <span>{pageText(kept.code ?? 'unexpected')}</span>
            <span class="ms-auto flex gap-2">
              <button class="btn btn-sm btn-outline" onclick={() => void again(kept)}>Send again</button>
              {#if asking === kept}
                <button class="btn btn-sm btn-error" onclick={() => void discard(kept)}
                  >Discard it for good</button
                >
                <button class="btn btn-sm btn-ghost" onclick={() => (asking = undefined)}>Keep it</button>
              {:else}
                <button class="btn btn-sm btn-ghost" onclick={() => (asking = kept)}>Discard…</button>
              {/if}
            </span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#await packs then list}
    {@const ahead = list.filter((pack) => Date.parse(pack.goodFrom) > Date.now())}
    {#each [{ day: 'today', of: list.filter((pack) => !ahead.includes(pack)) }, { day: 'tomorrow', of: ahead }] as { day, of } (day)}
      {#if of.length}
        <section class="mt-5 max-w-2xl" aria-label="Kept here for {day}">
          <h2 class="mb-1">Kept here for {day}</h2>
          <p class="text-quiet mb-2">These run on this device without the server.</p>
          <ul class="ruled border-t">
            {#each of as pack (pack.sessionId)}
              <li class="ruled flex flex-wrap items-center gap-x-4 border-b py-2">
                <strong class="wrap-anywhere">{pack.studentName}</strong>
                <span class="text-quiet">{minutes(pack.pack.totalSeconds)} min</span>
                {#if day === 'today'}
                  <a
                    class="btn btn-sm btn-outline ms-auto"
                    href={resolve('/sessions/[id]/run', { id: pack.sessionId })}>Run it</a
                  >
                {/if}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
    {/each}
  {:catch}<!-- Said above, or of no matter. -->{/await}
</main>
