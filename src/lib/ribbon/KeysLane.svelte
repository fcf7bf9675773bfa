<script lang="ts">
  import { toldKey } from '$core/analysis/key-words';
  import type { KeyFact } from '$core/analysis/facts';
  import type { Workspace } from '../workspace/workspace.svelte';
  import type { Scale } from './scale.svelte';

  const { workspace, scale }: { workspace: Workspace; scale: Scale } = $props();

  /** Pixels from which a key is named shortly, and whole. */
  const SHORT = 24;
  const WHOLE = 64;

  function nameIn(area: KeyFact, width: number): string {
    if (width > WHOLE) return toldKey(area);
    if (area.tonality === 'none') return '–';
    return area.name.replace(' major', '').replace(/^(\S+) minor$/, (_, tonic: string) => tonic.toLowerCase());
  }
</script>

{#each workspace.facts.keys as area, k (area.id)}
  {#if scale.sees(area.start, area.end)}
    {@const [a, b] = [Math.max(0, scale.x(area.start)), Math.min(scale.width, scale.x(area.end))]}
    <rect class="key" class:other={k % 2 === 1} x={a} y="1" width={Math.max(0, b - a - 1)} height="15"
      ><title>{toldKey(area)}: {area.evidence}</title></rect
    >
    {#if b - a > SHORT}<text class="key-name" x={a + 4} y="13">{nameIn(area, b - a)}{area.pinned ? ' ●' : ''}</text>{/if}
  {/if}
{/each}
