<script lang="ts">
  import Words from '$lib/controls/Words.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { invalidateAll } from '$app/navigation';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import { api } from '../api';
  import type { EditionRow } from '../shapes';

  interface Props {
    piece: number;
    reading: number;
    readings: { id: number; name: string }[];
    editions: EditionRow[];
    /** Not all that was done has been saved yet. */
    unsaved: boolean;
    oncompare: (a: string, b: string) => void;
  }
  const { piece, reading, readings, editions, unsaved, oncompare }: Props = $props();

  let note = $state('');
  let stage = $state<string | null>(null);
  let fault = $state('');
  const states = $derived([
    ...readings.map((r) => ({ key: `reading-${r.id}`, name: r.name })),
    ...editions.map((e) => ({ key: `edition-${e.id}`, name: `Edition ${e.number}` }))
  ]);
  let chosen = $state<[string, string] | null>(null);
  /** Usually what was last frozen against what there is now. */
  const pair = $derived<[string, string]>(
    chosen ?? [states.filter((s) => s.key !== `reading-${reading}`).at(-1)?.key ?? `reading-${reading}`, `reading-${reading}`]
  );

  async function freeze(): Promise<void> {
    stage = 'beginning';
    fault = '';
    try {
      for await (const line of api.freeze(reading, note)) {
        if ('stage' in line) stage = line.stage;
        else note = '';
      }
      await invalidateAll();
    } catch (e) {
      fault = e instanceof Error ? e.message : 'The edition could not be frozen.';
    } finally {
      stage = null;
    }
  }

  const date = (seconds: number): string => new Date(seconds * 1000).toISOString().slice(0, 10);
</script>

<section>
  <h3>Freeze an edition</h3>
  <p class="quiet">It gets the next number and stays as it is now, whatever is changed later.</p>
  <Words label="Note" rows={2} maxlength={500} bind:value={note} placeholder="for the jury, second print …" />
  <Button size="small" kind="tertiary" disabled={unsaved || stage !== null} on:click={freeze}
    >Freeze as edition {(editions.at(-1)?.number ?? 0) + 1}</Button
  >
  {#if stage}<p class="quiet" role="status">{stage} …</p>{/if}
  {#if fault}<p role="alert">{fault}</p>{/if}
</section>

<section>
  <h3>Frozen editions</h3>
  {#each editions as e (e.id)}
    <div class="edition" data-testid="edition">
      <strong>Edition {e.number}</strong>, {date(e.createdAt)}, of “{e.readingName}”
      {#if e.note}<p>{e.note}</p>{/if}
      <p>
        <a href={api.fileAddress('edition', e.id, 'pdf')} download>PDF</a> ·
        <a href={api.fileAddress('edition', e.id, 'musicxml')} download>MusicXML</a>
        ·
        <a href={api.fileAddress('edition', e.id, 'mei')} download>MEI</a>
        · <a href={api.fileAddress('edition', e.id, 'html')} download>Text</a>
      </p>
    </div>
  {:else}
    <p class="quiet">None yet.</p>
  {/each}
</section>

<section>
  <h3>Compare</h3>
  {#if states.length < 2}
    <p class="quiet">Freeze an edition or make a second reading, and the two can be compared bar by bar.</p>
  {:else}
    <Choice label="From" value={pair[0]} onchange={(value) => (chosen = [value, pair[1]])} aria-label="Compare from"
      >{#each states as s (s.key)}<SelectItem value={s.key} text={s.name} />{/each}</Choice
    >
    <Choice label="to" value={pair[1]} onchange={(value) => (chosen = [pair[0], value])} aria-label="Compare to"
      >{#each states as s (s.key)}<SelectItem value={s.key} text={s.name} />{/each}</Choice
    >
    <Button size="small" kind="tertiary" disabled={unsaved || pair[0] === pair[1]} on:click={() => oncompare(...pair)}>Compare</Button>
  {/if}
</section>

<section>
  <h3>Archive</h3>
  <p>
    <a href={api.archiveAddress(piece)} download data-testid="archive">All of this piece as one file</a>
    <span class="quiet">: sources, readings with every act, editions. Another Nuvelo takes it in like a score.</span>
  </p>
</section>

<style>
  section {
    padding-top: 0.8rem;
  }

  .edition {
    padding: 0.35rem 0;
    border-bottom: 1px solid var(--line);
  }
</style>
