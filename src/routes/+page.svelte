<script lang="ts">
  import { LIMITS } from '$core/style/limits';
  import { goto, invalidate } from '$app/navigation';
  import { Button, InlineLoading, InlineNotification, Modal } from 'carbon-components-svelte';
  import { api } from '$lib/api';
  import { importFile, type Imported, type ImportProgress } from '$lib/shelf/import';
  import ImportQuestion from '$lib/shelf/ImportQuestion.svelte';
  import PieceCard from '$lib/shelf/PieceCard.svelte';
  import type { ImportAnswers, Shelf } from '$lib/shapes';
  import { sentenceOf } from '$lib/workspace/latest';

  const { data } = $props();

  /** Portions that were asked for after the first. */
  let further = $state.raw<Shelf[]>([]);
  const pieces = $derived([data, ...further].flatMap((portion) => portion.pieces));
  const more = $derived((further.at(-1) ?? data).more);
  $effect(() => {
    // After a change the shelf begins anew.
    void data;
    further = [];
  });

  async function showMore(): Promise<void> {
    try {
      further = [...further, await api.shelfAfter(pieces[pieces.length - 1].id)];
    } catch (error) {
      refused = { name: '', message: sentenceOf(error) };
    }
  }

  let chooser: HTMLInputElement;
  let over = $state(false);
  let progress = $state<ImportProgress | null>(null);
  let refused = $state<{ name: string; message: string } | null>(null);
  let asked = $state.raw<{ file: File; about: Exclude<Imported, { pieces: number[] }>; answer: (a: ImportAnswers | null) => void } | null>(
    null
  );
  let stop: AbortController | null = null;
  let leaving = $state<{ id: number; title: string } | null>(null);

  /** Puts one file on the shelf, with what has to be said before. @returns the new pieces */
  async function takeOne(file: File, answers: ImportAnswers = {}): Promise<number[]> {
    progress = { name: file.name, stage: 'sending', sent: 0 };
    stop = new AbortController();
    const about = await importFile(file, answers, (p) => (progress = p), stop.signal);
    if ('pieces' in about) return about.pieces;
    progress = null;
    const said = await new Promise<ImportAnswers | null>((answer) => (asked = { file, about, answer }));
    asked = null;
    return said ? takeOne(file, { ...answers, ...said }) : [];
  }

  async function take(files: FileList | null): Promise<void> {
    const list = [...(files ?? [])];
    if (!list.length || progress || asked) return;
    refused = null;
    const made: number[] = [];
    for (const file of list) {
      try {
        made.push(...(await takeOne(file)));
      } catch (error) {
        refused = { name: file.name, message: sentenceOf(error) };
      }
    }
    progress = null;
    chooser.value = '';
    await invalidate('nuvelo:shelf');
    if (made.length === 1 && list.length === 1) await goto(`/pieces/${made[0]}/survey`);
  }

  async function remove(): Promise<void> {
    if (!leaving) return;
    const { id } = leaving;
    leaving = null;
    try {
      await api.removePiece(id);
    } catch (error) {
      refused = { name: '', message: sentenceOf(error) };
    }
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
      {data.shelf === 1 ? 'One piece' : `${data.shelf} pieces`}. Drop a score anywhere on this page, or choose one.
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
      <Button size="small" kind="ghost" on:click={() => stop?.abort()}>Stop</Button>
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

  {#if pieces.length}
    <ul>
      {#each pieces as piece (piece.id)}
        <PieceCard {piece} onremove={() => (leaving = { id: piece.id, title: piece.title })} />
      {/each}
    </ul>
    <div class="below">
      {#if more}<Button size="small" kind="tertiary" on:click={() => void showMore()}>Show {data.shelf - pieces.length} more</Button>{/if}
    </div>
  {:else}
    <div class="empty">
      <h2>The shelf is empty</h2>
      <p>
        Import a score as MusicXML (.musicxml, .xml, .mxl) or ABC (.abc), or the archive of a piece (.json). Nuvelo keeps it as it is;
        everything that you add is kept beside it.
      </p>
    </div>
  {/if}
  <footer class="quiet">
    {#if data.bin}<a href="/bin">Bin ({data.bin})</a>{/if}
    {#if data.shelf + data.bin}<a href={api.allArchivesAddress} download>All pieces as one file</a>{/if}
  </footer>
</div>

{#if asked}<ImportQuestion file={asked.file.name} asked={asked.about} onanswer={asked.answer} />{/if}

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
  <p>It lies in the bin for {LIMITS.binDays} days with all its readings and editions, and can be taken back from there.</p>
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
    display: flex;
    align-items: center;
    gap: 1rem;
    padding: 0.5rem 0;
  }

  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 22rem), 1fr));
    gap: 1rem;
  }

  .below {
    padding-top: 1rem;
  }

  footer {
    display: flex;
    gap: 1.25rem;
    padding-top: 1.5rem;
  }

  .empty {
    padding: 4rem 0;
    max-width: 36rem;
  }
</style>
