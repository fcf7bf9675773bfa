<script lang="ts">
  import AbcSigns from '$lib/typing/AbcSigns.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import Words from '$lib/controls/Words.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { Button } from 'carbon-components-svelte';
  import { forget, keep, kept } from '$lib/kept';
  import { screenSystems } from '$core/edition/screen';
  import type { SetChunk } from '$core/edition/systems';
  import SystemView from '$lib/music/SystemView.svelte';
  import { sharedEngraver } from '$lib/music/engraver';
  import { importFile } from '$lib/shelf/import';
  import { sentenceOf } from '$lib/workspace/latest';
  import { EXAMPLE, readTune, type TuneReading } from '$lib/typing/read-tune';

  /** Pause after the last keystroke before the tune is read again. */
  const PAUSE_MS = 150;
  const DRAFT = 'nuvelo-typed-tune';

  let field = $state<HTMLTextAreaElement | null>(null);
  let text = $state('');
  let reading = $state.raw<TuneReading | null>(null);
  /** What is drawn: the last text that could be read. */
  let chunks = $state.raw<SetChunk[]>([]);
  let version = $state(0);
  let width = $state(0);
  let busy = $state(false);
  let refused = $state('');
  let unkept = $state(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const options = $derived({ line, size: 1, sounding: false, version });

  onMount(() => {
    text = kept(DRAFT) ?? EXAMPLE;
    const other = (e: StorageEvent) => {
      // The other window's text is taken over only where nothing is being typed.
      if (e.key === DRAFT && e.newValue !== null && document.activeElement !== field) {
        text = e.newValue;
        read();
      }
    };
    addEventListener('storage', other);
    return () => removeEventListener('storage', other);
  });

  $effect(() => {
    if (line && !reading && text) read();
  });

  function typed(): void {
    unkept = !keep(DRAFT, text);
    clearTimeout(timer);
    timer = setTimeout(read, PAUSE_MS);
  }

  function read(): void {
    reading = readTune(text);
    if (!reading.ok) return;
    sharedEngraver().open(reading.document, reading.score);
    chunks = screenSystems(reading.score, [], line);
    version++;
  }

  function goToFault(): void {
    if (!reading || reading.ok || !reading.at) return;
    field?.focus();
    field?.setSelectionRange(reading.at.offset, reading.at.offset + 1);
  }

  async function shelve(): Promise<void> {
    read();
    if (!reading?.ok) return goToFault();
    busy = true;
    refused = '';
    try {
      const name = (reading.score.title || 'tune').replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'tune';
      const taken = await importFile(new File([text], `${name}.abc`), { again: true, tunes: [0] }, () => {});
      if (!('pieces' in taken)) return;
      forget(DRAFT);
      await goto(`/pieces/${taken.pieces[0]}/survey`);
    } catch (error) {
      refused = sentenceOf(error);
    } finally {
      busy = false;
    }
  }
</script>

<svelte:head><title>Type a tune · Nuvelo</title></svelte:head>

<div class="room">
  <section class="source" aria-label="The tune as text">
    <header>
      <h1>Type a tune</h1>
      <Button size="small" disabled={busy || !text.trim()} on:click={() => void shelve()}>Put it on the shelf</Button>
    </header>
    <Words
      label="In ABC: a header that ends with K:, then the notes. What you type is kept in this browser."
      bind:ref={field}
      bind:value={text}
      oninput={typed}
      spellcheck="false"
      autocomplete="off"
      data-testid="tune"
    />
    <div class="fault" role="status" aria-live="polite" data-testid="tune-fault">
      {#if reading && !reading.ok}
        <p>{reading.message}</p>
        {#if reading.at}
          <pre aria-hidden="true">{reading.at.text.slice(0, Math.max(0, reading.at.column - 1))}<mark
              >{reading.at.text[reading.at.column - 1] ?? ' '}</mark
            >{reading.at.text.slice(reading.at.column)}</pre>
          <Act onclick={goToFault}>Go to the character</Act>
        {/if}
      {:else if reading?.ok}
        <p class="quiet">
          {reading.score.measures.length} bars, {reading.score.notes.filter((n) => !n.rest).length} notes{#each reading.score.remarks as remark, k (k)};
            {remark.text}{/each}
        </p>
        {#each reading.faults as fault (fault)}<p data-testid="tune-bar-fault">{fault}</p>{/each}
      {/if}
      {#if refused}<p>{refused}</p>{/if}
      {#if unkept}<p>This browser keeps nothing more for Nuvelo: put the tune on the shelf before you close this window.</p>{/if}
    </div>
    <Fold label="The signs in short"><AbcSigns header /></Fold>
  </section>
  <section class="page" aria-label="The tune engraved" bind:clientWidth={width} class:stale={reading !== null && !reading.ok}>
    {#if chunks.length}
      {#each chunks as chunk (chunk.from)}
        <SystemView engraver={sharedEngraver()} {chunk} {options} markings={[]} rows={[]} eager reserve={110} />
      {/each}
    {:else}<p class="quiet">What you type is engraved here as soon as it can be read.</p>{/if}
  </section>
</div>

<style>
  .room {
    height: 100%;
    display: grid;
    grid-template-columns: minmax(22rem, 2fr) 3fr;
  }

  .source {
    display: flex;
    flex-direction: column;
    gap: 0.4rem;
    padding: 1rem;
    background: var(--panel);
    border-right: 1px solid var(--line);
    overflow-y: auto;
  }

  header {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
  }

  .fault {
    min-height: 3.4rem;
  }

  pre {
    margin: 0.2rem 0;
    overflow-x: auto;
  }

  mark {
    background: var(--edition);
    color: var(--paper);
  }

  .page {
    overflow-y: auto;
    padding: 1rem 1.25rem;
  }

  .stale {
    opacity: 0.55;
  }

  @media (max-width: 800px) {
    .room {
      grid-template-columns: 1fr;
      overflow-y: auto;
    }
  }
</style>
