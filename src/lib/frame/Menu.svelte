<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Popover } from 'carbon-components-svelte';
  import Act from '$lib/controls/Act.svelte';

  /** `up`: it opens above its word, for bars at the foot of a room. */
  interface Props {
    label: string;
    /** What it is for, where its word does not say it. */
    says?: string;
    up?: boolean;
    /** It opens to the left, at the right side of something. */
    left?: boolean;
    children: Snippet;
  }
  const { label, says, up = false, left = false, children }: Props = $props();

  let open = $state(false);
  let host: HTMLDivElement;

  function key(event: KeyboardEvent): void {
    if (event.key !== 'Escape' || !open) return;
    open = false;
    host.querySelector('button')?.focus();
    event.stopPropagation();
  }
  /** A click elsewhere closes it; one on its own word is that word's to take. */
  function outside(event: PointerEvent): void {
    if (open && event.target instanceof Node && !host.contains(event.target)) open = false;
  }
</script>

<svelte:window onpointerdown={outside} />

<!-- svelte-ignore a11y_no_static_element_interactions (Escape closes what its word opened) -->
<div class="menu" bind:this={host} onkeydown={key}>
  <Act aria-expanded={open} aria-label={says} title={says} onclick={() => (open = !open)}>{label}</Act>
  <Popover {open} align={up ? 'top-right' : left ? 'bottom-right' : 'bottom-left'} class="menu-contents">{@render children()}</Popover>
</div>

<style>
  .menu {
    position: relative;
  }

  .menu :global(.bx--popover-contents) {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 0.35rem;
    padding: 0.5rem 0.8rem;
    background: var(--raised);
    border: 1px solid var(--line);
    width: max-content;
    max-width: min(22rem, 90vw);
  }
</style>
