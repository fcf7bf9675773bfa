<script lang="ts">
  import { untrack } from 'svelte';
  import { Button } from 'carbon-components-svelte';
  import { draftPreface } from '$core/edition/text/preface';
  import Tabs from '$lib/frame/Tabs.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import Card from '$lib/press/Card.svelte';
  import Downloads from '$lib/press/Downloads.svelte';
  import { editionOf } from '$lib/press/edition';
  import PageOptions from '$lib/press/PageOptions.svelte';
  import Pages from '$lib/press/Pages.svelte';
  import Preface from '$lib/press/Preface.svelte';
  import { Preview } from '$lib/press/preview.svelte';
  import { pageSize } from '$core/edition/pages/edition-pages';
  import Readings from '$lib/readings/Readings.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();

  const TABS = { pages: 'Pages', preface: 'Preface', card: 'Card' } as const;
  let tab = $state<keyof typeof TABS>('pages');
  let preview = $state.raw<Preview | null>(null);

  const readingId = $derived(data.workspace.readingId);
  const unsaved = $derived(holder.current?.saving.state !== 'saved');
  const size = $derived(holder.current ? pageSize(holder.current.reading.pages) : null);
  const edition = $derived(
    holder.current && tab !== 'pages'
      ? editionOf(holder.current, {
          title: data.piece.title,
          composer: data.piece.composer,
          instrument: data.piece.instrument,
          sources: data.sources.map((s) => s.name)
        })
      : null
  );
  const draft = $derived(edition && tab === 'preface' ? draftPreface(edition) : null);

  // The texts need what a closer look finds and the seconds.
  $effect(() => {
    if (tab !== 'pages') holder.current?.needPerformance();
  });

  // The pages are asked for at once, also before the score has come to the browser.
  $effect(() => {
    const made = new Preview(`/api/readings/${readingId}/pages`);
    preview = made;
    void untrack(() => made.make());
    return () => made.close();
  });

  // They are made again when what was done has been saved.
  let shown = '';
  $effect(() => {
    const workspace = holder.current;
    if (!workspace || workspace.saving.state !== 'saved') return;
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
      <Button size="small" kind="tertiary" disabled={preview.stage !== null || preview.fault !== null} on:click={() => print()}>Print</Button>
      <Downloads address="/api/readings/{readingId}/edition" disabled={unsaved} />
      <span class="quiet" role="status" data-testid="preview-stage"
        >{preview.stage === null ? `${preview.pages.length} page${preview.pages.length === 1 ? '' : 's'}` : `${preview.stage} …`}</span
      >
    </Toolbar>
    <Pages {preview} />
    <aside class="side-panel not-printed" aria-label="What is printed">
      <Tabs tabs={TABS} bind:tab label="Parts of the edition">
        {#if tab === 'pages'}<PageOptions {workspace} />
        {:else if tab === 'preface'}<Preface {workspace} {draft} />
        {:else}<Card {workspace} {edition} />{/if}
      </Tabs>
    </aside>
  </div>
{:else}
  <p class="opening quiet">Opening the edition …</p>
{/if}

<style>
  .room {
    grid-template-rows: auto minmax(0, 1fr);
  }

  .opening {
    padding: 2rem;
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
