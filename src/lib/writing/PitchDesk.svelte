<script lang="ts">
  import { atStaffStep, midi, staffStep, type Pitch } from '$core/score/pitch';
  import { keyAlter } from '$core/score/accidentals';
  import { middleOf } from '$core/writing/to-tune';
  import { keyAt } from '$core/writing/written';
  import Act from '../controls/Act.svelte';
  import type { Writing } from './writing.svelte';

  const { writing, ondone }: { writing: Writing; ondone: () => void } = $props();

  /** Steps below and above the middle line that the row of keys shows. */
  const REACH = 9;
  const STEPS = 'CDEFGAB';
  const key = $derived(keyAt(writing.written, writing.place.bar));
  const middle = $derived(middleOf(writing.written.head.clefs[writing.written.lanes[writing.place.lane].staff - 1]));
  const naturals = $derived(Array.from({ length: 2 * REACH + 1 }, (_, k): Pitch => atStaffStep(staffStep(middle) - REACH + k, 0)));
  /** The black key above a white one, spelled as the key has it. */
  function blackAbove(p: Pitch): Pitch | null {
    if (p.step === 2 || p.step === 6) return null;
    const next: Pitch = { step: (p.step + 1) % 7, octave: p.octave, alter: -1 };
    const flat = keyAlter(key, next.step) < 0 || key.fifths < 0;
    return flat ? next : { ...p, alter: 1 };
  }
  const name = (p: Pitch): string => `${STEPS[p.step]}${p.alter > 0 ? '♯' : p.alter < 0 ? '♭' : ''}${p.octave}`;

  const say = (pitch: Pitch) => (event: MouseEvent) => (writing.setPitch(pitch, event.shiftKey), ondone());
  const press =
    (k: string, shiftKey = false) =>
    () => (writing.key({ key: k, shiftKey, ctrlKey: false, metaKey: false, altKey: false }), ondone());
</script>

<section aria-label="Pitches">
  <h2>{writing.barName}: pitches</h2>
  <p class="quiet">
    Click on the staff, press a key below, or type <kbd>C</kbd> to <kbd>B</kbd>: the nearest one is meant. With Shift it joins the note
    before as a chord.
  </p>
  <div class="keyboard" role="group" aria-label="Keys">
    {#each naturals as p, k (midi(p))}
      {@const black = k < naturals.length - 1 ? blackAbove(p) : null}
      <span class="place">
        <button class="white" onclick={say(p)} aria-label={name(p)}>{p.step === 0 ? name(p) : ''}</button>
        {#if black}<button class="black" onclick={say(black)} aria-label={name(black)}></button>{/if}
      </span>
    {/each}
  </div>
  <p class="after">
    The note before:
    <Act onclick={press('ArrowUp')} title="key ↑">a step up</Act>
    <Act onclick={press('ArrowDown')} title="key ↓">a step down</Act>
    <Act onclick={press('ArrowUp', true)} title="Shift and ↑">an octave up</Act>
    <Act onclick={press('ArrowDown', true)} title="Shift and ↓">an octave down</Act>
    <Act onclick={press('+')} title="key +">raised</Act>
    <Act onclick={press('-')} title="key -">lowered</Act>
    <Act onclick={press('~')} title="key ~">tied on</Act>
  </p>
  <p class="after">This one: <Act onclick={press('/')} title="key /">is a rest</Act></p>
</section>

<style>
  .keyboard {
    display: flex;
    overflow-x: auto;
    padding: 0.3rem 0 0.6rem;
  }

  .place {
    position: relative;
    flex: 1 0 1.15rem;
  }

  .white {
    width: 100%;
    height: 4.6rem;
    border: 1px solid var(--line);
    background: var(--paper);
    color: var(--muted);
    font: inherit;
    font-size: 0.7rem;
    display: flex;
    align-items: end;
    justify-content: center;
    padding: 0 0 2px;
    cursor: pointer;
  }

  .black {
    position: absolute;
    z-index: 1;
    right: -0.35rem;
    top: 0;
    width: 0.75rem;
    height: 2.7rem;
    border: 1px solid var(--ink);
    background: var(--ink);
    padding: 0;
    cursor: pointer;
  }

  .after {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
    padding-bottom: 0.4rem;
  }

  kbd {
    font: inherit;
    font-weight: 600;
  }
</style>
