<script lang="ts" generics="Tab extends string">
  import type { Snippet } from 'svelte';

  interface Props {
    /** Names of the tabs by key, in order. */
    tabs: Record<Tab, string>;
    tab: Tab;
    label: string;
    children: Snippet;
  }
  let { tabs, tab = $bindable(), label, children }: Props = $props();

  const keys = $derived(Object.keys(tabs) as Tab[]);

  function key(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!step) return;
    tab = keys[(keys.indexOf(tab) + step + keys.length) % keys.length];
    document.getElementById(`tab-${tab}`)?.focus();
    event.preventDefault();
  }
</script>

<div class="tabs" role="tablist" aria-label={label}>
  {#each keys as name (name)}
    <button
      id="tab-{name}"
      role="tab"
      aria-selected={tab === name}
      aria-controls="tab-content"
      tabindex={tab === name ? 0 : -1}
      onclick={() => (tab = name)}
      onkeydown={key}>{tabs[name]}</button
    >
  {/each}
</div>
<div id="tab-content" role="tabpanel" aria-labelledby="tab-{tab}">{@render children()}</div>

<style>
  .tabs {
    display: flex;
    gap: 1rem;
    padding-top: 0.4rem;
    border-bottom: 1px solid var(--line);
  }

  button {
    font: inherit;
    color: var(--muted);
    background: none;
    border: 0;
    border-bottom: 2px solid transparent;
    padding: 0.15rem 0;
    cursor: pointer;
  }

  [aria-selected='true'] {
    color: var(--ink);
    border-bottom-color: var(--edition);
  }
</style>
