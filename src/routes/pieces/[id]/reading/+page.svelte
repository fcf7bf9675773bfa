<script lang="ts">
  import OpeningRoom from '$lib/frame/OpeningRoom.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { Button } from 'carbon-components-svelte';
  import StyleDialog from '$lib/style/StyleDialog.svelte';
  import PeriodChoice from '$lib/style/PeriodChoice.svelte';
  import DraftDialog from '$lib/style/DraftDialog.svelte';
  import Brief from '$lib/brief/Brief.svelte';
  import PlayBar from '$lib/hearing/PlayBar.svelte';
  import Menu from '$lib/frame/Menu.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import ViewOptions from '$lib/music/ViewOptions.svelte';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import { staffNumber } from '$core/edition/mei';
  import { analysisRows } from '$core/edition/rows';
  import Ribbon from '$lib/ribbon/Ribbon.svelte';
  import { useWorkspace } from '$lib/workspace/context';
  import ForWhom from '$lib/players/ForWhom.svelte';
  import Readings from '$lib/readings/Readings.svelte';
  import { crossingRows, wordRows, LYING_NAMES, onPage, unwritten, type LyingKind } from '$lib/brief/lying';
  import PlanMenu from '$lib/ribbon/PlanMenu.svelte';

  const { data } = $props();
  const holder = useWorkspace();
  let chords = $state(false);
  let keys = $state(false);
  let crossings = $state(false);
  const words = $state({ breath: false, movement: false });
  const WORDS = { breath: 'seconds on each breath', movement: 'movements by name (dbl: doubling)' } as const;
  let styling = $state(false);
  let drafting = $state(false);
  const LYING_KINDS = Object.keys(LYING_NAMES) as LyingKind[];
  const shown = $state(Object.fromEntries(LYING_KINDS.map((kind) => [kind, false])) as Record<LyingKind, boolean>);
  /** Signs of how it lies that are looked at without being written. */
  const lying = $derived.by(() => {
    const workspace = holder.current;
    if (!workspace || !Object.values(shown).some(Boolean)) return [];
    const marks = unwritten(workspace.study.lies, workspace.reading).filter((m) => shown[m.kind as LyingKind]);
    return onPage(marks, workspace.reading.part);
  });
  const rows = $derived(
    holder.current?.score
      ? [
          ...analysisRows(holder.current.score, holder.current.facts, { chords, keys }, (k) => holder.current!.keyName(k)),
          ...(crossings ? crossingRows(holder.current.study.lies) : []),
          ...(['breath', 'movement'] as const).flatMap((of) =>
            words[of] ? wordRows(holder.current!.study.lies, of, staffNumber(holder.current!.score!, holder.current!.reading.part, 1)) : []
          )
        ]
      : []
  );
  const open = $derived(holder.current ? holder.current.study.proposals.filter((p) => !holder.current!.decisionOf(p.key)).length : 0);
</script>

{#if holder.current}
  {@const workspace = holder.current}
  <div class="room room-beside">
    <Ribbon {workspace} />
    <Toolbar {workspace}>
      <Readings piece={data.piece.id} readings={data.readings} current={data.workspace.readingId}>
        {#snippet more()}<ForWhom {workspace} />{/snippet}
      </Readings>
      <PeriodChoice
        value={workspace.reading.period}
        onchange={(period) => workspace.act({ type: 'set-period', period })}
        data-testid="period"
      />
      <Button size="small" kind="ghost" on:click={() => (styling = true)}>Style and schools</Button>
      <Button size="small" kind="ghost" on:click={() => (drafting = true)}>Draft a reading</Button>
      <PlanMenu {workspace} />
      <Menu label="Show">
        <Tick label="chords" bind:checked={chords} />
        <Tick label="keys" bind:checked={keys} />
        {#each LYING_KINDS.filter((kind) => workspace.study.lies?.marks.some((m) => m.needed && m.kind === kind)) as kind (kind)}
          <Tick label="{LYING_NAMES[kind]}s as they lie" bind:checked={shown[kind]} />
        {/each}
        {#each ['breath', 'movement'] as const as of (of)}
          {#if workspace.study.lies?.words.some((w) => w.of === of)}<Tick label={WORDS[of]} bind:checked={words[of]} />{/if}
        {/each}
        {#if workspace.study.lies?.crossings.length}<Tick label="crossings over a string" bind:checked={crossings} />{/if}
      </Menu>
      <ViewOptions {workspace} />
      <span class="quiet counted" data-testid="open-count">{open} open · {workspace.reading.markings.length} marked</span>
    </Toolbar>
    <div class="page"><MusicPage {workspace} markings={[...workspace.reading.markings, ...lying]} {rows} selectable ready writable /></div>
    <Brief {workspace} />
    <PlayBar {workspace} />
    <StyleDialog {workspace} open={styling} onclose={() => (styling = false)} />
    {#if drafting}<DraftDialog {workspace} onclose={() => (drafting = false)} />{/if}
  </div>
{:else}
  <OpeningRoom what="the reading" source={data.workspace.sourceHash} engine={data.workspace.engine} ribbon={156} />
{/if}

<style>
  .counted {
    padding-left: 0.5rem;
    white-space: nowrap;
  }

  .room {
    grid-template-rows: auto auto minmax(0, 1fr) auto;
  }

  .room > .page,
  .room > :global(.brief) {
    grid-row: 3;
  }
</style>
