<script lang="ts">
  import { untrack } from 'svelte';
  import { InlineNotification } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { provideWorkspace } from '$lib/workspace/context';
  import { Workspace } from '$lib/workspace/workspace.svelte';

  const { data, children } = $props();

  const holder = $state<{ current: Workspace | null }>({ current: null });
  provideWorkspace(holder);

  const readingId = $derived(data.workspace.readingId);

  // A piece opened from another piece gets a workspace of its own.
  $effect(() => {
    void readingId;
    return untrack(open);
  });

  function open(): () => void {
    const workspace = new Workspace(data.workspace);
    const bar = Number(page.url.searchParams.get('bar'));
    if (Number.isInteger(bar) && bar > 0) workspace.selection.bar(bar);
    holder.current = workspace;
    const look = () => document.visibilityState === 'visible' && void workspace.log.saving.catchUp();
    document.addEventListener('visibilitychange', look);
    return () => {
      document.removeEventListener('visibilitychange', look);
      workspace.close();
      holder.current = null;
    };
  }

  function key(event: KeyboardEvent): void {
    const { current } = holder;
    if (!current || !(event.ctrlKey || event.metaKey) || event.altKey) return;
    // Inside a field the browser's own undo is what the user means.
    if (event.target instanceof HTMLElement && event.target.closest('input:not([type=checkbox]), textarea, [contenteditable]')) return;
    const letter = event.key.toLowerCase();
    if (letter === 'z' && !event.shiftKey) current.log.undo();
    else if ((letter === 'z' && event.shiftKey) || letter === 'y') current.log.redo();
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={key} />

{#if holder.current?.fault}
  <InlineNotification kind="error" lowContrast title="The score cannot be shown:" subtitle={holder.current.fault} hideCloseButton />
{/if}
{#if holder.current?.notice}
  <div class="notice not-printed">
    <InlineNotification
      kind="info"
      lowContrast
      title=""
      subtitle={holder.current.notice}
      on:close={() => holder.current && (holder.current.notice = null)}
    />
  </div>
{/if}
{@render children()}

<style>
  .notice {
    position: fixed;
    right: 1rem;
    bottom: 1rem;
    z-index: 10;
  }
</style>
