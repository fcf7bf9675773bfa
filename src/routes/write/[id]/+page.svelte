<script lang="ts">
  import { onMount } from 'svelte';
  import { Writing } from '$lib/writing/writing.svelte';
  import WritingRoom from '$lib/writing/WritingRoom.svelte';

  const { data } = $props();

  let writing = $state.raw<Writing | null>(null);
  // Only a browser writes; the server has no page to write on.
  onMount(() => {
    writing = new Writing(data.id, data);
    return () => writing?.saving.close();
  });
</script>

<svelte:head><title>{data.content.head.title} · Write · Nuvelo</title></svelte:head>

{#if writing}<WritingRoom {writing} id={data.id} piece={data.pieceId} />{:else}<p class="quiet">The page is being laid out …</p>{/if}
