<script lang="ts">
  import Exchange from '$lib/exchange/Exchange.svelte';
</script>

<svelte:head><title>Exchange · Tensarch</title></svelte:head>

<main class="max-w-5xl px-5 py-7 lg:px-7">
  <h1 class="mb-5">Exchange</h1>
  <Exchange />
</main>
