<script lang="ts">
  import { account } from '$lib/accounts/account.svelte';
  import type { Action } from './nextStep';

  interface Props {
    action: Action | undefined;
    /** Whose step it is, where more than one student is on the screen. */
    of?: string;
    primary?: boolean;
  }

  let { action, of, primary = false }: Props = $props();
</script>

{#if action && account.mayWrite}
  <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the path itself is resolved -->
  <a class={['btn btn-sm', primary ? 'btn-accent' : 'btn-outline']} href={action.href}
    >{action.text}{#if of}<span class="sr-only">, {of}</span>{/if}</a
  >
{/if}
