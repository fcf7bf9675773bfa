<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Sure from '$lib/controls/Sure.svelte';
  import PlainChord from './PlainChord.svelte';
  import { plainChord } from '$core/analysis/plain-chord';
  import Field from '$lib/controls/Field.svelte';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import { CADENCE_TYPES, type CadenceFact, type CadenceType, type ChordFact, type KeyFact } from '$core/analysis/facts';
  import { keyWords } from '$core/analysis/key-words';
  import { parseKey } from '$core/analysis/keys';
  import { inSigns } from '$core/analysis/words';
  import { isRoman } from '$core/analysis/vocabulary';
  import { add, cmp, format, type Fraction } from '$core/score/fraction';
  import { placeName, placesIn } from '$core/reading/moments';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const TONICS = ['C', 'C#', 'Db', 'D', 'D#', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'G#', 'Ab', 'A', 'A#', 'Bb', 'B', 'Cb'];
  const KEYS = TONICS.flatMap((t) => [`${t} major`, `${t} minor`]).filter((k) => {
    const key = parseKey(k)!;
    return Math.abs(key.minor ? key.tonic - 3 : key.tonic) <= 7;
  });

  const score = $derived(workspace.score);
  const facts = $derived(workspace.facts);
  const start = $derived<Fraction>(score ? score.measures[workspace.selection.from].start : { n: 0, d: 1 });
  const end = $derived<Fraction>(
    score ? add(score.measures[workspace.selection.to].start, score.measures[workspace.selection.to].length) : start
  );
  const title = $derived.by(() => {
    if (!score) return '';
    const [a, b] = [score.measures[workspace.selection.from], score.measures[workspace.selection.to]];
    return a === b ? workspace.barName(a) : `Bars ${a.number} to ${b.number}`;
  });
  const over = (f: { start: Fraction; end: Fraction }): boolean => cmp(f.start, end) < 0 && cmp(f.end, start) > 0;
  const keys = $derived(facts.keys.filter(over));
  const chords = $derived(facts.chords.filter(over));
  const cadences = $derived(facts.cadences.filter((c) => cmp(c.start, start) >= 0 && cmp(c.start, end) < 0));
  const phrases = $derived(facts.phrases.filter(over));
  const places = $derived(
    score
      ? placesIn(score, workspace.reading.part, workspace.selection.from, workspace.selection.to).filter((p) => p.note && p.staff === 1)
      : []
  );

  let key = $state('C major');
  let romans = $state<Record<string, string>>({});
  let wrong = $state('');
  let phraseAt = $state('');

  $effect(() => {
    if (keys[0]) key = keys[0].name;
  });

  const id = (kind: string, at: Fraction): string => `pin-${kind}-${at.n}_${at.d}`;

  function pinKey(): void {
    workspace.pin({ id: id('key', start), kind: 'key', start, end, key });
  }

  /** The second-best key for the whole area, as some would hear it. */
  function pinRival(fact: KeyFact): void {
    workspace.pin({ id: id('key', fact.start), kind: 'key', start: fact.start, end: fact.end, key: fact.rival! });
  }

  function pinChord(chord: ChordFact): void {
    const roman = (romans[chord.id] ?? '').trim();
    if (!isRoman(roman)) {
      wrong = `“${roman}” is no chord that is known here; write such as ii65, V7/V, viio7, N6, Ger65.`;
      return;
    }
    wrong = '';
    workspace.pin({ id: id('chord', chord.start), kind: 'chord', start: chord.start, end: chord.end, roman });
  }

  function pinCadence(fact: CadenceFact, type: CadenceType): void {
    workspace.pin({ id: id('cadence', fact.start), kind: 'cadence', start: fact.start, type });
  }

  function pinPhrase(here: boolean): void {
    const place = places.find((p) => format(p.start) === phraseAt) ?? places[0];
    if (place) workspace.pin({ id: id('phrase', place.start), kind: 'phrase-start', start: place.start, here });
  }
</script>

{#if score}
  <section>
    <h3>Key</h3>
    {#each keys as fact (fact.id)}
      <p data-testid="key-fact">
        <strong>{workspace.keyName(fact)}</strong>
        <Sure of={fact.confidence} pinned={fact.pinned} />
        <span class="quiet">{fact.pinned ? '' : fact.evidence}</span>
        {#if fact.rival && !fact.pinned && fact.tonality !== 'none'}<Act onclick={() => pinRival(fact)}>rather {inSigns(fact.rival)}</Act
          >{/if}
      </p>
    {/each}
    <form onsubmit={(e) => (e.preventDefault(), pinKey())}>
      <Choice label="{title} in" bind:value={key} data-testid="key-choice"
        >{#each KEYS as name (name)}<SelectItem value={name} text={inSigns(name)} />{/each}</Choice
      >
      <Button size="small" kind="tertiary" type="submit">Set this key</Button>
    </form>
  </section>

  <section>
    <h3>Chords</h3>
    {#each chords as chord (chord.id)}
      <form class="chord" onsubmit={(e) => (e.preventDefault(), pinChord(chord))} data-testid="chord-fact">
        <span class="where">{placeName(score, chord.start)}</span>
        <strong title="in {keyWords(chord.key)}; {chord.evidence}{chord.rival ? inSigns(`; else ${chord.rival}`) : ''}"
          >{inSigns(chord.roman)}</strong
        >
        <Sure of={chord.confidence} pinned={chord.pinned} />
        <Field
          label="Another chord at {placeName(score, chord.start)}"
          quietly
          placeholder="another"
          bind:value={() => romans[chord.id] ?? '', (v) => (romans[chord.id] = v)}
        />
        <Button size="small" kind="ghost" type="submit">Set</Button>
      </form>
      {@const plain = plainChord(chord, facts.keys.find((k) => cmp(k.start, chord.start) <= 0 && cmp(chord.start, k.end) < 0)?.tonality)}
      {#if plain}<PlainChord {workspace} {plain} />{/if}
    {:else}<p class="quiet">No chords are named here: no key fits. What there is stands under Key.</p>{/each}
    {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
  </section>

  <section>
    <h3>Cadences</h3>
    {#each cadences as cadence (cadence.id)}<p>
        {placeName(score, cadence.start)}:
        <Choice
          label="Cadence at {placeName(score, cadence.start)}"
          quietly
          value={cadence.type}
          onchange={(value) => pinCadence(cadence, value as CadenceType)}
          >{#each CADENCE_TYPES as type (type)}<SelectItem value={type} text={type} />{/each}</Choice
        >
        <Sure of={cadence.confidence} pinned={cadence.pinned} />
        <span class="quiet">{cadence.pinned ? '' : `strength ${Math.round(cadence.strength * 100)} %; `}{cadence.evidence}</span>
        <Act
          onclick={() =>
            workspace.pin({ id: `pin-dismiss-${cadence.id}`, kind: 'dismiss', start: cadence.start, fact: cadence.id, what: 'cadence' })}
          >dismiss</Act
        >
      </p>{:else}<p class="quiet">None in these bars.</p>{/each}
  </section>

  <section>
    <h3>Phrases</h3>
    {#each phrases as phrase (phrase.id)}<p>
        {placeName(score, phrase.start)} to {placeName(score, phrase.last)}
        <Sure of={phrase.confidence} pinned={phrase.pinned} /> <span class="quiet">ends with {phrase.evidence}</span>
      </p>{/each}
    <form onsubmit={(e) => e.preventDefault()}>
      <Choice label="At" value={phraseAt || (places[0] ? format(places[0].start) : '')} onchange={(value) => (phraseAt = value)}
        >{#each places as place (format(place.start))}<SelectItem value={format(place.start)} text={place.label} />{/each}</Choice
      >
      <Button size="small" kind="ghost" on:click={() => pinPhrase(true)}>a phrase begins</Button>
      <Button size="small" kind="ghost" on:click={() => pinPhrase(false)}>none begins</Button>
    </form>
  </section>
{/if}

<style>
  section {
    padding-top: 0.8rem;
  }

  h3 {
    color: var(--muted);
  }

  form {
    display: flex;
    align-items: center;
    gap: 0.4rem;
    padding: 0.15rem 0;
    flex-wrap: wrap;
  }

  .chord {
    display: grid;
    grid-template-columns: minmax(6.4rem, max-content) 3rem 3.4rem minmax(5.2rem, 1fr) auto;
    align-items: center;
    white-space: nowrap;
    gap: 0.3rem;
    font-size: 0.9rem;
  }

  .chord :global(.bx--text-input) {
    min-width: 0;
    width: 100%;
  }

  .where {
    color: var(--muted);
  }

  .wrong {
    color: var(--cds-danger-01);
  }
</style>
