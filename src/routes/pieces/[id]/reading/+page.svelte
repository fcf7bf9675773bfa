<script lang="ts">
  import Brief from '$lib/brief/Brief.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import ViewOptions from '$lib/music/ViewOptions.svelte';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import { analysisRows } from '$lib/music/rows';
  import Ribbon from '$lib/ribbon/Ribbon.svelte';
  import { PERIODS, PROFILES, type Period } from '$core/style/profiles';
  import { useWorkspace } from '$lib/workspace/context';

  const holder = useWorkspace();
  let chords = $state(false);
  let keys = $state(false);
  const rows = $derived(
    holder.current?.score
      ? analysisRows(holder.current.score, holder.current.facts, { chords, keys }, (k) => holder.current!.keyName(k))
      : []
  );
  const open = $derived(holder.current ? holder.current.proposals.filter((p) => !holder.current!.decisionOf(p.key)).length : 0);
</script>

{#if holder.current}
  {@const workspace = holder.current}
  <div class="room">
    <Ribbon {workspace} />
    <Toolbar {workspace}>
      <label
        >Period <select
          value={workspace.reading.period}
          onchange={(e) => workspace.act({ type: 'set-period', period: e.currentTarget.value as Period })}
          data-testid="period"
          >{#each PERIODS as period (period)}<option value={period}>{PROFILES[period].name}</option>{/each}</select
        ></label
      >
      <label><input type="checkbox" bind:checked={chords} /> chords</label>
      <label><input type="checkbox" bind:checked={keys} /> keys</label>
      <ViewOptions {workspace} />
      <span class="quiet" data-testid="open-count">{open} open · {workspace.reading.markings.length} marked</span>
    </Toolbar>
    <div class="page"><MusicPage {workspace} markings={workspace.reading.markings} {rows} selectable /></div>
    <Brief {workspace} />
  </div>
{:else}
  <p class="opening quiet">Opening the reading …</p>
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
    background: var(--paper);
  }

  .opening {
    padding: 2rem;
  }

  @media (min-width: 1700px) {
    .room {
      grid-template-columns: minmax(0, 1fr) 30rem;
    }
  }
</style>
