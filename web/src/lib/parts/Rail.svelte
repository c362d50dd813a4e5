<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import SignOut from '$lib/accounts/SignOut.svelte';
  import { outbox } from '$lib/sessions/outbox.svelte';
  import { theme } from './theme.svelte';

  const rooms = [
    { path: '/today', name: 'Today' },
    { path: '/students', name: 'Students' },
    { path: '/readings', name: 'Readings' },
    { path: '/readiness', name: 'Readiness' },
    { path: '/timer', name: 'Timer' },
    { path: '/ladders', name: 'Ladders' },
    { path: '/library', name: 'Library' },
    { path: '/exchange', name: 'Exchange' },
    { path: '/settings', name: 'Settings' },
  ] as const;

  /** A session is one of a student's pages. */
  const at = $derived(page.url.pathname.replace(/^\/sessions\//, '/students/'));
  const here = (path: string) => at.startsWith(path);

  /** On a phone the row is longer than the screen: the room one is in is never out of sight. */
  const inSight = (link: HTMLElement) => {
    if (link.ariaCurrent) link.parentElement!.scrollLeft = link.offsetLeft - link.offsetWidth;
  };
</script>

<nav
  aria-label="Rooms"
  class="ruled no-print bg-base-100 flex flex-wrap items-center gap-x-1 border-b px-2 lg:fixed lg:inset-y-0 lg:left-0 lg:w-30 lg:flex-col lg:flex-nowrap lg:items-stretch lg:border-e lg:border-b-0 lg:px-0 lg:py-5"
>
  <a href={resolve('/today')} class="font-head px-3 py-3 text-xl font-semibold lg:mb-3 lg:px-5">Tensarch</a>
  <div
    class="order-last flex basis-full overflow-x-auto lg:order-none lg:basis-auto lg:flex-col lg:overflow-visible"
  >
    {#each rooms as room (room.path)}
      <a
        href={resolve(room.path)}
        aria-current={here(room.path) ? 'page' : undefined}
        {@attach inSight}
        class={[
          'border-base-100 border-b-4 px-3 py-3 lg:border-s-4 lg:border-b-0 lg:px-4',
          here(room.path) ? 'border-base-content! bg-base-200 font-semibold' : 'text-quiet',
        ]}>{room.name}</a
      >
    {/each}
  </div>
  <div class="ms-auto flex gap-1 lg:ms-0 lg:mt-auto lg:flex-col lg:items-stretch lg:px-3">
    {#if outbox.waiting || outbox.refused.length}
      <a class="btn btn-sm btn-outline px-2" href={resolve('/waiting')}
        >{outbox.waiting + outbox.refused.length} not logged</a
      >
    {/if}
    <p class="text-quiet hidden px-2 text-sm leading-tight lg:block">{account.me?.user?.name}</p>
    <button class="btn btn-ghost btn-sm px-2 lg:justify-start" onclick={() => theme.toggle()}>
      {theme.dark ? 'Light' : 'Dark'}
    </button>
    <SignOut />
  </div>
</nav>
