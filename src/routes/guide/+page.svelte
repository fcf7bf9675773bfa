<script lang="ts">
  const { data } = $props();
</script>

<svelte:head><title>Guide · Nuvelo</title></svelte:head>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (what scrolls is reached by keys) -->
<article class="guide" tabindex="0" aria-label="The guide">
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- the guide of the repository, made into HTML on the server -->
  {@html data.html}
</article>

<style>
  .guide {
    height: 100%;
    overflow-y: auto;
    box-sizing: border-box;
    padding: 1.5rem max(1rem, calc((100% - 46rem) / 2));
  }

  .guide :global(h2) {
    padding-top: 1.4rem;
  }

  .guide :global(p),
  .guide :global(ul),
  .guide :global(ol) {
    margin: 0.4rem 0;
  }

  .guide :global(img) {
    width: 100%;
    border: 1px solid var(--line);
  }

  @media print {
    .guide {
      height: auto;
      padding: 0;
    }
  }
</style>
