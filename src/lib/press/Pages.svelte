<script lang="ts">
  import type { Preview } from './preview.svelte';

  const { preview }: { preview: Preview } = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="desk" role="region" aria-label="The pages of the edition" tabindex="0">
  {#if preview.fault}<p role="alert">{preview.fault}</p>{/if}
  {#each preview.pages as page, k (k)}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from plain records, every text escaped -->
    <div class="sheet" data-testid="sheet" data-page={k + 1}>{@html page}</div>
  {:else}
    {#if !preview.fault}<p class="quiet">The pages are being made …</p>{/if}
  {/each}
</div>

<style>
  .desk {
    overflow-y: auto;
    background: var(--line);
    padding: 1.2rem 1rem;
  }

  /* The sheet is paper in both themes: what is seen is what is printed. */
  .sheet {
    max-width: 50rem;
    margin: 0 auto 1.2rem;
    background: #fff;
  }

  .sheet :global(svg) {
    display: block;
    width: 100%;
    height: auto;
  }

  .sheet :global(.editorial) {
    color: #8d3510;
  }

  .sheet :global(text.editorial) {
    fill: currentColor;
  }

  p {
    text-align: center;
    padding: 2rem 0;
  }

  @media (max-width: 700px) {
    .desk {
      padding: 0.3rem;
    }
  }

  @media print {
    .desk {
      padding: 0;
      background: none;
      overflow: visible;
    }

    .sheet {
      max-width: none;
      margin: 0;
      height: 100vh;
      overflow: hidden;
      break-after: page;
      break-inside: avoid;
    }

    .sheet:last-of-type {
      break-after: auto;
    }

    .sheet :global(svg) {
      height: 100%;
    }

    .sheet :global(.editorial) {
      color: #000;
    }
  }
</style>
