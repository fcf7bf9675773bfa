<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import { midi } from '$core/score/pitch';
  import { withHead, withVoice } from '$core/writing/edits';
  import { documentOf } from '$core/writing/to-tune';
  import { finished, isComplete } from '$core/writing/written';
  import { api } from '../api';
  import Act from '../controls/Act.svelte';
  import Fold from '../controls/Fold.svelte';
  import Tabs from '../frame/Tabs.svelte';
  import { roomAddress } from '../rooms';
  import { importFile } from '../shelf/import';
  import { sentenceOf } from '../workspace/latest';
  import Head from './Head.svelte';
  import { headFault } from './head';
  import PitchDesk from './PitchDesk.svelte';
  import RhythmDesk from './RhythmDesk.svelte';
  import SignDesk from './SignDesk.svelte';
  import { listed } from '$core/sentences';
  import { MidiIn } from './midi-in.svelte';
  import CutPages from './CutPages.svelte';
  import { Paper } from './paper.svelte';
  import PrintedBar from './PrintedBar.svelte';
  import { writingPlayer } from './sound';
  import type { Stage, Writing } from './writing.svelte';
  import WritingPage from './WritingPage.svelte';

  interface Props {
    writing: Writing;
    id: number;
    /** The piece that it stands on the shelf as. */
    piece: number | null;
  }
  const { writing, id, piece }: Props = $props();

  const STAGES = { rhythm: 'Rhythm', pitches: 'Pitches', signs: 'Signs' } as const;
  let page: ReturnType<typeof WritingPage> | undefined = $state();
  let sounding = $state(true);
  let shelving = $state('');
  let refused = $state('');

  // svelte-ignore state_referenced_locally -- a room keeps its writing
  const player = writingPlayer(writing);
  // svelte-ignore state_referenced_locally
  writing.heard = (pitches) => {
    if (sounding && !player.playing) void player.chords([pitches.map(midi)]);
  };
  // svelte-ignore state_referenced_locally
  const midiIn = new MidiIn(writing);
  $effect(() => () => (player.close(), midiIn.close()));

  // svelte-ignore state_referenced_locally
  const paper = new Paper(id);
  void paper.open();
  let chooser: HTMLInputElement;
  let cutting = $state(false);
  async function lay(files: FileList | null): Promise<void> {
    await paper.add([...(files ?? [])]);
    chooser.value = '';
  }

  const complete = $derived(writing.written.bars.filter((_, k) => isComplete(writing.written, k)).length);
  const lanes = $derived(writing.written.lanes);
  const staves = $derived(writing.written.head.clefs.length);
  const laneName = (k: number): string => {
    const { staff, voice } = lanes[k];
    const many = lanes.filter((l) => l.staff === staff).length > 1;
    return [staves > 1 ? (staff === 1 ? 'upper staff' : 'lower staff') : '', many ? (voice === 1 ? 'upper voice' : 'lower voice') : '']
      .filter(Boolean)
      .join(', ');
  };

  /** An empty bar at the end is not printed. */
  async function shelve(): Promise<void> {
    refused = headFault(writing.written.head) ?? writing.faults[0] ?? '';
    if (refused) return;
    try {
      const name = writing.written.head.title.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'score';
      const file = new File([documentOf(finished(writing.written))], `${name}.musicxml`, {
        type: 'application/vnd.recordare.musicxml+xml'
      });
      const taken = await importFile(file, { again: true }, ({ stage }) => (shelving = stage));
      if (!('pieces' in taken)) return;
      await api.shelveWriting(id, taken.pieces[0]);
      await goto(`/pieces/${taken.pieces[0]}/survey`);
    } catch (error) {
      refused = sentenceOf(error);
    } finally {
      shelving = '';
    }
  }

  /** The piece on the shelf follows what is written; its readings stay. */
  async function correct(): Promise<void> {
    refused = headFault(writing.written.head) ?? writing.faults[0] ?? '';
    if (refused) return;
    shelving = 'correcting';
    try {
      await api.correctPiece(id);
      await goto(roomAddress(piece!, 'reading'));
    } catch (error) {
      refused = sentenceOf(error);
    } finally {
      shelving = '';
    }
  }

  const focus = (): void => page?.focus();

  function key(event: KeyboardEvent): void {
    if (event.defaultPrevented || !(event.target instanceof HTMLElement)) return;
    if (event.target.closest('input, textarea, select, [role=dialog], [role=application]')) return;
    // From anywhere in the room keys go to the page, but what presses a button stays with it.
    if (event.key === 'Enter' || event.key === ' ' || event.key === 'Tab' || event.target.getAttribute('role') === 'tab') return;
    if (writing.key(event)) {
      event.preventDefault();
      focus();
    }
  }
</script>

<svelte:window onkeydown={key} />

<div class="room">
  <section class="desk" aria-label="What is written">
    <header>
      <h1>{writing.written.head.title}</h1>
      <span class="quiet" role="status" data-testid="saved"
        >{writing.saving.state === 'saved'
          ? 'all saved'
          : writing.saving.state === 'saving'
            ? 'saving …'
            : `not saved yet; kept here${writing.saving.state === 'waiting' ? ' and tried again' : ''}. ${writing.saving.why}`}</span
      >
    </header>
    {#if writing.saving.theirs}
      <p role="alert">
        This score was changed in another window.
        <Act onclick={() => writing.saving.resolve(writing.written)}>go on with what is here</Act>
        <Act
          onclick={() => {
            const theirs = writing.saving.theirs!;
            writing.written = theirs.content;
            writing.goTo({ bar: theirs.content.bars.length - 1, lane: 0, at: 0 });
            writing.saving.resolve(theirs.content);
          }}>take what was written there</Act
        >
      </p>
    {/if}
    <p class="row">
      <Act disabled={!writing.canUndo} onclick={() => (writing.undo(), focus())} title="Ctrl and Z">Undo</Act>
      <Act disabled={!writing.canRedo} onclick={() => (writing.redo(), focus())} title="Ctrl and Y">Redo</Act>
      <Act onclick={() => void player.toggle()}>{player.playing ? 'stop' : 'hear it from this bar'}</Act>
      {#if midiIn.heard}<span class="quiet" data-testid="midi-in"
          >{midiIn.heard.length ? `hears ${listed(midiIn.heard)}` : 'no MIDI instrument is connected'}</span
        >{:else}<Act onclick={() => void midiIn.listen()}>play in with a MIDI instrument</Act>{/if}
      <Act onclick={() => (sounding = !sounding)} aria-pressed={sounding}>{sounding ? 'notes sound' : 'notes are silent'}</Act>
    </p>
    {#if lanes.length > 1 || staves > 1}
      <p class="row">
        <span class="quiet">Writing in</span>
        {#each lanes as _, k (k)}<Act
            aria-pressed={writing.place.lane === k}
            onclick={() => (writing.goTo({ bar: writing.place.bar, lane: k, at: 0 }), focus())}>{laneName(k) || 'the staff'}</Act
          >{/each}
      </p>
    {/if}
    <Tabs tabs={STAGES} bind:tab={() => writing.stage, (stage: Stage) => writing.enter(stage)} label="What is done at this bar">
      {#if writing.stage === 'rhythm'}<RhythmDesk {writing} ondone={focus} />
      {:else if writing.stage === 'pitches'}<PitchDesk {writing} ondone={focus} />
      {:else}<SignDesk {writing} ondone={focus} />{/if}
    </Tabs>
    {#if midiIn.refused}<p class="wrong" role="alert">{midiIn.refused}</p>{/if}
    {#if writing.refused}<p class="wrong" role="alert">{writing.refused}</p>{/if}
    {#each writing.faults as fault (fault)}<p class="wrong" data-testid="bar-fault">{fault}</p>{/each}
    <Fold label="Head of the piece, voices">
      <Head head={writing.written.head} begun onchange={(part) => writing.change(withHead(writing.written, part))} />
      {#each { length: staves } as _, k (k)}
        <Act onclick={() => writing.change(withVoice(writing.written, k + 1))}
          >{lanes.some((l) => l.staff === k + 1 && l.voice === 2) ? 'without' : 'with'} a second voice{staves > 1
            ? ` on the ${k ? 'lower' : 'upper'} staff`
            : ''}</Act
        >
      {/each}
    </Fold>
    <footer>
      <p class="quiet">{complete} of {writing.written.bars.length} bars stand.</p>
      {#if refused}<p class="wrong" role="alert">{refused}</p>{/if}
      {#if piece !== null}
        <Button size="small" disabled={!complete || shelving !== '' || writing.saving.state !== 'saved'} on:click={() => void correct()}
          >Correct the piece on the shelf</Button
        >
      {/if}
      <Button
        size="small"
        kind={piece === null ? 'primary' : 'ghost'}
        disabled={!complete || shelving !== ''}
        on:click={() => void shelve()}>{shelving || (piece === null ? 'Put it on the shelf' : 'as a piece of its own')}</Button
      >
    </footer>
  </section>
  <section class="page" aria-label="The page">
    <p class="row">
      <input
        bind:this={chooser}
        type="file"
        accept=".png,.jpg,.jpeg,.pdf,image/png,image/jpeg,application/pdf"
        multiple
        hidden
        onchange={(e) => void lay(e.currentTarget.files)}
        data-testid="paper-chooser"
      />
      {#if paper.progress}<span role="status" data-testid="paper-progress">{paper.progress}</span>{:else}<Act
          onclick={() => chooser.click()}
          >{paper.pages.length ? 'lay more pages beside it' : 'lay a photo or PDF of the page beside it'}</Act
        >{/if}
      {#if paper.pages.length}
        <Act aria-pressed={cutting} onclick={() => (cutting = !cutting)}>{cutting ? 'go on writing' : 'how the pages are cut'}</Act>
        <span class="quiet">{paper.regions.length} bars on paper</span>
      {/if}
    </p>
    {#if paper.refused}<p class="wrong" role="alert">{paper.refused}</p>{/if}
    {#if cutting && paper.pages.length}
      <CutPages {paper} />
    {:else}
      {#if paper.regions[writing.place.bar]}
        <PrintedBar writing={id} pages={paper.pages} region={paper.regions[writing.place.bar]} name={writing.barName} />
      {/if}
      <WritingPage bind:this={page} {writing} />
    {/if}
  </section>
</div>

<style>
  .room {
    height: 100%;
    display: grid;
    grid-template-columns: minmax(20rem, 26rem) minmax(0, 1fr);
  }

  .desk {
    display: flex;
    flex-direction: column;
    gap: 0.4rem;
    padding: 0.8rem 1rem;
    overflow-y: auto;
    background: var(--panel);
    border-right: 1px solid var(--line);
  }

  .page {
    overflow-y: auto;
    padding: 0.8rem 1rem;
  }

  header {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1rem;
    align-items: baseline;
    justify-content: space-between;
  }

  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
  }

  .desk :global(.act[aria-pressed='true']) {
    font-weight: 700;
  }

  .wrong {
    color: var(--edition);
  }

  footer {
    margin-top: auto;
    padding-top: 0.6rem;
  }

  @media (max-width: 900px) {
    .room {
      display: block;
      overflow-y: auto;
    }
  }
</style>
