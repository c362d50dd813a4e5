<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';

  let { children } = $props();
  const tabs = [
    { route: '/settings', name: 'You' },
    { route: '/settings/studio', name: 'Studio' },
    { route: '/settings/team', name: 'Team' },
  ] as const;
</script>

<svelte:head><title>Settings · Tensarch</title></svelte:head>

<main class="min-w-0">
  <header class="px-5 pt-5 lg:px-7">
    <h1>Settings</h1>
    <nav aria-label="Settings" class="ruled mt-3 flex flex-wrap gap-x-5 border-b">
      {#each tabs as tab (tab.route)}
        {@const here = page.route.id === tab.route}
        <a
          href={resolve(tab.route)}
          aria-current={here ? 'page' : undefined}
          class={[
            '-mb-px border-b-2 py-2',
            here ? 'border-base-content font-semibold' : 'text-quiet border-transparent',
          ]}>{tab.name}</a
        >
      {/each}
    </nav>
  </header>
  <div class="max-w-3xl px-5 py-5 lg:px-7">{@render children()}</div>
</main>
