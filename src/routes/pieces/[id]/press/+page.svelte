<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { commentary, legend, preface } from '$core/edition/commentary';
  import MusicPage from '$lib/music/MusicPage.svelte';
  import Toolbar from '$lib/frame/Toolbar.svelte';
  import Menu from '$lib/frame/Menu.svelte';
  import { PAPERS, USUAL_PAGES, VARIANTS, type StaffSize, type Variant } from '$core/edition/paper';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();
  let withReasons = $state(true);
  let pages = $state({ ...USUAL_PAGES });
  let making = $state(false);
  let fault = $state('');
  const STAFF_NAMES: Record<StaffSize, string> = { small: 'small', usual: 'usual', large: 'large print' };
  const VARIANT_NAMES: Record<Variant, string> = {
    study: 'to study: with preface and commentary',
    performance: 'to play from: music alone',
    blank: 'the bare source with bar numbers'
  };

  /** Makes the PDF on the server and saves it. */
  async function savePdf(): Promise<void> {
    making = true;
    fault = '';
    try {
      const query = new URLSearchParams(Object.entries(pages).map(([k, v]) => [k, String(v)]));
      const response = await fetch(`/api/readings/${data.workspace.readingId}/pdf?${query}`);
      if (!response.ok) throw new Error(((await response.json()) as { message?: string }).message ?? 'The PDF could not be made.');
      const link = document.createElement('a');
      link.href = URL.createObjectURL(await response.blob());
      link.download = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'edition.pdf';
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    } catch (e) {
      fault = e instanceof Error ? e.message : 'The PDF could not be made.';
    } finally {
      making = false;
    }
  }

  const unsaved = $derived(holder.current?.saving.state !== 'saved');
</script>

{#if holder.current?.score}
  {@const workspace = holder.current}
  {@const score = holder.current.score}
  <div class="room-with-bar">
    <Toolbar {workspace}>
      <label><input type="checkbox" bind:checked={withReasons} /> commentary</label>
      <Button size="small" kind="tertiary" on:click={() => print()}>Print</Button>
      <Menu label="Pages">
        <label
          >what <select bind:value={pages.variant} aria-label="What is printed"
            >{#each VARIANTS as v (v)}<option value={v}>{VARIANT_NAMES[v]}</option>{/each}</select
          ></label
        >
        <label
          >paper <select bind:value={pages.paper} aria-label="Paper"
            >{#each Object.keys(PAPERS) as p (p)}<option>{p}</option>{/each}</select
          ></label
        >
        <label
          >staff <select bind:value={pages.staff} aria-label="Size of the staff"
            >{#each Object.entries(STAFF_NAMES) as [key, name] (key)}<option value={key}>{name}</option>{/each}</select
          ></label
        >
        <label><input type="checkbox" bind:checked={pages.landscape} /> landscape</label>
      </Menu>
      <Button size="small" kind="tertiary" disabled={unsaved || making} on:click={savePdf} data-testid="download-pdf"
        >{making ? 'Making the PDF …' : 'PDF'}</Button
      >
      <Button
        size="small"
        kind="tertiary"
        href={unsaved ? undefined : `/api/readings/${data.workspace.readingId}/edition`}
        disabled={unsaved}
        download
        data-testid="download">Download MusicXML</Button
      >
      <Button
        size="small"
        kind="ghost"
        href={unsaved ? undefined : `/api/readings/${data.workspace.readingId}/edition?format=mei`}
        disabled={unsaved}
        download
        data-testid="download-mei">MEI</Button
      >
      {#if fault}<span role="alert">{fault}</span>{/if}
    </Toolbar>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
    <div class="desk" role="region" aria-label="The edition" tabindex="0">
      <article class="sheet">
        <header>
          <h1>{data.piece.title}</h1>
          <p class="composer">{data.piece.composer}</p>
          <p class="quiet">{data.piece.instrument}</p>
        </header>
        <section class="preface">
          <h2>Preface</h2>
          {#each preface(score, workspace.facts, workspace.reading, `${data.piece.title}, as imported`) as paragraph, k (k)}<p>
              {paragraph}
            </p>{/each}
          <dl class="legend" aria-label="Legend">
            {#each legend(workspace.reading.markings) as line, k (k)}<dt>{line.sign}</dt>
              <dd>{line.meaning}</dd>{/each}
          </dl>
        </section>
        <section class="music-sheet"><MusicPage {workspace} markings={workspace.reading.markings} eager /></section>
        {#if withReasons}
          <section class="commentary">
            <h2>Commentary</h2>
            {#each commentary(score, workspace.reading, workspace.proposals) as entry (entry.measure)}
              <div class="entry" data-testid="commentary-entry">
                <h3>{entry.bar}</h3>
                <ul>
                  {#each entry.written as brief, k (k)}<li class="written">
                      {#if brief.to}<em>To {brief.to}:</em>{/if}
                      {brief.text}
                    </li>{/each}
                  {#each entry.lines as line, k (k)}<li>
                      <strong>{line.what}.</strong>
                      {line.because}{#if line.remark}
                        <em>To the player: {line.remark}</em>{/if}
                    </li>{/each}
                  {#each entry.notTaken as text, k (k)}<li class="quiet">{text}</li>{/each}
                </ul>
              </div>
            {:else}
              <p class="quiet">
                Nothing has been decided yet: keep proposals or add markings in the Reading room, and their reasons stand here.
              </p>
            {/each}
          </section>
        {/if}
      </article>
    </div>
  </div>
{:else}
  <p class="opening quiet">Opening the edition …</p>
{/if}

<style>
  .desk {
    overflow-y: auto;
    background: var(--line);
    padding: 1.5rem 1rem;
  }

  /* The sheet is paper in both themes: what is seen is what is printed. */
  .sheet {
    --ink: #111;
    --muted: #4a463f;
    --paper: #fff;
    --line: #cfc8ba;
    --edition: #8d3510;
    color: var(--ink);
    background: #fff;
    max-width: 52rem;
    margin: 0 auto;
    padding: 3rem 3.2rem;
    box-sizing: border-box;
  }

  header {
    text-align: center;
    padding-bottom: 1rem;
  }

  .composer {
    font-style: italic;
  }

  section {
    padding: 0.6rem 0;
  }

  .preface p {
    padding-top: 0.35rem;
    max-width: 42rem;
  }

  .legend {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 0.1rem 1.2rem;
    font-size: 0.88rem;
    margin: 0.7rem 0 0;
  }

  dt {
    font-style: italic;
  }

  dd {
    margin: 0;
  }

  .entry {
    display: grid;
    grid-template-columns: 5rem 1fr;
    padding-top: 0.45rem;
    break-inside: avoid;
  }

  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }

  .written {
    white-space: pre-line;
  }

  .opening {
    padding: 2rem;
  }

  @media (max-width: 700px) {
    .sheet {
      padding: 1rem;
    }
  }

  @media print {
    .desk {
      padding: 0;
      background: none;
      overflow: visible;
    }

    .sheet {
      max-width: none;
      padding: 0;
    }
  }
</style>
