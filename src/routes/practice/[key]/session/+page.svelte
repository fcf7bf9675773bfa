<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { Outbox } from '$lib/practice/outbox.svelte';
  import { Practice } from '$lib/practice/practice.svelte';
  import SessionView from '$lib/practice/SessionView.svelte';

  const { data } = $props();

  let open = $state.raw<{ practice: Practice; outbox: Outbox } | null>(null);

  onMount(() => {
    const outbox = new Outbox();
    const practice = new Practice(
      untrack(() => data.state),
      outbox
    );
    open = { practice, outbox };
    // Only what belongs to practice is kept for being without a connection; everything else always comes from the server.
    navigator.serviceWorker?.register('/service-worker.js', { scope: '/practice/' }).catch(() => {});
    return () => outbox.close();
  });
</script>

<svelte:head><title>{data.state.plan.title}: session · Nuvelo</title></svelte:head>

{#if open}<SessionView {...open} />{:else}<p class="quiet">Opening the session …</p>{/if}
