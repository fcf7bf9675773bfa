/** Families that matter for what can be proposed. */
export type Family = 'strings' | 'wind' | 'brass' | 'keyboard' | 'voice' | 'percussion' | 'other';

/** Words in part names and instrument sounds, in several languages, that tell the family. Common practice. */
const WORDS: [Family, RegExp][] = [
  ['strings', /viol|cello|bass|contrab|geige|bratsche|strings?|fiddle|gamba|alto$|kontrabass|pluck\.guitar|guitar|harp|\blute/i],
  ['keyboard', /piano|klavier|clavier|cembalo|harpsichord|organ|orgel|keyboard|celesta|clavichord/i],
  ['brass', /horn|trumpet|trombone|tuba|cornet|tromba|corno|posaune|trompete|brass|euphonium|bugle/i],
  ['wind', /flute|flöte|flauto|oboe|clarinet|klarinette|bassoon|fagott|sax|recorder|piccolo|wind|pipe|whistle|cor anglais|english horn/i],
  ['voice', /voice|soprano|mezzo|tenor|baritone|choir|vocal|singer|gesang|sopran|chant/i],
  ['percussion', /drum|timpani|percussion|xylophone|marimba|vibraphone|glockenspiel|cymbal/i]
];

/** The family of a part by its name and instrument sound; two staves without a name are a keyboard. */
export function familyOf(name: string, instrument: string | undefined, staves: number): Family {
  for (const text of [name, instrument ?? '']) {
    // Bassoon, English horn and bass clarinet hold words of other families.
    if (/bassoon|clarinet|english horn|cor anglais|bass flute/i.test(text)) return 'wind';
    if (/bass drum/i.test(text)) return 'percussion';
    if (/bass voice/i.test(text)) return 'voice';
    if (/bass (trombone|tuba)/i.test(text)) return 'brass';
    for (const [family, pattern] of WORDS) if (text && pattern.test(text)) return family;
  }
  return staves >= 2 ? 'keyboard' : 'other';
}
