<script lang="ts">
  import OpeningRoom from '$lib/frame/OpeningRoom.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import FactsChart from '$lib/structure/FactsChart.svelte';
  import ParallelView from '$lib/structure/ParallelView.svelte';
  import SkeletonView from '$lib/structure/SkeletonView.svelte';
  import StructurePanel from '$lib/structure/StructurePanel.svelte';
  import Menu from '$lib/frame/Menu.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import ViewOptions from '$lib/music/ViewOptions.svelte';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import { analysisRows, voiceRow } from '$core/edition/rows';
  import Ribbon from '$lib/ribbon/Ribbon.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();
  let shown = $state({ chords: true, keys: true, phrases: false, rhythm: false, count: false });
  let pillars = $state(false);
  let voices = $state(false);
  let choosing = $state(false);
  let below = $state<'nothing' | 'parallels' | 'skeleton' | 'chart'>('nothing');
  let parallel = $state<string | null>(null);

  const workspace = $derived(holder.current);
  const rows = $derived(
    workspace?.score
      ? [
          ...analysisRows(workspace.score, workspace.facts, shown, (k) => workspace.keyName(k), workspace.reading.part),
          ...(voices ? voiceRow(workspace.score, workspace.study.details?.streams ?? []) : [])
        ]
      : []
  );
  const classes = $derived.by(() => {
    const map = new Map<string, string>();
    const put = (id: string, name: string) => map.set(id, map.has(id) ? `${map.get(id)} ${name}` : name);
    if (pillars) for (const r of workspace?.study.details?.roles ?? []) if (r.rank === 'connecting') put(r.note, 'connecting');
    if (voices)
      for (const f of workspace?.study.details?.streams ?? [])
        for (const s of f.streams) for (const n of s.notes) put(n, `voice-${s.name}`);
    for (const place of workspace?.study.found?.places ?? []) for (const n of place.notes) put(n, 'like');
    for (const n of workspace?.selection.notes ?? []) put(n, 'chosen');
    return map;
  });

  // The closer look is worked out once the room is open.
  $effect(() => {
    if (workspace?.score) workspace.study.needDetails();
  });
</script>

{#if workspace}
  <div class="room room-beside" class:split={below !== 'nothing'}>
    <Ribbon {workspace} lanes={['form', 'keys', 'time']} />
    <Toolbar {workspace}>
      <Menu label="Show">
        <Tick label="chords" bind:checked={shown.chords} />
        <Tick label="keys" bind:checked={shown.keys} />
        <Tick label="phrases" bind:checked={shown.phrases} />
        <Tick label="harmonic rhythm" title="A sign under every change of chord" bind:checked={shown.rhythm} />
        <Tick label="count" bind:checked={shown.count} />
        <Tick label="pillars" title="Connecting notes step back" bind:checked={pillars} />
        <Tick label="voices" title="Voices within a line, by colour and by sign: ˄ upper, – middle, ˅ lower" bind:checked={voices} />
      </Menu>
      <Tick label="choose notes" title="A click on a note chooses it" bind:checked={choosing} />
      <Choice label="Below" bind:value={below} data-testid="below"
        ><SelectItem value="nothing" text="nothing" /><SelectItem value="parallels" text="parallel places" /><SelectItem
          value="skeleton"
          text="skeleton"
        /><SelectItem value="chart" text="chart and table" /></Choice
      >
      <ViewOptions {workspace} />
    </Toolbar>
    <div class="page"><MusicPage {workspace} markings={[]} {rows} selectable ready noteClasses={classes} {choosing} /></div>
    {#if below !== 'nothing' && workspace.score}
      <div class="below">
        {#if below === 'parallels'}<ParallelView {workspace} chosen={parallel} onchoose={(id) => (parallel = id)} />
        {:else if below === 'skeleton'}<SkeletonView {workspace} />
        {:else}<FactsChart {workspace} />{/if}
      </div>
    {/if}
    <StructurePanel
      {workspace}
      onparallel={(id) => {
        parallel = id;
        below = 'parallels';
      }}
    />
  </div>
{:else}
  <OpeningRoom what="the structure" source={data.workspace.sourceHash} engine={data.workspace.engine} ribbon={108} />
{/if}

<style>
  .room {
    grid-template-rows: auto auto minmax(0, 1fr);
  }

  .room.split {
    grid-template-rows: auto auto minmax(0, 1fr) minmax(0, 20rem);
  }

  .room > :global(.side-panel) {
    grid-column: 2;
    grid-row: 3 / -1;
  }

  .page,
  .below {
    grid-column: 1;
  }

  .below {
    border-top: 2px solid var(--line);
    min-height: 0;
  }
</style>
