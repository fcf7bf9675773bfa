<script lang="ts">
  import { onMount } from 'svelte';
  import { usePractice } from '$lib/practice/context';
  import SessionView from '$lib/practice/SessionView.svelte';

  const { data } = $props();
  const held = usePractice();

  onMount(() => {
    // Only what belongs to practice is kept for being without a connection; everything else always comes from the server.
    navigator.serviceWorker?.register('/service-worker.js', { scope: '/practice/' }).catch(() => {});
  });
</script>

<svelte:head><title>{data.state.plan.title}: session · Nuvelo</title></svelte:head>

{#if held.current}<SessionView {...held.current} />{:else}<p class="quiet">Opening the session …</p>{/if}
