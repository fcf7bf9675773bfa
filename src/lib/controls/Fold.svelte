<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Disclosure } from 'carbon-components-svelte';

  /** What is under its word until it is asked for. */
  const { label, children }: { label: string; children: Snippet } = $props();

  let open = $state(false);
</script>

<div class="fold">
  <Disclosure summary={label} align="start" bind:open
    >{#if open}{@render children()}{/if}</Disclosure
  >
</div>
