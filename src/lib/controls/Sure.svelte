<script lang="ts">
  import { sureness } from '$core/analysis/confidence';

  const { of, pinned = false }: { of: number; pinned?: boolean } = $props();

  let shown = $state(false);
  const number = $derived(`${Math.round(of * 100)} in 100`);
</script>

{#if pinned}<span class="quiet">set by the instructor</span>{:else}<button
    type="button"
    class="sure {sureness(of)}"
    title="How likely this is to be right: of those that say so, about {number} are"
    aria-expanded={shown}
    onclick={() => (shown = !shown)}>{sureness(of)}{shown ? `, ${number}` : ''}</button
  >{/if}

<style>
  .sure {
    padding: 0 0.15rem;
    border: 0;
    background: none;
    font: inherit;
    font-size: 0.82rem;
    color: var(--muted);
    cursor: help;
  }

  .doubtful {
    border-bottom: 1px dotted currentColor;
  }
</style>
