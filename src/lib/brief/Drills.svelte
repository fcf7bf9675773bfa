<script lang="ts">
  import Act from '../controls/Act.svelte';
  import DrillItem from '../practice/DrillItem.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** Practice material for the chosen bars: made from the score, each with its reason. */
  const { workspace }: { workspace: Workspace } = $props();

  const selection = $derived(workspace.selection);
  let asked = $state(false);
  const { drills } = $derived(workspace.study);
  const here = $derived(drills && drills.from === selection.from && drills.to === selection.to ? drills.list : null);

  // Other bars, other material.
  $effect(() => {
    void selection.from;
    void selection.to;
    asked = false;
  });

  function ask(): void {
    asked = true;
    workspace.study.askDrills(selection.from, selection.to);
  }
</script>

<div class="drills not-printed" data-testid="drills">
  {#if !asked}
    <Act onclick={ask}>Make practice material of {selection.from === selection.to ? 'this bar' : 'these bars'} …</Act>
  {:else if !here}
    <p class="quiet" aria-live="polite">Looking for what helps here …</p>
  {:else}
    {#each here as drill (drill.kind + drill.from)}
      <DrillItem {workspace} {drill} />
    {:else}
      <p class="quiet">These bars give no reason for practice material of their own.</p>
    {/each}
  {/if}
</div>

<style>
  .drills {
    padding-top: 0.3rem;
  }
</style>
