<script lang="ts">
  /** The signs of ABC in short. */
  interface Props {
    /** With the fields of a whole tune. */
    header?: boolean;
  }
  const { header = false }: Props = $props();

  /** Source: ABC 2.1, sections 3 and 4. */
  const FIELDS: [string, string][] = [
    ['X:1  T:  C:', 'number, title, composer; each field on a line of its own'],
    ['M:6/8  L:1/8', 'meter (C and C| too); the unit of lengths'],
    ['Q:"Andante" 1/4=72', 'tempo, in words and beats a minute'],
    ['K:Eb  K:Am  K:D bass', 'key, with a clef; it ends the header'],
    ['V:1 name="Violin"', 'a voice: its name; clef=bass, transpose=-2'],
    ['%%score {1 2}', 'two staves of one instrument; (1 2) two voices on a staff'],
    ['P:A', 'a letter before a bar'],
    ['w:slow wa-ter *', 'text under the line of notes before; * passes a note over']
  ];
  const NOTES: [string, string][] = [
    ['C D E … B c d … b', "from middle C up; C, an octave lower, c' an octave higher"],
    ['^f =f _b', 'sharp, natural, flat'],
    ['c2 c/ c3/2', 'twice, half, one and a half times the unit'],
    ['z', 'rest; Z a whole bar'],
    ['c>d   (3cde', 'dotted pair; triplet'],
    ['(c d)   c-c   [ceg]', 'slur; tie; chord'],
    ['{d}c   Tc   .c', 'grace note; trill; staccato'],
    ['!p!   !<(! … !<)!', 'dynamic; crescendo'],
    ['"^dolce"c', 'words above']
  ];
  const BARS: [string, string][] = [
    ['|   |: :|   [1 [2', 'bar line; repeat; endings'],
    ['"Am"c', 'chord symbol'],
    ['K:HP', 'the Highland pipes’ scale']
  ];
</script>

<dl>
  {#each header ? [...FIELDS, ...NOTES, ...BARS] : NOTES as [sign, means] (sign)}
    <dt>{sign}</dt>
    <dd>{means}</dd>
  {/each}
</dl>

<style>
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 0.1rem 1rem;
    font-size: 0.88rem;
    margin: 0.3rem 0;
  }

  dt {
    white-space: pre;
  }

  dd {
    margin: 0;
    color: var(--muted);
  }
</style>
