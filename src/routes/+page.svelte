<script lang="ts">
  import { goto, invalidate } from '$app/navigation';
  import { Button, InlineLoading, InlineNotification, Modal } from 'carbon-components-svelte';
  import { importFile, type ImportProgress } from '$lib/shelf/import';

  const { data } = $props();

  let chooser: HTMLInputElement;
  let over = $state(false);
  let progress = $state<ImportProgress | null>(null);
  let refused = $state<{ name: string; message: string } | null>(null);
  let stop: AbortController | null = null;
  let leaving = $state<{ id: number; title: string } | null>(null);

  async function take(files: FileList | null): Promise<void> {
    const list = [...(files ?? [])];
    if (!list.length || progress) return;
    refused = null;
    let piece: number | null = null;
    for (const file of list) {
      try {
        progress = { name: file.name, stage: 'sending', sent: 0 };
        stop = new AbortController();
        piece = await importFile(file, (p) => (progress = p), stop.signal);
      } catch (error) {
        refused = { name: file.name, message: error instanceof Error ? error.message : 'The file was not taken.' };
      }
    }
    progress = null;
    chooser.value = '';
    await invalidate('nuvelo:shelf');
    if (piece !== null && list.length === 1) await goto(`/pieces/${piece}/survey`);
  }

  async function remove(): Promise<void> {
    if (!leaving) return;
    const { id } = leaving;
    leaving = null;
    const response = await fetch(`/api/pieces/${id}`, { method: 'DELETE' }).catch(() => null);
    if (!response?.ok) refused = { name: '', message: 'The piece could not be taken off the shelf.' };
    await invalidate('nuvelo:shelf');
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions (dropping is an addition to the button) -->
<div
  class="shelf"
  class:over
  ondragover={(e) => (e.preventDefault(), (over = true))}
  ondragleave={() => (over = false)}
  ondrop={(e) => (e.preventDefault(), (over = false), void take(e.dataTransfer?.files ?? null))}
>
  <header>
    <h1>Shelf</h1>
    <p class="quiet">
      {data.pieces.length === 1 ? 'One piece' : `${data.pieces.length} pieces`}. Drop a score anywhere on this page, or choose one.
    </p>
    <input
      bind:this={chooser}
      type="file"
      accept=".musicxml,.xml,.mxl,.abc,.json"
      multiple
      hidden
      onchange={(e) => void take(e.currentTarget.files)}
      data-testid="chooser"
    />
    <Button size="small" disabled={progress !== null} on:click={() => chooser.click()}>Import a score</Button>
  </header>

  {#if progress}
    <div class="progress">
      <InlineLoading description="{progress.name}: {progress.stage}{progress.sent < 1 ? ` ${Math.round(progress.sent * 100)} %` : ''}" />
      <button class="bar-link" onclick={() => stop?.abort()}>Stop</button>
    </div>
  {/if}
  {#if refused}
    <InlineNotification
      kind="error"
      lowContrast
      title={refused.name ? `${refused.name}:` : ''}
      subtitle={refused.message}
      on:close={() => (refused = null)}
    />
  {/if}

  {#if data.pieces.length}
    <ul>
      {#each data.pieces as piece (piece.id)}
        <li>
          <a href="/pieces/{piece.id}/reading" class="card">
            <h2>{piece.title}</h2>
            <p>{piece.composer || 'composer not given'}</p>
            <p class="quiet">{[piece.instrument, `${piece.bars} bars`].filter(Boolean).join(' · ')}</p>
          </a>
          <div class="rooms">
            <a href="/pieces/{piece.id}/survey">Survey</a>
            <a href="/pieces/{piece.id}/structure">Structure</a>
            <a href="/pieces/{piece.id}/reading">Reading</a>
            <a href="/pieces/{piece.id}/hearing">Hearing</a>
            <a href="/pieces/{piece.id}/proof">Proof</a>
            <a href="/pieces/{piece.id}/press">Press</a>
            <button class="bar-link" onclick={() => (leaving = { id: piece.id, title: piece.title })}>Take off</button>
          </div>
        </li>
      {/each}
    </ul>
  {:else}
    <div class="empty">
      <h2>The shelf is empty</h2>
      <p>
        Import a score as MusicXML (.musicxml, .xml, .mxl) or ABC (.abc), or the archive of a piece (.json). Nuvelo keeps it as it is;
        everything that you add is kept beside it.
      </p>
    </div>
  {/if}
</div>

<Modal
  danger
  size="sm"
  open={leaving !== null}
  modalHeading="Take “{leaving?.title}” off the shelf?"
  primaryButtonText="Take it off"
  secondaryButtonText="Leave it"
  on:click:button--secondary={() => (leaving = null)}
  on:close={() => (leaving = null)}
  on:submit={remove}
>
  <p>Its reading goes with it and cannot be brought back.</p>
</Modal>

<style>
  .shelf {
    height: 100%;
    overflow-y: auto;
    padding: 1.5rem max(1rem, calc((100% - 68rem) / 2));
    box-sizing: border-box;
  }

  .over {
    background: var(--selected);
  }

  header {
    display: flex;
    align-items: baseline;
    gap: 1.25rem;
    padding-bottom: 1rem;
    flex-wrap: wrap;
  }

  header p {
    flex: 1;
  }

  .progress {
    padding: 0.5rem 0;
  }

  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(20rem, 1fr));
    gap: 1rem;
  }

  li {
    border: 1px solid var(--line);
    background: var(--raised);
    border-radius: 3px;
    display: flex;
    flex-direction: column;
  }

  .card {
    flex: 1;
    padding: 1rem 1.1rem 0.75rem;
    color: inherit;
    text-decoration: none;
  }

  .card:hover h2 {
    color: var(--edition);
  }

  .rooms {
    display: flex;
    gap: 1rem;
    padding: 0.5rem 1.1rem;
    border-top: 1px solid var(--line);
    font-size: 0.88rem;
  }

  .rooms button {
    margin-left: auto;
    color: var(--muted);
  }

  .empty {
    padding: 4rem 0;
    max-width: 36rem;
  }
</style>
