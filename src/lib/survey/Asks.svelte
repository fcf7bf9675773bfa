<script lang="ts">
  import { onMount } from 'svelte';
  import Act from '../controls/Act.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    /** Name of a bar by its index. */
    name: (bar: number) => string;
    /** Goes to a bar. */
    lead: (bar: number) => void;
  }
  const { workspace, name, lead }: Props = $props();

  onMount(() => workspace.study.needLies());
  const asks = $derived(workspace.study.lies?.asks);
</script>

{#if asks?.lines.length}
  <dl data-testid="asks">
    {#each asks.lines as line (line.id)}
      <dt>{line.label}</dt>
      <dd>
        {line.value}
        {#if line.bars.length}
          <span class="bars not-printed">
            {line.bars.length === 1 ? 'bar' : 'bars'}
            {#each line.bars as bar (bar)}<Act onclick={() => lead(bar)} aria-label="Go to bar {name(bar)}">{name(bar)}</Act>{/each}
          </span>
        {/if}
      </dd>
    {/each}
  </dl>
{/if}

<style>
  dl {
    display: grid;
    grid-template-columns: minmax(9rem, max-content) 1fr;
    gap: 0.15rem 1rem;
    margin: 0;
  }

  dt {
    color: var(--muted);
  }

  dd {
    margin: 0;
  }

  .bars {
    color: var(--muted);
    font-size: 0.9em;
    padding-left: 0.3rem;
  }
</style>
