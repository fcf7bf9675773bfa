<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { goto, invalidate } from '$app/navigation';
  import { newId } from '$core/writing/edits';
  import { fromMidi, type TakenMidi } from '$core/writing/from-midi';
  import { documentOf } from '$core/writing/to-tune';
  import { EMPTY_HEAD, emptyWritten, type Written, type WrittenHead } from '$core/writing/written';
  import { api } from '$lib/api';
  import Act from '$lib/controls/Act.svelte';
  import { headFault } from '$lib/writing/head';
  import TunePreview from '$lib/writing/TunePreview.svelte';
  import Head from '$lib/writing/Head.svelte';
  import { sentenceOf } from '$lib/workspace/latest';

  const { data } = $props();

  let head = $state.raw<WrittenHead>(EMPTY_HEAD);
  let refused = $state('');
  let busy = $state(false);

  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = headFault(head) ?? '';
    if (refused) return;
    busy = true;
    try {
      const { id } = await api.beginWriting(emptyWritten(head, newId()));
      await goto(`/write/${id}`);
    } catch (error) {
      refused = sentenceOf(error);
    } finally {
      busy = false;
    }
  }

  let chooser: HTMLInputElement;
  /** A MIDI file as it would come in, to be looked at first. */
  let midi = $state.raw<TakenMidi | null>(null);

  async function look(files: FileList | null): Promise<void> {
    const file = files?.[0];
    chooser.value = '';
    refused = '';
    if (!file) return;
    try {
      midi = fromMidi(new Uint8Array(await file.arrayBuffer()), file.name.replace(/\.midi?$/i, ''));
    } catch (error) {
      midi = null;
      refused = sentenceOf(error);
    }
  }

  async function take(content: Written): Promise<void> {
    try {
      const { id } = await api.beginWriting(content);
      await goto(`/write/${id}`);
    } catch (error) {
      refused = sentenceOf(error);
    }
  }

  async function remove(id: number): Promise<void> {
    try {
      await api.removeWriting(id);
      await invalidate('nuvelo:writings');
    } catch (error) {
      refused = sentenceOf(error);
    }
  }

  let sure = $state<number | null>(null);
</script>

<svelte:head><title>Write from paper · Nuvelo</title></svelte:head>

<div class="room">
  <h1>Write from paper</h1>
  <p class="quiet">
    With the page on the desk: first the head, then bar by bar, its rhythm and then its pitches. All is saved as it happens. Who knows ABC
    may
    <a href="/type">type the tune as text</a>.
  </p>
  <form onsubmit={begin}>
    <Head {head} onchange={(part) => (head = { ...head, ...part })} />
    {#if refused}<p role="alert">{refused}</p>{/if}
    <Button type="submit" size="small" disabled={busy}>Begin to write</Button>
  </form>
  <h2>From a MIDI file</h2>
  <p class="quiet">One instrument, played to a beat. It is looked at before it is taken, and mended in the writing room.</p>
  <input
    bind:this={chooser}
    type="file"
    accept=".mid,.midi"
    hidden
    onchange={(e) => void look(e.currentTarget.files)}
    data-testid="midi-chooser"
  />
  <Button size="small" kind="tertiary" on:click={() => chooser.click()}>Choose a MIDI file</Button>
  {#if midi}
    {@const { written, remarks } = midi}
    <div class="look" data-testid="midi-look">
      <p>
        <strong>{written.head.title}</strong>: {written.bars.length}
        {written.bars.length === 1 ? 'bar' : 'bars'} in {written.head.meter}, {written.head.clefs.length === 1
          ? 'one staff'
          : 'two staves'}.
      </p>
      <ul>
        {#each remarks as remark (remark)}<li>{remark}</li>{/each}
      </ul>
      <TunePreview document={documentOf(written)} />
      <p class="row">
        <Button size="small" on:click={() => void take(written)}>Take it into the writing room</Button>
        <Act onclick={() => (midi = null)}>Leave it</Act>
      </p>
    </div>
  {/if}
  {#if data.writings.length}
    <h2>Being written</h2>
    <ul>
      {#each data.writings as w (w.id)}
        <li>
          <a href="/write/{w.id}">{w.title}</a>
          {#if w.pieceId}<span class="quiet">on the shelf</span>{/if}
          {#if sure === w.id}
            <span role="alert">Throw it away for good?</span>
            <Act onclick={() => void remove(w.id)}>Yes, throw it away</Act>
            <Act onclick={() => (sure = null)}>Keep it</Act>
          {:else}<Act onclick={() => (sure = w.id)} aria-label="Throw away {w.title}">throw away</Act>{/if}
        </li>
      {/each}
    </ul>
  {:else}<p class="quiet">Nothing is being written yet.</p>{/if}
</div>

<style>
  .room {
    height: 100%;
    overflow-y: auto;
    box-sizing: border-box;
    padding: 1.2rem max(1rem, calc((100% - 60rem) / 2));
  }

  form {
    display: grid;
    gap: 1rem;
    justify-items: start;
    padding: 1rem 0 1.5rem;
  }

  .look {
    display: grid;
    gap: 0.5rem;
    padding: 0.8rem 0;
  }

  .row {
    display: flex;
    gap: 1rem;
    align-items: baseline;
  }

  ul {
    list-style: none;
    padding: 0;
  }

  li {
    display: flex;
    gap: 1rem;
    align-items: baseline;
    padding: 0.2rem 0;
  }
</style>
