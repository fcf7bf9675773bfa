<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Workspace } from '../workspace/workspace.svelte';
  import type { Scale } from './scale.svelte';

  interface Props {
    workspace: Workspace;
    scale: Scale;
    /** What it shows, as its head says it. */
    name: string;
    height: number;
    onfold: () => void;
    children: Snippet;
  }
  const { workspace, scale, name, height, onfold, children }: Props = $props();

  function pick(event: PointerEvent): void {
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    workspace.selection.bar(scale.barAt(event.clientX - box.left), event.shiftKey);
  }
</script>

<div class="lane" data-lane={name}>
  <button class="head" onclick={onfold} aria-expanded="true" title="Fold {name} away">{name}</button>
  <!-- svelte-ignore a11y_no_static_element_interactions (the bars lane below is the one that keys reach; a click here chooses the same bar) -->
  <svg width={scale.width} {height} aria-hidden="true" onpointerdown={pick}>
    <rect
      class="chosen"
      x={scale.bar(workspace.selection.from)}
      y="0"
      width={(workspace.selection.to - workspace.selection.from + 1) * scale.cell}
      {height}
    />
    {@render children()}
  </svg>
</div>
