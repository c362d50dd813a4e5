<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
</script>

<svelte:head><title>Not here · Tensarch</title></svelte:head>

<main class="p-8">
  <h1>{page.status === 404 ? 'There is nothing here' : 'Something went wrong'}</h1>
  <p class="mt-3"><a class="link-line" href={resolve('/students')}>Back to the students</a></p>
</main>
