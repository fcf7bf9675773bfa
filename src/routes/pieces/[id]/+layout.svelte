<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { Button, InlineNotification } from 'carbon-components-svelte';
  import type { Command } from '$core/reading/commands/index';
  import { advanced, AT_THE_BEGINNING, describe } from '$core/reading/log';
  import { LIMITS } from '$core/style/limits';
  import { invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { api } from '$lib/api';
  import { saveFile } from '$lib/save-file';
  import { provideWorkspace } from '$lib/workspace/context';
  import { sentenceOf } from '$lib/workspace/latest';
  import { undoKey } from '$lib/undo.svelte';
  import { Workspace } from '$lib/workspace/workspace.svelte';

  const { data, children } = $props();

  const holder = $state<{ current: Workspace | null }>({ current: null });
  provideWorkspace(holder);

  // A piece opened from another piece, or in another history, gets a workspace of its own.
  const which = $derived(`${data.workspace.readingId} ${data.workspace.history}`);
  $effect(() => {
    void which;
    return untrack(open);
  });

  const unsent = $derived(holder.current?.log.saving.unsent ?? []);
  /** What of it can be added: acts that undo others mean nothing behind acts that they do not know. */
  const addable = $derived(advanced(AT_THE_BEGINNING, unsent).done.flatMap((c) => (c.type === 'together' ? c.commands : [c])));
  const stopped = $derived(holder.current?.log.saving.state === 'stopped');
  /** Why the page could not be fetched anew. */
  let why = $state('');

  /** Puts what could not be saved behind what the reading is now, as one act that can be undone. */
  async function putOn(): Promise<void> {
    const own = $state.snapshot(addable) as Command[];
    const before = holder.current;
    try {
      if (stopped) await invalidateAll();
      await tick();
      if (!holder.current || (stopped && holder.current === before)) throw new Error('The reading is not there any more.');
      if (own.length) holder.current.act({ type: 'together', what: 'what had not been saved', commands: own.slice(0, LIMITS.together) });
      holder.current.log.saving.settleUnsent();
    } catch (error) {
      why = sentenceOf(error);
    }
  }

  function keepAsFile(): void {
    saveFile(JSON.stringify(unsent, null, 1), 'not-saved.json', 'application/json');
  }

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
</script>

<svelte:window onkeydown={(event) => holder.current && undoKey(event, holder.current.log)} />
<svelte:head>
  <!-- Asked for while the page itself is still being read, the music first. -->
  <link
    rel="preload"
    as="image"
    fetchpriority="high"
    media="(min-width: 761px)"
    href={api.pictureAddress(data.workspace.sourceHash, data.workspace.engine, 'wide')}
  />
  <link rel="preload" as="fetch" crossorigin="anonymous" href={api.factsAddress(data.workspace.sourceHash, data.workspace.engine)} />
</svelte:head>

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
{#if holder.current && (stopped || unsent.length)}
  <div class="unsent not-printed" role="alert" data-testid="unsent">
    <p>
      {#if stopped}<strong>Nothing more is saved from this window.</strong> {holder.current.log.saving.why}{/if}
      {#if unsent.length}
        {unsent.length === 1 ? 'One change was' : `${unsent.length} changes were`} never saved{stopped
          ? ''
          : ' because the server went on from a backup'}: {unsent.slice(0, 3).map(describe).join(', ')}{unsent.length > 3 ? ' …' : '.'}
      {/if}
      {why}
    </p>
    {#if addable.length}
      <Button size="small" on:click={() => void putOn()}>Add to the reading as it is now</Button>
      <Button size="small" kind="tertiary" on:click={keepAsFile}>Keep as a file</Button>
      <Button size="small" kind="ghost" on:click={() => holder.current?.log.saving.settleUnsent()}>Let go</Button>
    {:else}
      <Button size="small" on:click={() => (holder.current?.log.saving.settleUnsent(), location.reload())}>Open as it is now</Button>
    {/if}
  </div>
{/if}
{@render children()}

<style>
  .unsent {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 0.75rem;
    padding: 0.6rem 1rem;
    border-bottom: 2px solid var(--edition);
    background: var(--raised);
  }

  .unsent p {
    flex: 1;
    min-width: 16rem;
  }

  .notice {
    position: fixed;
    right: 1rem;
    bottom: 1rem;
    z-index: 10;
  }
</style>
