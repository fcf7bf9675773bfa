<script lang="ts">
  import type { Workspace } from '../workspace/workspace.svelte';
  import type { Scale } from './scale.svelte';

  const { workspace, scale }: { workspace: Workspace; scale: Scale } = $props();

  const HEIGHT = 14;
  let dragging = false;

  const cell = $derived(scale.width / Math.max(1, scale.bars));
  const starts = $derived(
    workspace.facts.sections.map((s) => ({ bar: workspace.measureOf(s.start)?.index ?? 0, label: s.label.replace(/'/g, '′') }))
  );

  function at(event: PointerEvent): number {
    return Math.floor((event.clientX - (event.currentTarget as SVGSVGElement).getBoundingClientRect().left) / cell);
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions (the bars lane is the one that keys reach, and the window follows it) -->
<svg
  class="overview"
  width={scale.width}
  height={HEIGHT}
  data-testid="overview"
  aria-hidden="true"
  onpointerdown={(e) => {
    dragging = true;
    e.currentTarget.setPointerCapture(e.pointerId);
    scale.center(at(e));
  }}
  onpointermove={(e) => dragging && scale.center(at(e))}
  onpointerup={() => (dragging = false)}
  onpointercancel={() => (dragging = false)}
>
  <rect class="window" x={scale.from * cell} y="0" width={scale.shown * cell} height={HEIGHT} />
  <rect
    class="chosen"
    x={workspace.selection.from * cell}
    y="0"
    width={Math.max(2, (workspace.selection.to - workspace.selection.from + 1) * cell)}
    height={HEIGHT}
  />
  {#each starts as s (s.bar)}
    <path class="section" d="M{s.bar * cell},0 V{HEIGHT}" />
    <text class="cadence-name" x={s.bar * cell + 3} y={HEIGHT - 3}>{s.label}</text>
  {/each}
</svg>
