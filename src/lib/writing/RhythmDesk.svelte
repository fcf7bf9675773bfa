<script lang="ts">
  import { nameOf, VALUES } from '$core/writing/values';
  import { rhythmOf } from '$core/writing/edits';
  import { inSigns } from '$core/analysis/words';
  import { pitchName } from '$core/score/pitch';
  import type { Sound } from '$core/writing/written';
  import Act from '../controls/Act.svelte';
  import Field from '../controls/Field.svelte';
  import Fold from '../controls/Fold.svelte';
  import AbcSigns from '../typing/AbcSigns.svelte';
  import NoteValue from './NoteValue.svelte';
  import RhythmPicture from './RhythmPicture.svelte';
  import type { Writing } from './writing.svelte';

  const { writing, ondone }: { writing: Writing; ondone: () => void } = $props();

  let beats = $state(72);
  let abc = $state('');

  const does = (act: () => void) => () => (act(), ondone());
  const type = (key: string) => does(() => void writing.typeRhythm(key));
  const lettersOf = (sounds: readonly Sound[]): string =>
    sounds
      .filter((s) => !s.grace)
      .map((s) => s.pitches.map(({ pitch }) => inSigns(pitchName(pitch)).replace(/\d+$/, '')).join('/') || 'rest')
      .join(' ');
  const values = $derived(writing.typing.values);
  const last = $derived(values.at(-1));
</script>

<section aria-label="Rhythm">
  <h2>{writing.barName}: rhythm</h2>
  <p class="typed" data-testid="rhythm">
    {#if values.length}<RhythmPicture rhythm={values} />{:else}<span class="quiet">nothing yet</span>{/if}
    {#if writing.typing.group !== null}<span class="quiet">a group is begun</span>{/if}
    {#if writing.typing.rest}<span class="quiet">the next is a rest</span>{/if}
  </p>
  <div class="values">
    {#each VALUES as { letter, name, quarters } (letter)}
      <Act onclick={type(letter)} title="key {letter.toUpperCase()}"
        ><NoteValue value={{ written: quarters, rest: false }} /><u>{name.charAt(0)}</u>{name.slice(1)}</Act
      >
    {/each}
  </div>
  <div class="values">
    <Act onclick={type('/')} title="key /">the next is a rest <kbd>/</kbd></Act>
    <Act disabled={!last} onclick={type('.')} title="key .">{last && nameOf(last.written)?.dots ? 'another dot' : 'a dot'} <kbd>.</kbd></Act
    >
    {#if writing.typing.group === null}<Act onclick={type('(')}>a group begins <kbd>(</kbd></Act>{:else}<Act onclick={type(')')}
        >the group ends <kbd>)</kbd></Act
      >{/if}
    <Act disabled={!last} onclick={type('Backspace')}>take back <kbd>Backspace</kbd></Act>
    <Act disabled={!last} onclick={does(() => writing.setRhythm(values))}>this is the bar <kbd>Enter</kbd></Act>
  </div>
  {#if writing.proposals.length && !values.length}
    <h3>Or</h3>
    <ol>
      {#each writing.proposals as proposal, k (proposal.key)}
        <li data-testid="bar-proposal">
          <Act onclick={does(() => writing.take(proposal))}><kbd>{k + 1}</kbd> {proposal.says}</Act>
          <RhythmPicture rhythm={proposal.kind === 'rhythm' ? proposal.rhythm : rhythmOf(proposal.sounds)} />
          {#if proposal.kind === 'notes'}<span class="quiet">{lettersOf(proposal.sounds)}</span>{/if}
        </li>
      {/each}
    </ol>
  {/if}
  <Fold label="Or typed as ABC">
    <Field
      label="This bar; C is middle C, the unit an eighth"
      bind:value={abc}
      placeholder="G2 A>B (c d)"
      spellcheck="false"
      onkeydown={(e: KeyboardEvent) => {
        if (e.key === 'Enter' && writing.typeAbc(abc)) {
          abc = '';
          ondone();
        }
      }}
    />
    <AbcSigns />
  </Fold>
  <h3>Or tapped</h3>
  <p class="values">
    <Act onclick={() => writing.tap(performance.now() / 1000)} data-testid="tap"
      >{writing.taps.length ? `tapped ${writing.taps.length}` : 'tap each note, and once at the end'}</Act
    >
    <label>quarters a minute <input type="number" min="20" max="200" bind:value={beats} /></label>
    {#if writing.taps.length > 1}<Act onclick={does(() => writing.takeTaps(60 / beats))}>take it</Act>{/if}
  </p>
</section>

<style>
  .typed {
    min-height: 2rem;
  }

  .values {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 0.9rem;
    align-items: center;
    padding-bottom: 0.5rem;
  }

  h3 {
    font-size: 1rem;
    padding-top: 0.5rem;
  }

  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }

  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: center;
  }

  kbd {
    font: inherit;
    color: var(--muted);
  }

  input {
    width: 4rem;
    font: inherit;
    color: var(--ink);
    background: var(--paper);
    border: 1px solid var(--line);
  }
</style>
