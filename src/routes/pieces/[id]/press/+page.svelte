<script lang="ts">
  import OpeningRoom from '$lib/frame/OpeningRoom.svelte';
  import { untrack } from 'svelte';
  import { Button } from 'carbon-components-svelte';
  import { draftPreface } from '$core/edition/text/preface';
  import Tabs from '$lib/frame/Tabs.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import Card from '$lib/press/Card.svelte';
  import Comparison from '$lib/press/Comparison.svelte';
  import Differences from '$lib/press/Differences.svelte';
  import Downloads from '$lib/press/Downloads.svelte';
  import { editionOf } from '$lib/press/edition';
  import Editions from '$lib/press/Editions.svelte';
  import PageOptions from '$lib/press/PageOptions.svelte';
  import Pages from '$lib/press/Pages.svelte';
  import { api } from '$lib/api';
  import type { SourceCollation } from '$lib/shapes';
  import Sources from '$lib/press/Sources.svelte';
  import { Preview } from '$lib/press/preview.svelte';
  import { pageSize } from '$core/edition/pages/edition-pages';
  import Readings from '$lib/readings/Readings.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();

  const TABS = { pages: 'Pages', preface: 'Preface', card: 'Card', sources: 'Sources', editions: 'Editions' } as const;
  let tab = $state<keyof typeof TABS>('pages');
  let preview = $state.raw<Preview | null>(null);
  /** Two states of the piece that are compared. */
  /** The differences between sources are looked at. */
  let looking = $state(false);
  let compared = $state.raw<[string, string] | null>(null);

  let collations = $state.raw<SourceCollation[]>([]);
  /** Of the comparison of sources, when it could not be had. */
  let collationFault = $state('');

  // The other sources are laid beside the first on the server.
  $effect(() => {
    const wanted = data.otherSources.map((s) => s.hash).join();
    const stopped = new AbortController();
    if (!wanted) collations = [];
    else
      api
        .collations(data.piece.id, stopped.signal)
        .then((found) => ({ collations } = found))
        .catch((e: Error) => {
          if (!stopped.signal.aborted) collationFault = e.message;
        });
    return () => stopped.abort();
  });

  const readingId = $derived(data.workspace.readingId);
  const unsaved = $derived(holder.current?.log.saving.state !== 'saved');
  const size = $derived(holder.current ? pageSize(holder.current.reading.pages) : null);
  const edition = $derived(
    holder.current && (tab === 'preface' || tab === 'card')
      ? editionOf(holder.current, {
          title: data.piece.title,
          composer: data.piece.composer,
          instrument: data.piece.instrument,
          source: data.source,
          collations
        })
      : null
  );
  const draft = $derived(edition && tab === 'preface' ? draftPreface(edition) : null);

  /** "reading-1" or "edition-2" by its name. */
  function nameOf(state: string): string {
    const [kind, id] = state.split('-');
    if (kind === 'reading') return data.readings.find((r) => String(r.id) === id)?.name ?? 'reading';
    return `Edition ${data.editions.find((e) => String(e.id) === id)?.number ?? ''}`;
  }

  // The texts need what a closer look finds and the seconds.
  $effect(() => {
    if (tab === 'preface' || tab === 'card') holder.current?.needPerformance();
  });

  // The pages are asked for at once, also before the score has come to the browser.
  $effect(() => {
    const made = new Preview(readingId);
    preview = made;
    void untrack(() => made.make());
    return () => made.close();
  });

  // They are made again when what was done has been saved.
  let shown = '';
  $effect(() => {
    const workspace = holder.current;
    if (!workspace || workspace.log.saving.state !== 'saved') return;
    const now = JSON.stringify(workspace.reading);
    untrack(() => {
      if (shown && shown !== now) preview?.later();
      shown = now;
    });
  });
</script>

<svelte:head>
  {#if size}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- two numbers, so that the browser prints on the paper that the pages are made for -->
    {@html `<style>@page { size: ${size.width}pt ${size.height}pt; margin: 0; }</style>`}
  {/if}
</svelte:head>

{#if holder.current && preview}
  {@const workspace = holder.current}
  <div class="room room-beside">
    <Toolbar {workspace}>
      <Readings piece={data.piece.id} readings={data.readings} current={data.workspace.readingId} />
      <Button size="small" kind="tertiary" disabled={preview.stage !== null || preview.fault !== null} on:click={() => print()}
        >Print</Button
      >
      <Downloads reading={readingId} disabled={unsaved} />
      <span class="quiet" role="status" data-testid="preview-stage"
        >{preview.stage === null ? `${preview.pages.length} page${preview.pages.length === 1 ? '' : 's'}` : `${preview.stage} …`}</span
      >
    </Toolbar>
    {#if compared}<Comparison
        {workspace}
        piece={data.piece.id}
        states={compared}
        names={[nameOf(compared[0]), nameOf(compared[1])]}
        onclose={() => (compared = null)}
      />
    {:else if looking && collations.length}<Differences
        {workspace}
        sourceHash={data.workspace.sourceHash}
        source={data.source}
        {collations}
        onclose={() => (looking = false)}
      />
    {:else}<Pages {preview} />{/if}
    <aside class="side-panel not-printed" aria-label="What is printed">
      <Tabs tabs={TABS} bind:tab label="Parts of the edition">
        {#if tab === 'pages'}<PageOptions {workspace} />
        {:else if tab === 'preface'}
          {#await import('$lib/press/Preface.svelte')}<p class="quiet" role="status">The editor is on its way …</p>
          {:then { default: Preface }}<Preface {workspace} {draft} />
          {:catch}<p role="alert">The editor could not be loaded. Please load the page again.</p>{/await}
        {:else if tab === 'card'}<Card {workspace} {edition} />
        {:else if tab === 'sources'}<Sources
            piece={data.piece.id}
            source={data.source}
            others={data.otherSources}
            fault={collationFault}
            {workspace}
            {collations}
            onlook={() => (looking = true)}
          />
        {:else}<Editions
            piece={data.piece.id}
            reading={readingId}
            readings={data.readings}
            editions={data.editions}
            {unsaved}
            oncompare={(a, b) => (compared = [a, b])}
          />{/if}
      </Tabs>
    </aside>
  </div>
{:else}
  <OpeningRoom what="the edition" source={data.workspace.sourceHash} engine={data.workspace.engine} ribbon={0} />
{/if}

<style>
  .room {
    grid-template-rows: auto minmax(0, 1fr);
  }

  @media (max-width: 900px) {
    .room {
      display: block;
      height: auto;
    }
  }

  @media print {
    .room {
      display: block;
    }
  }
</style>
