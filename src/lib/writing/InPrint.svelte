<script lang="ts">
  import { barRegions } from '$core/writing/facsimile';
  import type { Facsimile } from '../shapes';
  import PrintedBar from './PrintedBar.svelte';

  /** How a bar looks on the paper that its piece was written from; nothing where there is none. */
  const { paper, bar, name }: { paper: Facsimile | null; bar: number; name: string } = $props();

  const region = $derived(paper && barRegions(paper.pages.map((p) => p.cuts))[bar]);
</script>

{#if paper && region}
  <figure data-testid="in-print">
    <PrintedBar writing={paper.writing} pages={paper.pages} {region} {name} />
    <figcaption class="quiet">{name} in print</figcaption>
  </figure>
{/if}

<style>
  figure {
    margin: 0.4rem 0;
  }
</style>
