/**
 * Music outside the plain major and minor of the textbook: lead sheets with chord symbols, blues, modes, pentatonic tunes, and
 * music without a tonal reading. Frames, modes and rows are the published ones named beside them; tunes are written for
 * the test. Numbers were chosen with the pieces of odd seeds in view, and those of even seeds were looked at on the way; FRESH was
 * made afterwards, is asked for what was reached at first sight, and stays out of all tuning.
 */
import type { Score } from '../../../src/core/score/model.ts';
import { abc } from '../helpers.ts';
import { dice } from './composed.ts';
import type { Agreed } from './scorer.ts';

export interface World extends Agreed {
  /** What `tonality` of the keys is asked to be; null: major or minor. */
  tonality: string | null;
  /** Whether the numbers of the engine were chosen with this piece in view. */
  tuned: boolean;
}

const piece = (text: string) => (): Score => abc(text);
/** Letters of a chord symbol, for a tune over it: root, third, fifth, seventh as ABC letters in the first octave. */
const PITCHES = ['C', '^C', 'D', '_E', 'E', 'F', '^F', 'G', '_A', 'A', '_B', 'B'];
const FLATS = ['=C', '_D', '=D', '_E', '=E', '=F', '^F', '=G', '_A', '=A', '_B', '=B'];
const BASE: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const TONES: [RegExp, number[], string][] = [
  [/^(m7b5|ø)/, [0, 3, 6, 10], 'o'],
  [/^(dim7|o7)/, [0, 3, 6, 9], 'o'],
  [/^(maj7|\^7|maj9|M7)/, [0, 4, 7, 11], ''],
  [/^(m7|m9|-7|min7)/, [0, 3, 7, 10], 'm'],
  [/^(m6)/, [0, 3, 7, 9], 'm'],
  [/^(m|min|-)$/, [0, 3, 7], 'm'],
  [/^(dim|o)$/, [0, 3, 6], 'o'],
  [/^(6|add9)?$/, [0, 4, 7], ''],
  [/^(7|9|13|7b9|7sus4|7alt|7#11)/, [0, 4, 7, 10], '']
];
const read = (symbol: string): { root: number; name: string; tones: number[]; triad: string } => {
  const [, letter, sign, rest] = /^([A-G])([#b]?)([^/]*)/.exec(symbol)!;
  const [, tones, triad] = TONES.find(([pattern]) => pattern.test(rest))!;
  return { root: (BASE[letter] + (sign === '#' ? 1 : sign === 'b' ? 11 : 0)) % 12, name: letter + sign, tones, triad };
};
const SHARPS = ['=C', '^C', '=D', '^D', '=E', '=F', '^F', '=G', '^G', '=A', '_B', '=B'];
const note = (midi: number, names: readonly string[] = FLATS): string => {
  const name = names[midi % 12];
  const octave = Math.floor(midi / 12) - 1;
  const [, sign, letter] = /^([=_^]?)([A-G])$/.exec(name)!;
  return sign + (octave >= 5 ? letter.toLowerCase() + "'".repeat(octave - 5) : letter + ','.repeat(4 - octave));
};

/** A lead sheet: symbols over a tune of chord tones and neighbours; what is asked is root and triad of each symbol. */
function leadSheet(name: string, key: string, tonic: string, changes: string, seed: number, more: Partial<World> = {}): World {
  const roll = dice(seed * 131 + 7);
  const tune = changes
    .split('|')
    .map((bar) => bar.trim().split(/\s+/))
    .map((symbols) =>
      symbols
        .map((symbol) => {
          const { root, tones } = read(symbol);
          const beats = 4 / symbols.length;
          const notes: string[] = [];
          // Colour notes as players choose them: thirds, sevenths, ninths; the root is left to the bass.
          for (let at = 0; at < beats; at++) {
            const colour = [tones[1], tones[tones.length - 1], 14, tones[2], tones[1]][roll(5)];
            if (roll(3) === 0) notes.push(`${note(60 + root + colour)}${note(60 + root + tones[1 + roll(tones.length - 1)])}`);
            else notes.push(`${note(60 + root + colour)}2`);
          }
          return `"${symbol}"${notes.join('')}`;
        })
        .join(' ')
    )
    .join('|');
  const chords = Object.fromEntries(
    changes.split('|').map((bar, k) => [
      String(k + 1),
      bar
        .trim()
        .split(/\s+/)
        .map((s) => read(s).name + read(s).triad)
        .join(' ')
    ])
  );
  return {
    name,
    source: 'chord symbols in the file: they say root and quality',
    score: piece(`M:4/4\nL:1/8\nK:${key}\n${tune}|]`),
    keys: [['1', tonic]],
    chords,
    tonality: null,
    tuned: seed % 2 === 1,
    ...more
  };
}

export const LEAD_SHEETS: World[] = [
  leadSheet('Lead sheet: two-five-one in C', 'C', 'C major', 'Dm7|G7|Cmaj7|Cmaj7|Dm7|G7|Cmaj7|Am7|Dm7|G7|Cmaj7|Cmaj7', 1),
  leadSheet('Lead sheet: two-five-one in A flat', 'Ab', 'Ab major', 'Bbm7|Eb7|Abmaj7|Fm7|Bbm7|Eb7|Abmaj7|Abmaj7', 2),
  leadSheet(
    'Lead sheet: cycle of fifths in G minor',
    'Gm',
    'G minor',
    'Cm7|F7|Bbmaj7|Ebmaj7|Am7b5|D7|Gm|Gm|Cm7|F7|Bbmaj7|Ebmaj7|Am7b5|D7|Gm|Gm',
    3,
    { keys: [['5', 'G minor']] }
  ),
  leadSheet(
    'Lead sheet: cycle of fifths in E minor',
    'Em',
    'E minor',
    'Am7|D7|Gmaj7|Cmaj7|F#m7b5|B7|Em|Em|Am7|D7|Gmaj7|Cmaj7|F#m7b5|B7|Em|Em',
    4,
    {
      keys: [
        ['5', 'E minor'],
        ['9', '?'],
        ['13', 'E minor']
      ]
    }
  ),
  leadSheet(
    'Lead sheet: thirty-two bars in B flat, the bridge in dominants',
    'Bb',
    'Bb major',
    'Bbmaj7 Gm7|Cm7 F7|Bbmaj7 Gm7|Cm7 F7|Fm7 Bb7|Ebmaj7 Ebm6|Bbmaj7 F7|Bb6|D7|D7|G7|G7|C7|C7|F7|F7|Bbmaj7 Gm7|Cm7 F7|Bbmaj7 Gm7|Cm7 F7|Fm7 Bb7|Ebmaj7 Ebm6|Bbmaj7 F7|Bb6',
    5,
    {
      keys: [
        ['1', 'Bb major'],
        ['5', '?'],
        ['7', 'Bb major'],
        ['9', '?'],
        ['17', 'Bb major']
      ]
    }
  ),
  leadSheet('Song with plain triads in D', 'D', 'D major', 'D|A/C#|Bm|F#m|G|D/F#|Em7|A7|D|A/C#|Bm|F#m|G|A7|D|D', 6),
  leadSheet('Song with plain triads in F', 'F', 'F major', 'F|C/E|Dm|Am|Bb|F/A|Gm|C7|F|F7|Bb|Bbm|F|C7|F|F', 7),
  leadSheet('Song in A minor', 'Am', 'A minor', 'Am|Dm|E7|Am|Am|Dm|E7|Am|F|C|Dm|E7|Am|Dm E7|Am|Am', 8, {
    keys: [
      ['1', 'A minor'],
      ['9', '?'],
      ['11', 'A minor']
    ]
  })
];

/** Twelve bars in the standard frame, as symbols over a tune, as struck chords, or as broken ones (handbook 2.2; common practice). */
function blues(
  name: string,
  tonic: number,
  key: string,
  changes: string[],
  way: 'symbols' | 'chords' | 'broken' | 'bass',
  seed: number
): World {
  const roll = dice(seed * 977 + 3);
  const names = ['G', 'D', 'A', 'E'].includes(key) ? SHARPS : FLATS;
  const put = (midi: number): string => note(midi, names);
  const symbolOf = (degree: string): string => {
    const [, step, kind] = /^(\d)(.*)$/.exec(degree)!;
    return (
      names[(tonic + Number(step)) % 12]
        .replace('=', '')
        .replace(/^_(.)/, '$1b')
        .replace(/^\^(.)/, '$1#') + kind
    );
  };
  const bar = (degrees: string): { upper: string; lower: string } => {
    const parts = degrees.split(' ');
    const eighths = 8 / parts.length;
    const upper: string[] = [];
    const lower: string[] = [];
    for (const degree of parts) {
      const { root, tones } = read(symbolOf(degree));
      const scale = [0, 3, 5, 6, 7, 10, 12, 15];
      const tune = Array.from({ length: eighths / 2 }, () => `${put(60 + tonic + scale[roll(scale.length)])}2`).join('');
      if (way === 'symbols') upper.push(`"${symbolOf(degree)}"${tune}`);
      else upper.push(tune);
      if (way === 'chords')
        lower.push(
          Array.from({ length: eighths / 2 }, () => `[${tones.map((t) => put(36 + root + (root < 5 ? 12 : 0) + t)).join('')}]2`).join('')
        );
      else if (way === 'broken')
        lower.push(Array.from({ length: eighths }, (_, k) => put(36 + root + [0, 4, 7, 9, 10, 9, 7, 4][k % 8])).join(''));
      else if (way === 'bass')
        lower.push(
          Array.from({ length: eighths / 2 }, (_, k) => `[${put(36 + root)}${put(48 + root + [4, 4][k % 2])}${put(48 + root + 10)}]2`).join(
            ''
          )
        );
    }
    return { upper: upper.join(' '), lower: lower.join(' ') };
  };
  const made = changes.map(bar);
  const up = made.map((b) => b.upper).join('|');
  const low = made.map((b) => b.lower).join('|');
  const text =
    way === 'symbols'
      ? `M:4/4\nL:1/8\nK:${key}\n${up}|]`
      : `M:4/4\nL:1/8\n%%score {R L}\nV:R\nV:L clef=bass\nK:${key}\nV:R\n${up}|]\nV:L\n${low}|]`;
  return {
    name,
    source: 'the twelve-bar frame: I7 IV7 I7 I7, IV7 IV7 I7 I7, V7 IV7 I7 V7; common practice',
    score: piece(text),
    keys: [['1', `${key} major`]],
    chords: Object.fromEntries(
      changes.map((c, k) => [
        String(k + 1),
        c
          .split(' ')
          .map((d) => read(symbolOf(d)).name + read(symbolOf(d)).triad)
          .join(' ')
      ])
    ),
    tonality: 'blues',
    tuned: seed % 2 === 1
  };
}
const PLAIN = ['07', '07', '07', '07', '57', '57', '07', '07', '77', '57', '07', '77'];
const QUICK = ['07', '57', '07', '07', '57', '57', '07', '07', '77', '57', '07', '07'];
const JAZZ = ['07', '57', '07', '7m7 07', '57', '6dim7', '07', '4m7 97', '2m7', '77', '07 97', '2m7 77'];

export const BLUES: World[] = [
  blues('Blues in C, symbols', 0, 'C', PLAIN, 'symbols', 1),
  blues('Blues in F, struck chords', 5, 'F', QUICK, 'chords', 2),
  blues('Blues in G, broken', 7, 'G', PLAIN, 'broken', 3),
  blues('Blues in B flat, symbols, jazz changes', 10, 'Bb', JAZZ, 'symbols', 4),
  blues('Blues in F, symbols, jazz changes', 5, 'F', JAZZ, 'symbols', 5),
  blues('Blues in E flat, bass and shell', 3, 'Eb', QUICK, 'bass', 6),
  blues('Two choruses in A, struck chords', 9, 'A', [...PLAIN, ...QUICK], 'chords', 7),
  blues('Blues in D, broken', 2, 'D', QUICK, 'broken', 8)
];

/** Scale steps in semitones, and the chord a step below (or above) that answers the tonic. Glarean, Dodecachordon, 1547. */
const MODES: Record<string, { scale: number[]; other: number; signature: number; minor: boolean }> = {
  mixolydian: { scale: [0, 2, 4, 5, 7, 9, 10], other: 6, signature: -1, minor: false },
  dorian: { scale: [0, 2, 3, 5, 7, 9, 10], other: 6, signature: -2, minor: true },
  aeolian: { scale: [0, 2, 3, 5, 7, 8, 10], other: 6, signature: -3, minor: true },
  phrygian: { scale: [0, 1, 3, 5, 7, 8, 10], other: 1, signature: -4, minor: true },
  lydian: { scale: [0, 2, 4, 6, 7, 9, 11], other: 1, signature: 1, minor: false }
};
const TONIC_NAME: Record<number, string> = { 0: 'C', 2: 'D', 4: 'E', 5: 'F', 7: 'G', 9: 'A', 10: 'Bb', 11: 'B' };
const SIGNATURES: Record<number, number> = { 0: 0, 7: 1, 2: 2, 9: 3, 4: 4, 11: 5, 5: -1, 10: -2 };
const MAJOR_OF: Record<number, string> = {
  0: 'C',
  1: 'G',
  2: 'D',
  3: 'A',
  4: 'E',
  5: 'B',
  [-1]: 'F',
  [-2]: 'Bb',
  [-3]: 'Eb',
  [-4]: 'Ab',
  [-5]: 'Db',
  [-6]: 'Gb',
  6: 'F#'
};

/** A tune of two eight-bar strains in a mode: bars on the tonic's chord and on the one beside it, closing on the final. */
function modal(mode: string, tonic: number, seed: number, texture: 'line' | 'drone' | 'chords'): World {
  const { scale, other, signature, minor } = MODES[mode];
  const roll = dice(seed * 4211 + tonic);
  const fifths = SIGNATURES[tonic] + signature;
  const at = (degree: number): number => 60 + tonic + scale[((degree % 7) + 7) % 7] + 12 * Math.floor(degree / 7);
  // In the signature no sign is written: letters alone.
  const letter = (degree: number): string => {
    const root = 'CDEFGAB'.indexOf(TONIC_NAME[tonic][0]);
    const step = root + degree;
    const octave = 4 + Math.floor(step / 7) + (at(degree) < 58 ? 0 : 0);
    const name = 'CDEFGAB'[((step % 7) + 7) % 7];
    return octave >= 5 ? name.toLowerCase() + "'".repeat(octave - 5) : name + ','.repeat(4 - octave);
  };
  const plan = ['T', 'T', 'O', 'O', 'T', 'T', 'O', 'C'];
  const strain = (high: number): string[] =>
    plan.map((kind, k) => {
      if (kind === 'C') return `${letter(high > 3 ? 4 : 2)}${letter(other - 7 + 2)} ${letter(other - 7)}${letter(1)} ${letter(0)}4`;
      const base = kind === 'T' ? 0 : other - 7;
      const notes = Array.from({ length: 4 }, (_, b) => {
        const chord = base + [0, 2, 4, 7][roll(4)] + (high > 3 && k < 4 ? 0 : 0);
        const first = b === 0 && k === 0 ? (high > 3 ? 4 : 0) : chord;
        return `${letter(first)}${letter(first + (roll(2) ? 1 : -1))}`;
      });
      return notes.join(' ');
    });
  const tune = [...strain(0), ...strain(4)];
  const chordLine = [...plan, ...plan].map((kind, k) => {
    const base = kind === 'O' ? other - 7 : 0;
    const low = (d: number): string => letter(d - 7);
    if (texture === 'drone') return `[${low(0)}${low(4)}]8`;
    if (kind === 'C') return `[${low(other - 7)}${low(other - 5)}${low(other - 3)}]4 [${low(0)}${low(2)}${low(4)}]4`;
    return k % 2
      ? `[${low(base)}${low(base + 2)}${low(base + 4)}]4 [${low(base)}${low(base + 2)}${low(base + 4)}]4`
      : `[${low(base)}${low(base + 2)}${low(base + 4)}]8`;
  });
  const key = `K:${MAJOR_OF[fifths]}`;
  const head = `M:4/4\nL:1/8`;
  const up = `${tune.slice(0, 8).join('|')}||\n${tune.slice(8).join('|')}|]`;
  const text =
    texture === 'line'
      ? `${head}\n${key}\n${up}`
      : `${head}\n%%score {R L}\nV:R\nV:L clef=bass\n${key}\nV:R\n${up}\nV:L\n${chordLine.join('|')}|]`;
  return {
    name: `${TONIC_NAME[tonic]} ${mode}, ${texture}, ${seed}`,
    source: 'written in the mode: Glarean, Dodecachordon, 1547',
    score: piece(text),
    keys: [['1', `${TONIC_NAME[tonic]} ${minor ? 'minor' : 'major'}`]],
    tonality: mode,
    tuned: seed % 2 === 1
  };
}

const tuneOf = (name: string, text: string, key: string, tonality: string | null, tuned: boolean, source: string): World => ({
  name,
  source,
  score: piece(text),
  keys: [[/\nL:1\/4\nK:\w+\n\w\|/.test(text) ? '0' : '1', key]],
  tonality,
  tuned
});

export const MODAL: World[] = [
  modal('mixolydian', 9, 1, 'line'),
  modal('mixolydian', 7, 2, 'line'),
  modal('mixolydian', 2, 3, 'chords'),
  modal('mixolydian', 9, 4, 'drone'),
  modal('dorian', 2, 1, 'line'),
  modal('dorian', 4, 2, 'line'),
  modal('dorian', 7, 3, 'chords'),
  modal('dorian', 9, 4, 'chords'),
  modal('aeolian', 4, 1, 'line'),
  modal('aeolian', 9, 2, 'chords'),
  modal('phrygian', 4, 3, 'line'),
  modal('phrygian', 9, 4, 'chords'),
  modal('lydian', 5, 3, 'chords'),
  modal('lydian', 7, 4, 'line'),
  tuneOf(
    'Drunken Sailor',
    'M:2/4\nL:1/8\nK:C\nAA/A/ AA/A/|AD FA|GG/G/ GG/G/|GC EG|AA/A/ AA/A/|AB cd|cA GE|D2 D2||A2 A>A|AD FA|G2 G>G|GC EG|A2 A>A|AB cd|cA GE|D2 D2|]',
    'D minor',
    'dorian',
    true,
    'dorian: every collection of shanties'
  ),
  tuneOf(
    'Scarborough Fair',
    'M:3/4\nL:1/4\nK:C\nD2D|A2A|E>FE|D3-|D2A|cd2-|d c A|B G A-|A3-|A2d|d2d|c2A|A G F|E C2-|C3|D2A|G2F|E D C|D3-|D3|]',
    'D minor',
    'dorian',
    false,
    'dorian: every collection of ballads'
  ),
  tuneOf(
    'Amazing Grace',
    'M:3/4\nL:1/4\nK:G\nD|G2B/G/|B2A|G2E|D2D|G2B/G/|B2A|d3-|d2B|d2B/G/|B2A|G2E|D2D|G2B/G/|B2A|G3-|G2|]',
    'G major',
    'pentatonic',
    true,
    'pentatonic: every hymnal'
  ),
  tuneOf(
    'Auld Lang Syne',
    'M:4/4\nL:1/4\nK:F\nC|F>FFA|G>FGA|F>FAc|d3d|c>AAF|G>FGA|F>DDC|F3d|c>AAF|G>FGd|c>AAc|d3d|c>AAF|G>FGA|F>DDC|F3|]',
    'F major',
    'pentatonic',
    false,
    'pentatonic: every song book'
  )
];

/** Twelve-tone rows, from memory of the literature: Schoenberg op. 25, op. 31; Webern op. 21; Berg, Lyric Suite. */
const ROWS = [
  [4, 5, 7, 1, 6, 3, 8, 2, 11, 0, 9, 10],
  [10, 4, 6, 3, 5, 9, 2, 1, 7, 8, 11, 0],
  [9, 6, 7, 8, 4, 5, 11, 10, 2, 1, 0, 3],
  [5, 4, 0, 9, 7, 2, 8, 1, 3, 6, 10, 11]
];
const SETS: Record<string, number[]> = {
  octatonic: [0, 1, 3, 4, 6, 7, 9, 10],
  'whole tones': [0, 2, 4, 6, 8, 10],
  chromatic: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]
};

/** Music without a key: rows, symmetric scales, stacked fourths; one line, two lines or chords. */
function without(kind: string, texture: 'line' | 'two' | 'chords', seed: number): World {
  const roll = dice(seed * 7717 + kind.length * 13 + texture.length);
  const names = seed % 3 ? FLATS : PITCHES.map((p) => (/^[A-G]$/.test(p) ? `=${p}` : p));
  const name = (midi: number): string => {
    const [, sign, letter] = /^([=_^]?)([A-G])$/.exec(names[((midi % 12) + 12) % 12])!;
    const octave = Math.floor(midi / 12) - 1;
    return sign + (octave >= 5 ? letter.toLowerCase() + "'".repeat(octave - 5) : letter + ','.repeat(Math.max(0, 4 - octave)));
  };
  const row = ROWS[seed % ROWS.length];
  let index = roll(12);
  let form = 0;
  const next = (): number => {
    if (kind !== 'row') {
      const set = SETS[kind] ?? SETS.chromatic;
      return set[roll(set.length)] + (kind === 'octatonic' ? seed % 3 : 0);
    }
    if (index >= 12) {
      index = 0;
      form = roll(24);
    }
    const value = row[form >= 12 ? 11 - index : index] + (form % 12);
    index++;
    return value % 12;
  };
  const place = (pc: number, low: number): number => low + ((((pc - low) % 12) + 12) % 12) + 12 * roll(2);
  const rhythms = ['2222', '3122', '44', '2 11 22', '224', '1122 2', '6 2', '2 6'].map((r) => r.replace(/ /g, '').split('').map(Number));
  const quartal = (root: number): string => `[${[0, 5, 10, 15].map((i) => name(root + i)).join('')}]`;
  let root = 52;
  const bar = (low: number, chords: boolean): string =>
    rhythms[roll(rhythms.length)]
      .map((length) => {
        if (kind === 'fourths') {
          root = Math.min(62, Math.max(45, root + [-3, -2, -1, 1, 2, 3, 4][roll(7)]));
          return chords ? `${quartal(root)}${length}` : `${name(root + [0, 5, 10, 15][roll(4)] + 12)}${length}`;
        }
        if (!chords) return `${name(place(next(), low))}${length}`;
        const tones = [...new Set([next(), next(), next()])].map((pc) => place(pc, low));
        return `[${[...new Set(tones)].map(name).join('')}]${length}`;
      })
      .join('');
  const many = (low: number, chords: boolean): string => `${Array.from({ length: 12 }, () => bar(low, chords)).join('|')}|]`;
  const head = 'M:4/4\nL:1/8';
  const text =
    texture === 'line'
      ? `${head}\nK:C\n${many(60, false)}`
      : `${head}\n%%score {R L}\nV:R\nV:L clef=bass\nK:C\nV:R\n${many(64, texture === 'chords')}\nV:L\n${many(43, texture === 'chords')}`;
  return {
    name: `${kind}, ${texture}, ${seed}`,
    source: 'written without a key',
    score: piece(text),
    tonality: 'none',
    tuned: seed % 2 === 1
  };
}

export const WITHOUT: World[] = [
  ...(['row', 'octatonic', 'whole tones', 'chromatic'] as const).flatMap((kind) => [
    without(kind, 'line', 1),
    without(kind, 'line', 2),
    without(kind, 'two', 3),
    without(kind, 'two', 4),
    without(kind, 'chords', 5),
    without(kind, 'chords', 6)
  ]),
  without('fourths', 'chords', 1),
  without('fourths', 'chords', 2),
  without('fourths', 'chords', 3),
  without('fourths', 'two', 4)
];

/** Made when all numbers stood; nothing was changed because of them. */
export const FRESH = {
  leadSheets: [
    leadSheet(
      'Fresh lead sheet in E flat',
      'Eb',
      'Eb major',
      'Ebmaj7|Cm7|Fm7|Bb7|Gm7|C7|Fm7 Bb7|Eb6|Abmaj7|Abm6|Ebmaj7 C7|F7|Fm7|Bb7|Eb6|Eb6',
      11
    ),
    leadSheet('Fresh lead sheet in D minor', 'Dm', 'D minor', 'Dm7|Em7b5 A7|Dm7|Dm7|Gm7|C7|Fmaj7|Em7b5 A7|Dm7|Gm7|Em7b5|A7|Dm6|Dm6', 12, {
      keys: [
        ['1', 'D minor'],
        ['5', '?'],
        ['8', 'D minor']
      ]
    }),
    leadSheet('Fresh song in G', 'G', 'G major', 'G|D/F#|Em|Bm|C|G/B|Am|D7|G|G7|C|Cm6|G/D|D7|G|G', 13)
  ],
  blues: [
    blues('Fresh blues in A flat, symbols', 8, 'Ab', QUICK, 'symbols', 12),
    blues('Fresh blues in E, struck chords', 4, 'E', PLAIN, 'chords', 13),
    blues('Fresh blues in C, broken', 0, 'C', QUICK, 'broken', 14),
    blues('Fresh blues in G, bass and shell', 7, 'G', PLAIN, 'bass', 15)
  ],
  modal: (['mixolydian', 'dorian', 'aeolian', 'phrygian', 'lydian'] as const).flatMap((mode, k) => [
    modal(mode, [7, 2, 9, 4, 5][k], 11 + k, 'line'),
    modal(mode, [0, 9, 2, 11, 0][k], 21 + k, 'chords')
  ]),
  without: (['row', 'octatonic', 'whole tones', 'chromatic', 'fourths'] as const).flatMap((kind) => [
    without(kind, 'line', 31),
    without(kind, 'two', 32),
    without(kind, 'chords', 33)
  ])
};

export const WORLDS: World[] = [...LEAD_SHEETS, ...BLUES, ...MODAL, ...WITHOUT];
