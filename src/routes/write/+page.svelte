<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { goto, invalidate } from '$app/navigation';
  import { newId } from '$core/writing/edits';
  import { emptyWritten, type WrittenHead } from '$core/writing/written';
  import { api } from '$lib/api';
  import Act from '$lib/controls/Act.svelte';
  import { EMPTY_HEAD, headFault } from '$lib/writing/head';
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
