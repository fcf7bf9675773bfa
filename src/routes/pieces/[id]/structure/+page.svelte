<script lang="ts">
  import Corrections from '$lib/structure/Corrections.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import ViewOptions from '$lib/music/ViewOptions.svelte';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import { analysisRows } from '$lib/music/rows';
  import Ribbon from '$lib/ribbon/Ribbon.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const holder = useWorkspace();
  let chords = $state(true);
  let keys = $state(true);
  const rows = $derived(holder.current ? analysisRows(holder.current.facts, { chords, keys }, (k) => holder.current!.keyName(k)) : []);
</script>

{#if holder.current}
  {@const workspace = holder.current}
  <div class="room">
    <Ribbon {workspace} />
    <Toolbar {workspace}>
      <label><input type="checkbox" bind:checked={chords} /> chords</label>
      <label><input type="checkbox" bind:checked={keys} /> keys</label>
      <ViewOptions {workspace} />
    </Toolbar>
    <div class="page"><MusicPage {workspace} markings={[]} {rows} selectable /></div>
    <Corrections {workspace} />
  </div>
{:else}
  <p class="opening quiet">Opening the structure …</p>
{/if}

<style>
  .room {
    height: 100%;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 24rem;
    grid-template-rows: auto auto minmax(0, 1fr);
  }

  .room > :global(.ribbon),
  .room > :global(.tools) {
    grid-column: 1 / -1;
  }

  .page {
    overflow-y: auto;
    padding: 0.5rem 1.25rem 2rem;
  }

  .opening {
    padding: 2rem;
  }
</style>
