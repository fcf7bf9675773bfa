<script lang="ts">
  import type { BarRegion } from '$core/writing/facsimile';
  import { api } from '../api';
  import type { FacsimilePage } from '../shapes';

  interface Props {
    writing: number;
    pages: readonly FacsimilePage[];
    region: BarRegion;
    name: string;
  }
  const { writing, pages, region, name }: Props = $props();

  /** Pixels in height of what is shown, at most. */
  const MOST = 170;
  let width = $state(0);
  /** Height of the page against its width, once it is there. */
  let ratio = $state(0);

  const across = $derived(region.right - region.left);
  const down = $derived(region.bottom - region.top);
  /** Width of the whole page, so large that the bar fills the room. */
  const whole = $derived(ratio && width ? Math.min(width / across, MOST / (down * ratio)) : 0);
</script>

<div class="printed" bind:clientWidth={width} style:height="{whole ? down * whole * ratio : MOST}px" data-testid="printed-bar">
  <div class="bar" style:width="{across * whole}px">
    <img
      src={api.facsimileAddress(writing, pages[region.page].id)}
      alt="{name} in print"
      style:width="{whole}px"
      style:left="{-region.left * whole}px"
      style:top="{-region.top * whole * ratio}px"
      onload={(e) => {
        const { naturalWidth, naturalHeight } = e.currentTarget as HTMLImageElement;
        ratio = naturalHeight / naturalWidth;
      }}
    />
  </div>
</div>

<style>
  .printed {
    overflow: hidden;
  }

  .bar {
    position: relative;
    height: 100%;
    overflow: hidden;
    border: 1px solid var(--line);
    box-sizing: border-box;
  }

  img {
    position: absolute;
    max-width: none;
  }
</style>
