<script lang="ts">
  import { LIMITS } from '$core/style/limits';
  import { goto, invalidate } from '$app/navigation';
  import { Button, InlineLoading, InlineNotification } from 'carbon-components-svelte';
  import Act from '$lib/controls/Act.svelte';
  import { api } from '$lib/api';
  import { importFile, type Imported, type ImportProgress } from '$lib/shelf/import';
  import ImportQuestion from '$lib/shelf/ImportQuestion.svelte';
  import { ALL, found, type Wanted } from '$lib/shelf/find';
  import Finder from '$lib/shelf/Finder.svelte';
  import PieceCard from '$lib/shelf/PieceCard.svelte';
  import type { ImportAnswers } from '$lib/shapes';
  import { sentenceOf } from '$lib/workspace/latest';

  const { data } = $props();

  /** Cards that are drawn at once; more are drawn when asked for. */
  const PORTION = 60;
  let wanted = $state<Wanted>({ ...ALL });
  let most = $state(PORTION);
  const matching = $derived(found(data.pieces, wanted));
  const groups = $derived([...new Set(data.pieces.flatMap((p) => p.group ?? []))].sort());
  const now = Date.now() / 1000;
  $effect(() => {
    // Another search begins with its first cards.
    void JSON.stringify(wanted);
    most = PORTION;
  });

  let chooser: HTMLInputElement;
  let over = $state(false);
  let progress = $state<ImportProgress | null>(null);
  /** Which of several files is being taken in. */
  let place = $state('');
  let refused = $state.raw<{ name: string; message: string }[]>([]);
  /** What was taken off the shelf last, and can be taken back at once. */
  let binned = $state.raw<{ id: number; title: string } | null>(null);
  let asked = $state.raw<{ file: File; about: Exclude<Imported, { pieces: number[] }>; answer: (a: ImportAnswers | null) => void } | null>(
    null
  );
  let stop: AbortController | null = null;

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
    refused = [];
    const made: number[] = [];
    for (const [k, file] of list.entries()) {
      place = list.length > 1 ? `${k + 1} of ${list.length}, ` : '';
      try {
        made.push(...(await takeOne(file)));
      } catch (error) {
        refused = [...refused, { name: file.name, message: sentenceOf(error) }];
      }
    }
    progress = null;
    chooser.value = '';
    await invalidate('nuvelo:shelf');
    if (made.length === 1 && list.length === 1) await goto(`/pieces/${made[0]}/survey`);
  }

  /** Does something with the shelf and shows what has come of it. */
  async function change(act: () => Promise<unknown>): Promise<boolean> {
    try {
      await act();
      return true;
    } catch (error) {
      refused = [{ name: '', message: sentenceOf(error) }];
      return false;
    } finally {
      await invalidate('nuvelo:shelf');
    }
  }

  async function remove(piece: { id: number; title: string }): Promise<void> {
    if (await change(() => api.removePiece(piece.id))) binned = { id: piece.id, title: piece.title };
  }

  async function takeBack(): Promise<void> {
    const { id } = binned!;
    binned = null;
    await change(() => api.takeBack(id));
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
      <InlineLoading
        description="{place}{progress.name}: {progress.stage}{progress.sent < 1 ? ` ${Math.round(progress.sent * 100)} %` : ''}"
      />
      <Button size="small" kind="ghost" on:click={() => stop?.abort()}>Stop</Button>
    </div>
  {/if}
  {#each refused as { name, message }, k (k)}
    <InlineNotification
      kind="error"
      lowContrast
      title={name ? `${name}:` : ''}
      subtitle={message}
      on:close={() => (refused = refused.filter((_, i) => i !== k))}
    />
  {/each}
  {#if binned}
    <p class="binned" role="status">
      “{binned.title}” lies in the bin for {LIMITS.binDays} days, with all its readings and editions.
      <Act onclick={() => void takeBack()}>Take it back</Act>
    </p>
  {/if}

  {#if data.pieces.length}
    <Finder pieces={data.pieces} bind:wanted />
    <datalist id="groups"
      >{#each groups as g (g)}<option value={g}></option>{/each}</datalist
    >
    <ul>
      {#each matching.slice(0, most) as piece (piece.id)}
        <PieceCard
          {piece}
          {groups}
          {now}
          onremove={() => void remove(piece)}
          ongroup={(group) => void change(() => api.moveToGroup(piece.id, group))}
        />
      {/each}
    </ul>
    {#if !matching.length}<p class="quiet">Nothing on the shelf is like that. “Show all” takes the search back.</p>{/if}
    <div class="below">
      {#if matching.length > most}<Button size="small" kind="tertiary" on:click={() => (most += PORTION)}
          >Show {matching.length - most} more</Button
        >{/if}
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
    {#if data.pieces.length + data.bin}<a href={api.allArchivesAddress} download>All pieces as one file</a>{/if}
  </footer>
</div>

{#if asked}<ImportQuestion file={asked.file.name} asked={asked.about} onanswer={asked.answer} />{/if}

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

  .binned {
    padding: 0.5rem 0.8rem;
    margin-bottom: 0.8rem;
    border-left: 3px solid var(--edition);
    background: var(--raised);
  }

  .empty {
    padding: 4rem 0;
    max-width: 36rem;
  }
</style>
