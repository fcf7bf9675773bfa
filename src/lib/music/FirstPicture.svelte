<script lang="ts">
  import { api } from '../api';

  /** The first systems of a source as they were engraved when it came in: music at once, while the engraver is on its way. */
  const { source, engine }: { source: string; engine: string } = $props();
</script>

<picture class="first" data-testid="first-picture">
  <source media="(max-width: 760px)" srcset={api.pictureAddress(source, engine, 'narrow')} />
  <img src={api.pictureAddress(source, engine, 'wide')} alt="The first systems, as printed" fetchpriority="high" />
</picture>

<style>
  .first {
    position: absolute;
    inset: 0 0 auto;
    z-index: 1;
    background: var(--paper);
  }

  img {
    display: block;
    width: 100%;
  }

  :global([data-theme='dark']) img {
    filter: invert(0.9);
  }
</style>
