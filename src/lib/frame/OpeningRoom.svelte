<script lang="ts">
  import FirstPicture from '../music/FirstPicture.svelte';

  /** A room with music before its work has begun: the first systems where they will stand, and what is being opened. */
  const { what, source, engine, ribbon }: { what: string; source: string; engine: string; ribbon: number } = $props();
</script>

<div class="room-beside opening-room">
  <div class="ribbon" style:height="{ribbon}px"></div>
  <div class="tools"><span class="quiet" role="status">Opening {what} …</span></div>
  <div class="page"><div class="music"><FirstPicture {source} {engine} /></div></div>
  <aside class="side-panel"></aside>
</div>

<style>
  .opening-room {
    grid-template-rows: auto auto minmax(0, 1fr);
  }

  .ribbon {
    background: var(--raised);
    border-bottom: 1px solid var(--line);
  }

  .tools {
    min-height: 2.2rem;
    padding: 0.5rem 1rem;
    border-bottom: 1px solid var(--line);
  }

  .music {
    position: relative;
    min-height: 100%;
  }
</style>
