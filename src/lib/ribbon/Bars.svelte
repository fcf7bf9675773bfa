<script lang="ts">
  import type { Workspace } from '../workspace/workspace.svelte';
  import type { Scale } from './scale.svelte';

  const { workspace, scale }: { workspace: Workspace; scale: Scale } = $props();

  const HEIGHT = 24;
  /** Bars of a leap by page keys. */
  const LEAP = 8;

  const selection = $derived(workspace.selection);
  const measures = $derived(workspace.score?.measures ?? []);
  const openAt = $derived.by(() => {
    const bars = new Map<number, number>();
    for (const p of workspace.proposals) {
      const m = workspace.measureOf(p.marking.start);
      if (m) bars.set(m.index, (bars.get(m.index) ?? 0) + 1);
    }
    return bars;
  });
  const markedAt = $derived(new Set(workspace.reading.markings.map((m) => workspace.measureOf(m.start)?.index)));

  function pick(event: PointerEvent): void {
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    selection.bar(scale.barAt(event.clientX - box.left), event.shiftKey);
  }

  function key(event: KeyboardEvent): void {
    if (!selection.key(event, { PageDown: LEAP, PageUp: -LEAP })) return;
    event.preventDefault();
  }
</script>

<svg
  class="bars"
  width={scale.width}
  height={HEIGHT}
  role="slider"
  tabindex="0"
  aria-label="The whole piece, a cell to a bar"
  aria-valuemin={1}
  aria-valuemax={measures.length}
  aria-valuenow={selection.from + 1}
  aria-valuetext={measures[selection.from] ? workspace.barName(measures[selection.from]) : ''}
  onpointerdown={pick}
  onkeydown={key}
>
  <rect class="chosen" x={scale.bar(selection.from)} y="0" width={(selection.to - selection.from + 1) * scale.cell} height={HEIGHT} />
  {#if workspace.player.measure !== null}
    <rect class="playing" x={scale.bar(workspace.player.measure)} y="0" width={Math.max(2, scale.cell)} height={HEIGHT} />
  {/if}
  {#each measures.slice(scale.from, scale.to) as measure (measure.index)}
    {@const x = scale.bar(measure.index)}
    {@const open = openAt.get(measure.index) ?? 0}
    <rect class="bar" {x} y="0" width={scale.cell} height={HEIGHT} />
    {#if measure.index % scale.every === 0 && !measure.implicit}<text class="number" x={x + 2} y={HEIGHT - 3}>{measure.number}</text>{/if}
    {#if open}<circle class="open" cx={x + scale.cell - 6} cy="8" r={Math.min(3.2, scale.cell / 3)}
        ><title>{open} open {open === 1 ? 'proposal' : 'proposals'}</title></circle
      >{/if}
    {#if markedAt.has(measure.index)}<rect class="marked" x={x + scale.cell * 0.2} y="0" width={scale.cell * 0.6} height="2.5"
        ><title>This bar is marked</title></rect
      >{/if}
  {/each}
</svg>
