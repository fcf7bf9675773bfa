<script lang="ts">
  import OpeningRoom from '$lib/frame/OpeningRoom.svelte';
  import { api } from '$lib/api';
  import Tabs from '$lib/frame/Tabs.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import Amounts from '$lib/hearing/Amounts.svelte';
  import Curves from '$lib/hearing/Curves.svelte';
  import PlayBar from '$lib/hearing/PlayBar.svelte';
  import Recordings from '$lib/hearing/Recordings.svelte';
  import Rhythm from '$lib/hearing/Rhythm.svelte';
  import Seconds from '$lib/hearing/Seconds.svelte';
  import Tapping from '$lib/hearing/Tapping.svelte';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import ViewOptions from '$lib/music/ViewOptions.svelte';
  import Ribbon from '$lib/ribbon/Ribbon.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();
  const PANELS = {
    seconds: 'Why so long',
    amounts: 'How much',
    rhythm: 'Rhythm',
    tapping: 'Tap it',
    recordings: 'Recordings'
  } as const;
  let panel = $state<keyof typeof PANELS>('seconds');
  let curves = $state(true);
</script>

{#if holder.current}
  {@const workspace = holder.current}
  <div class="room room-beside" class:split={curves}>
    <Ribbon {workspace} />
    <Toolbar {workspace}>
      <Tick label="curves" bind:checked={curves} />
      <ViewOptions {workspace} />
      <a href={api.fileAddress('reading', data.workspace.readingId, 'mid')} download>MIDI of the reading</a>
      <a href={api.fileAddress('reading', data.workspace.readingId, 'literal.mid')} download>MIDI to the letter</a>
    </Toolbar>
    <div class="page"><MusicPage {workspace} markings={workspace.reading.markings} selectable ready /></div>
    {#if curves}<div class="below">
        {#if workspace.playing.performed}<Curves {workspace} />{:else}<p class="quiet">Working out the performance …</p>{/if}
      </div>{/if}
    <aside class="side-panel" aria-label="Measured">
      <Tabs tabs={PANELS} bind:tab={panel} label="What is measured">
        {#if !workspace.playing.performed || !workspace.score}
          <p class="quiet">Working out the performance …</p>
        {:else if panel === 'seconds'}<Seconds {workspace} />
        {:else if panel === 'amounts'}<Amounts {workspace} />
        {:else if panel === 'rhythm'}<Rhythm {workspace} />
        {:else if panel === 'tapping'}<Tapping {workspace} />
        {:else}<Recordings {workspace} />{/if}
      </Tabs>
    </aside>
    <PlayBar {workspace} />
  </div>
{:else}
  <OpeningRoom what="the piece" source={data.workspace.sourceHash} engine={data.workspace.engine} ribbon={156} />
{/if}

<style>
  .room {
    grid-template-rows: auto auto minmax(0, 1fr) auto;
  }

  .room.split {
    grid-template-rows: auto auto minmax(0, 1fr) minmax(0, 19rem) auto;
  }

  .page,
  .below {
    grid-column: 1;
    min-height: 0;
  }

  .below {
    border-top: 2px solid var(--line);
  }

  .side-panel {
    grid-column: 2;
    grid-row: 3 / -2;
  }
</style>
