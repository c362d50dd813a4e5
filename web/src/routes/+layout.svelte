<script lang="ts">
  import '../app.css';
  import { goto } from '$app/navigation';
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import Keys from '$lib/parts/Keys.svelte';
  import Notice from '$lib/parts/Notice.svelte';
  import Rail from '$lib/parts/Rail.svelte';
  import UndoStrip from '$lib/parts/UndoStrip.svelte';
  import { pageText } from '$lib/parts/problems';
  import { theme } from '$lib/parts/theme.svelte';
  import { sweepDrafts, takeOverDrafts } from '$lib/parts/draft.svelte';
  import { keepPacks } from '$lib/sessions/packs';
  import { outbox } from '$lib/sessions/outbox.svelte';

  let { children } = $props();
  const open = $derived(['/sign-in', '/welcome'].includes(page.url.pathname));
  const bare = $derived(page.url.pathname.endsWith('/run'));
  let failed = $state(false);

  theme.start();

  async function start() {
    try {
      const me = account.me ?? (await account.load());
      if (me.needsOwner) return void goto(resolve('/welcome'));
      // Back to the form of the first owner leads nowhere once there is one.
      if (page.url.pathname === '/welcome') return void goto(resolve(me.user ? '/students' : '/sign-in'));
      if (!me.user) return void (open || goto(resolve('/sign-in')));
      await catalogue.load();
      takeOverDrafts(me.user.id);
      sweepDrafts(me.user.id, Date.now());
      void keepPacks(me.user.id);
    } catch {
      failed = true;
    }
  }

  $effect(() => {
    void start();
  });

  // What waits on this device goes out at start, after a sign-in and when the network is back.
  // Until it is known who that is, nothing of anybody is cleared away.
  $effect(() => {
    if (account.me) outbox.open(account.me.user?.id);
  });
  $effect(() => {
    if (account.ended) outbox.hold(false);
    else if (account.me?.user) outbox.hold(true);
  });
  outbox.onLeft = () => (account.ended = true);
</script>

<svelte:window ononline={() => void outbox.send()} />
<svelte:document
  onvisibilitychange={() => {
    if (!document.hidden && account.me?.user && !account.ended) void keepPacks(account.me.user.id);
  }}
/>

{#if failed}
  <main class="mx-auto max-w-lg p-8"><Notice tone="error">{pageText('unreachable')}</Notice></main>
{:else if open}
  {@render children()}
{:else if account.me?.user && catalogue.content}
  {#if bare}
    {@render children()}
  {:else}
    <Rail />
    <Keys />
    <div class="lg:ps-30 print:ps-0">
      {#if account.ended}
        <div class="bg-base-100 sticky top-0 z-20 px-5 py-3 lg:px-7">
          <Notice tone="error">
            You are signed out. <a class="link-line" href={resolve('/sign-in')} target="_blank"
              >Sign in in another tab</a
            > and come back: what you typed stays here.
          </Notice>
        </div>
      {/if}
      {@render children()}
    </div>
    <UndoStrip />
  {/if}
{:else}
  <p class="text-quiet p-8" aria-live="polite">Loading…</p>
{/if}
