<script lang="ts">
  import OpeningRoom from '$lib/frame/OpeningRoom.svelte';
  import Tabs from '$lib/frame/Tabs.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import Drills from '$lib/brief/Drills.svelte';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import ViewOptions from '$lib/music/ViewOptions.svelte';
  import CheckSections from '$lib/practice/CheckSections.svelte';
  import DifficultyChart from '$lib/rehearse/DifficultyChart.svelte';
  import HardPlaces from '$lib/rehearse/HardPlaces.svelte';
  import PlanPanel from '$lib/rehearse/PlanPanel.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();
  const PANELS = { hard: 'Hard places', drills: 'Drills', plan: 'Plan', checks: 'Checklist' } as const;
  let panel = $state<keyof typeof PANELS>('hard');
  const rehearsal = $derived(holder.current?.study.rehearsal ?? null);

  $effect(() => {
    holder.current?.study.needRehearsal();
    void holder.current?.practice.need();
  });
</script>

{#if holder.current}
  {@const workspace = holder.current}
  <div class="room room-beside">
    <Toolbar {workspace}>
      <ViewOptions {workspace} />
      {#if workspace.practice.open}<a href="/practice/{workspace.practice.open.plan.key}">{workspace.practice.open.plan.title}</a>{/if}
      {#if workspace.practice.outbox.fault}<span role="alert">{workspace.practice.outbox.fault}</span>{/if}
    </Toolbar>
    <div class="chart">
      {#if rehearsal && workspace.score}<DifficultyChart {workspace} {...rehearsal} />
      {:else}<p class="quiet">Measuring how hard each bar is …</p>{/if}
    </div>
    <div class="page"><MusicPage {workspace} markings={workspace.reading.markings} selectable ready /></div>
    <aside class="side-panel" aria-label="Practice">
      <Tabs tabs={PANELS} bind:tab={panel} label="What is practised">
        {#if !rehearsal || !workspace.score}
          <p class="quiet">Measuring how hard each bar is …</p>
        {:else if panel === 'hard'}<HardPlaces {workspace} {...rehearsal} />
        {:else if panel === 'drills'}<Drills {workspace} />
        {:else if panel === 'plan'}<PlanPanel {workspace} />
        {:else if workspace.practice.open}<CheckSections practice={workspace.practice.open} piece={workspace.practice.pieceId} />
        {:else}<p class="quiet">A checklist for each section comes with a plan: begin one under Plan.</p>{/if}
      </Tabs>
    </aside>
  </div>
{:else}
  <OpeningRoom what="the piece" source={data.workspace.sourceHash} engine={data.workspace.engine} ribbon={156} />
{/if}

<style>
  .room {
    grid-template-rows: auto 11rem minmax(0, 1fr);
    grid-template-columns: minmax(0, 1fr) minmax(20rem, 30rem);
  }

  .chart {
    grid-column: 1;
    min-height: 0;
    border-bottom: 1px solid var(--line);
  }

  .page {
    grid-column: 1;
    min-height: 0;
  }

  .side-panel {
    grid-column: 2;
    grid-row: 2 / -1;
  }

  @media (max-width: 760px) {
    /* What is practised comes before the page: a phone has room for one of them. */
    .room {
      display: flex;
      flex-direction: column;
      overflow-y: auto;
    }

    .chart {
      height: 9rem;
    }

    .room > :global(*) {
      flex-shrink: 0;
    }

    .page {
      order: 1;
    }
  }
</style>
