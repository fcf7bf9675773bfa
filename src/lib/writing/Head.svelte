<script lang="ts">
  import { SelectItem } from 'carbon-components-svelte';
  import { eq } from '$core/score/fraction';
  import type { WrittenHead } from '$core/writing/written';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';
  import { BEATS, CLEFS, keyOf, KEYS, keyValue, TRANSPOSITIONS, UPBEATS } from './head';

  interface Props {
    head: WrittenHead;
    /** How many staves it has can be chosen only before anything is written. */
    begun?: boolean;
    onchange: (part: Partial<WrittenHead>) => void;
  }
  const { head, begun = false, onchange }: Props = $props();

  const beat = $derived(head.tempo.unit ? BEATS.findIndex(([, f]) => eq(f, head.tempo.unit!)) : 0);
  const upbeat = $derived(head.upbeat ? UPBEATS.findIndex(([, f]) => f && eq(f, head.upbeat!)) : 0);
  const tempo = (part: Partial<WrittenHead['tempo']>): void => onchange({ tempo: { ...head.tempo, ...part } });
</script>

<div class="head">
  <Field
    label="Title"
    value={head.title}
    maxlength="200"
    oninput={(e: Event) => onchange({ title: (e.target as HTMLInputElement).value })}
  />
  <Field label="Composer" value={head.composer} maxlength="200" onchange={(composer) => onchange({ composer })} />
  <Field
    label="Instrument"
    value={head.instrument}
    maxlength="120"
    placeholder="Violin"
    onchange={(instrument) => onchange({ instrument })}
  />
  <Choice label="Sounds" value={head.transpose} onchange={(v) => onchange({ transpose: Number(v) })}
    >{#each TRANSPOSITIONS as [semitones, name] (semitones)}<SelectItem value={semitones} text={name} />{/each}</Choice
  >
  {#if !begun}
    <Choice
      label="Staves"
      value={head.clefs.length}
      onchange={(v) => onchange({ clefs: Number(v) > 1 ? [head.clefs[0], 'bass'] : [head.clefs[0]] })}
      ><SelectItem value={1} text="one" /><SelectItem value={2} text="two, one instrument" /></Choice
    >
  {/if}
  {#each head.clefs as clef, k (k)}
    <Choice
      label={head.clefs.length > 1 ? (k ? 'Lower clef' : 'Upper clef') : 'Clef'}
      value={clef}
      onchange={(v) => onchange({ clefs: head.clefs.map((c, n) => (n === k ? v : c)) })}
      >{#each Object.entries(CLEFS) as [value, name] (value)}<SelectItem {value} text={name} />{/each}</Choice
    >
  {/each}
  <Choice label="Key" value={keyValue(head.key)} onchange={(v) => onchange({ key: keyOf(v) })}
    >{#each KEYS as { value, name } (value)}<SelectItem {value} text={name} />{/each}</Choice
  >
  <Field
    label="Meter"
    class="chars-6"
    value={head.meter}
    maxlength="12"
    placeholder="none"
    onchange={(meter) => onchange({ meter: meter.trim() })}
  />
  <Choice label="Upbeat" value={upbeat} onchange={(v) => onchange({ upbeat: UPBEATS[Number(v)][1] })}
    >{#each UPBEATS as [name], k (name)}<SelectItem value={k} text={name} />{/each}</Choice
  >
  <Field
    label="Tempo in words"
    value={head.tempo.words}
    maxlength="120"
    placeholder="Andante"
    onchange={(words) => tempo({ words: words.trim() })}
  />
  <span class="pair">
    <Choice label="Beat" value={Math.max(0, beat)} onchange={(v) => tempo({ unit: BEATS[Number(v)][1] })}
      >{#each BEATS as [name], k (name)}<SelectItem value={k} text={name} />{/each}</Choice
    >
    <Field
      label="beats a minute"
      class="chars-4"
      value={head.tempo.perMinute ?? ''}
      maxlength="6"
      onchange={(v) => tempo(v.trim() ? { perMinute: v.trim(), unit: head.tempo.unit ?? BEATS[0][1] } : { perMinute: null, unit: null })}
    />
  </span>
</div>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1.2rem;
    align-items: baseline;
  }

  .pair {
    display: flex;
    gap: 0.6rem;
    align-items: baseline;
  }
</style>
