<script lang="ts">
  import { SelectItem } from 'carbon-components-svelte';
  import { parsePitch, type Pitch } from '$core/score/pitch';
  import { soundAt, withBarSigns, withGraces, withoutBar, withSyllable, withText, withWords } from '$core/writing/edits';
  import { isMeter } from '$core/writing/from-tune';
  import { keyAt, meterAt } from '$core/writing/written';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';
  import Tick from '../controls/Tick.svelte';
  import { keyOf, KEYS, keyValue } from './head';
  import { SIGNS } from './signs';
  import type { Writing } from './writing.svelte';

  const { writing, ondone }: { writing: Writing; ondone: () => void } = $props();

  const sound = $derived(writing.sound);
  const many = $derived(writing.chosen.length);
  const { bar } = $derived(writing.place);
  const does = (act: () => void) => () => (act(), ondone());
  const has = (name: string): boolean => writing.chosen.every((p) => soundAt(writing.written, p)?.decorations.includes(name));

  /** Grace notes that stand before the note at hand. */
  const graces = $derived.by(() => {
    const lane = writing.bar.lanes[writing.place.lane];
    let from = writing.place.at;
    while (lane[from - 1]?.grace) from--;
    return lane
      .slice(from, writing.place.at)
      .map(({ pitches: [{ pitch }] }) => `${'CDEFGAB'[pitch.step]}${pitch.alter > 0 ? '#' : pitch.alter < 0 ? 'b' : ''}${pitch.octave}`)
      .join(' ');
  });

  function setGraces(text: string): void {
    const names = text.trim().split(/\s+/).filter(Boolean);
    const pitches = names.map(parsePitch);
    const wrong = names.find((_, k) => !pitches[k]);
    if (wrong) writing.refused = `“${wrong}” is no note; write them as D5 C#5.`;
    else {
      const before = writing.bar.lanes[writing.place.lane].length;
      writing.change(withGraces(writing.written, writing.place, pitches as Pitch[]));
      const more = writing.bar.lanes[writing.place.lane].length - before;
      writing.place = { ...writing.place, at: writing.place.at + more };
    }
  }

  const barSigns = (signs: Parameters<typeof withBarSigns>[2]): void => writing.change(withBarSigns(writing.written, bar, signs));
</script>

<section aria-label="Signs">
  <h2>{writing.barName}: what is printed</h2>
  {#if sound}
    <p class="quiet">
      {many > 1 ? `${many} notes are chosen.` : 'At the chosen note.'} Arrow keys go from note to note, with Shift over several.
    </p>
    <p class="row">
      <Act onclick={does(() => writing.slur())} title="key J">slur</Act>
      <Act onclick={does(() => writing.hairpin(true))} title="key G">growing hairpin</Act>
      <Act onclick={does(() => writing.hairpin(false))} title="key F">fading hairpin</Act>
    </p>
    {#each SIGNS as { group, signs } (group)}
      <p class="row">
        <span class="quiet">{group}</span>
        {#each signs as [name, says] (name)}<Act onclick={does(() => writing.sign(name))} aria-pressed={has(name)}>{says}</Act>{/each}
      </p>
    {/each}
    {#key sound.id}
      <Field
        label="Words"
        value={sound.words?.text ?? ''}
        maxlength="200"
        placeholder="dolce"
        onchange={(text) => writing.change(withWords(writing.written, writing.place, text))}
      />
      {#if many > 1}
        <Field
          label="Text under the chosen notes"
          maxlength="2000"
          placeholder="slow wa-ter rises"
          onchange={(text) => writing.change(withText(writing.written, writing.chosen, text))}
        />
      {/if}
      <Field
        label="Syllable"
        value={sound.lyrics[0] ?? ''}
        maxlength="120"
        placeholder="a hyphen at its end joins it on"
        onchange={(text) => writing.change(withSyllable(writing.written, writing.place, text))}
      />
      <Field label="Grace notes before it" value={graces} maxlength="120" placeholder="D5 C5" onchange={setGraces} />
    {/key}
  {:else}<p class="quiet">Nothing stands here yet.</p>{/if}
  <p class="row">
    <Act onclick={does(() => writing.enter('rhythm'))} title="key R">its rhythm anew</Act>
    <Act onclick={does(() => writing.enter('pitches'))} title="key P">its pitches anew</Act>
    <Act onclick={does(() => writing.nextBar())} title="Enter">the next bar</Act>
  </p>
  <h3>The bar</h3>
  {#key writing.bar.id}
    <p class="row">
      <Tick
        label="repeat begins"
        checked={writing.bar.repeatStart ?? false}
        onchange={(on) => barSigns({ repeatStart: on || undefined })}
      />
      <Tick label="repeat ends" checked={!!writing.bar.repeatEnd} onchange={(on) => barSigns({ repeatEnd: on ? 2 : undefined })} />
      <Tick label="double bar line" checked={writing.bar.doubleBar ?? false} onchange={(on) => barSigns({ doubleBar: on || undefined })} />
    </p>
    <p class="row">
      <Field
        label="Ending"
        class="chars-4"
        value={writing.bar.ending ?? ''}
        maxlength="8"
        onchange={(v) => barSigns({ ending: v.trim() || undefined })}
      />
      <Field
        label="Letter"
        class="chars-4"
        value={writing.bar.letter ?? ''}
        maxlength="8"
        onchange={(v) => barSigns({ letter: v.trim() || undefined })}
      />
      <Field
        label="Meter from here"
        class="chars-6"
        value={meterAt(writing.written, bar)}
        maxlength="12"
        onchange={(v) => {
          if (isMeter(v.trim())) barSigns({ meter: v.trim() });
          else writing.refused = `“${v}” is no meter; write 3/4, 6/8, C, or nothing.`;
        }}
      />
      <Choice label="Key from here" value={keyValue(keyAt(writing.written, bar))} onchange={(v) => barSigns({ key: keyOf(v) })}
        >{#each KEYS as { value, name } (value)}<SelectItem {value} text={name} />{/each}</Choice
      >
    </p>
  {/key}
  <p class="row">
    <Act
      onclick={does(() => {
        writing.change(withoutBar(writing.written, bar));
        writing.goTo({ bar: Math.min(bar, writing.written.bars.length - 1), lane: writing.place.lane, at: 0 });
      })}>take this bar out</Act
    >
  </p>
</section>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
    align-items: baseline;
    padding-bottom: 0.35rem;
  }

  h3 {
    font-size: 1rem;
    padding: 0.4rem 0 0.2rem;
  }

  section :global(.act[aria-pressed='true']) {
    font-weight: 700;
    color: var(--edition);
  }
</style>
