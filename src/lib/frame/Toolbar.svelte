<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Button } from 'carbon-components-svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, children }: { workspace: Workspace; children?: Snippet } = $props();

  const { saving } = $derived(workspace.log);
  const saved = $derived(
    {
      saved: 'all saved',
      saving: 'saving …',
      waiting: `not saved yet; kept here and tried again. ${saving.why}`,
      stopped: 'nothing more is saved from this window'
    }[saving.state]
  );
</script>

<div class="tools not-printed" role="toolbar" aria-label="Tools of the room">
  {@render children?.()}
  <span class="gap"></span>
  <Button size="small" kind="ghost" disabled={!workspace.log.canUndo} on:click={() => workspace.log.undo()} title="Ctrl Z"
    >Undo{workspace.log.canUndo ? ` ${workspace.log.canUndo}` : ''}</Button
  >
  <Button size="small" kind="ghost" disabled={!workspace.log.canRedo} on:click={() => workspace.log.redo()} title="Ctrl Shift Z"
    >Redo{workspace.log.canRedo ? ` ${workspace.log.canRedo}` : ''}</Button
  >
  <span class="quiet saved" role="status" data-testid="saved">{saved}</span>
</div>

<style>
  .tools {
    display: flex;
    align-items: center;
    gap: 0.2rem 0.6rem;
    padding: 0.2rem 1rem;
    border-bottom: 1px solid var(--line);
    min-height: 2.2rem;
    white-space: nowrap;
  }

  .gap {
    flex: 1;
  }

  /* What would be undone is said as far as there is room. */
  .tools :global(.bx--btn--ghost) {
    display: block;
    max-width: 9rem;
    padding: 0.2rem 0.4rem;
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .saved {
    font-size: 0.85rem;
  }

  .tools :global(label) {
    font-size: 0.9rem;
    color: var(--muted);
  }

  .tools :global(.bx--select-input) {
    max-width: 8.5rem;
  }

  /* Where there is little room, what can be read elsewhere goes first. */
  @media (max-width: 1180px) {
    .tools {
      gap: 0.2rem 0.35rem;
      padding: 0.2rem 0.5rem;
    }

    .tools :global([data-testid='open-count']),
    .tools :global(.labelled label) {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }

    .tools :global(.bx--btn--ghost) {
      max-width: 6.5rem;
    }
  }

  @media (max-width: 760px) {
    .tools {
      flex-wrap: wrap;
      padding: 0.2rem 0.6rem;
    }
  }
</style>
