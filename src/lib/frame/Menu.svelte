<script lang="ts">
  import type { Snippet } from 'svelte';

  /** `up`: it opens above its word, for bars at the foot of a room. */
  const { label, up = false, children }: { label: string; up?: boolean; children: Snippet } = $props();

  let host: HTMLDetailsElement;

  function outside(event: PointerEvent): void {
    if (host.open && event.target instanceof Node && !host.contains(event.target)) host.open = false;
  }

  function key(event: KeyboardEvent): void {
    if (event.key !== 'Escape' || !host.open) return;
    host.open = false;
    host.querySelector('summary')?.focus();
    event.stopPropagation();
  }
</script>

<svelte:window onpointerdown={outside} />

<!-- svelte-ignore a11y_no_noninteractive_element_interactions (Escape closes what the summary opened) -->
<details class="menu" bind:this={host} onkeydown={key}>
  <summary>{label}</summary>
  <div class:up>{@render children()}</div>
</details>

<style>
  .menu {
    position: relative;
    font-size: 0.9rem;
  }

  summary {
    cursor: pointer;
    color: var(--tone-1);
  }

  .menu div {
    position: absolute;
    z-index: 5;
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 0.35rem;
    padding: 0.5rem 0.8rem;
    background: var(--raised);
    border: 1px solid var(--line);
    white-space: nowrap;
  }

  .menu div.up {
    bottom: 1.6rem;
    right: 0;
  }
</style>
