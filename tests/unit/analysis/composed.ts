/**
 * A small composer of test pieces: textbook progressions (any harmony book; the patterns are from memory) realised in
 * the usual textures, in any key and metre, with the analysis that they were written from. So the engine meets scores
 * that nothing was tuned on, and the truth is known bar by bar.
 */
import type { Score } from '../../../src/core/score/model.ts';
import { abc } from '../helpers.ts';
import type { Agreed } from './scorer.ts';

/** Notes of a chord as steps on the line of fifths from the tonic, the bass first. */
interface Chord {
  tones: number[];
  /** Step of the root, and the quality as in `Agreed.chords`. */
  root: number;
  quality: string;
}

/** Stacks of thirds over a root, as steps on the line of fifths. */
const STACKS: Record<string, number[]> = {
  '': [0, 4, 1],
  m: [0, -3, 1],
  o: [0, -3, -6],
  '7': [0, 4, 1, -2],
  m7: [0, -3, 1, -2],
  o7: [0, -3, -6, -9],
  '%7': [0, -3, -6, -2]
};
const stack = (root: number, quality: string, inversion = 0): Chord => {
  const tones = STACKS[quality].map((step) => root + step);
  return { tones: [...tones.slice(inversion), ...tones.slice(0, inversion)], root, quality: quality.replace('%', 'o').replace(/7$/, '') };
};
/** The augmented sixth is not asked for by its root; the cadential six-four counts as the dominant's ornament. */
const ODD: Record<string, Chord> = {
  Ger65: { tones: [-4, 0, -3, 6], root: 0, quality: '?' },
  I64: { tones: [1, 0, 4], root: 1, quality: '?' },
  i64: { tones: [1, 0, -3], root: 1, quality: '?' }
};
const DEGREES: Record<string, [root: number, quality: string]> = {
  I: [0, ''],
  ii: [2, 'm'],
  ii7: [2, 'm7'],
  iii: [4, 'm'],
  IV: [-1, ''],
  V: [1, ''],
  V7: [1, '7'],
  vi: [3, 'm'],
  viio: [5, 'o'],
  i: [0, 'm'],
  iio: [2, 'o'],
  iio7: [2, '%7'],
  III: [-3, ''],
  iv: [-1, 'm'],
  VI: [-4, ''],
  VII: [-2, ''],
  viio7: [5, 'o7'],
  N: [-5, '']
};
const FIGURES: Record<string, [seventh: string, inversion: number]> = {
  '6': ['', 1],
  '64': ['', 2],
  '65': ['7', 1],
  '43': ['7', 2],
  '42': ['7', 3]
};

/** A chord by its Roman numeral, applied ones as "V7/ii". */
function chordOf(roman: string): Chord {
  if (ODD[roman]) return ODD[roman];
  const [name, of] = roman.split('/');
  const shift = of ? DEGREES[of][0] : 0;
  const [, plain, figure = ''] = /^([iIvVoN]+?7?)(6|64|65|43|42)?$/.exec(name)!;
  const [seventh, inversion] = figure ? FIGURES[figure] : ['', 0];
  const [root, quality] = DEGREES[plain + (seventh && !plain.endsWith('7') ? seventh : '')];
  return stack(root + shift, quality, inversion);
}

/** Solo lines: basses touched below upper notes, chord tones joined by passing notes, leading voices with suspensions. */
export type SoloStyle = 'solo basses' | 'solo passing' | 'solo suspensions';
export type SoundingScore = 'chorale' | 'alberti' | 'waltz' | 'duet' | 'line' | SoloStyle;
const isSolo = (texture: SoundingScore): texture is SoloStyle => texture.startsWith('solo');
export interface Phrase {
  /** Chords of each bar in equal shares. */
  bars: string[];
  close: 'HC' | 'PAC' | 'DC';
  /** From this bar of the phrase on, steps on the line of fifths away from the home key, in which the numerals are then read. */
  turn?: [bar: number, by: number];
}

const p = (close: Phrase['close'], ...bars: string[]): Phrase => ({ close, bars });
export const PHRASES: Record<'major' | 'minor', Phrase[]> = {
  major: [
    p('HC', 'I', 'V6 I', 'IV I6', 'ii6 V'),
    p('HC', 'I', 'IV', 'I6 ii6', 'V'),
    p('HC', 'I vi', 'IV', 'V7/V', 'V'),
    p('PAC', 'I', 'IV', 'ii6 V7', 'I'),
    p('PAC', 'I V6', 'vi', 'IV V7', 'I'),
    p('PAC', 'I', 'V43 I6', 'I64 V7', 'I'),
    p('PAC', 'I', 'V7/IV IV', 'I64 V7', 'I'),
    p('PAC', 'I', 'V65/vi vi', 'ii65 V7', 'I'),
    p('PAC', 'I6', 'V7/ii ii', 'V7', 'I'),
    p('PAC', 'I', 'vi', 'IV', 'I64 V7', 'I'),
    p('PAC', 'I', 'IV', 'I6', 'ii6', 'V7', 'I'),
    p('HC', 'I', 'V6 I', 'IV', 'I6', 'ii6', 'V'),
    p('DC', 'I', 'IV', 'ii6 V7', 'vi')
  ],
  minor: [
    p('HC', 'i', 'iv', 'i6 iio6', 'V'),
    p('HC', 'i', 'VI', 'iv', 'V'),
    p('PAC', 'i', 'iv', 'V7', 'i'),
    p('PAC', 'i', 'iio6', 'i64 V7', 'i'),
    p('PAC', 'i', 'viio7 i', 'N6 V7', 'i'),
    p('PAC', 'i', 'VI', 'Ger65 V', 'i'),
    p('PAC', 'i VII', 'III VI', 'iio65 V7', 'i'),
    p('PAC', 'i', 'VI', 'iio6', 'i64 V7', 'i'),
    p('HC', 'i', 'iv', 'i6', 'VI', 'iv6 iio6', 'V'),
    p('DC', 'i', 'iv', 'V7', 'VI')
  ]
};

const LETTERS = 'FCGDAEB';
const LETTER_SEMITONES: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
interface Tone {
  fifths: number;
  octave: number;
}
const letterOf = (fifths: number): string => LETTERS[(((fifths + 1) % 7) + 7) % 7];
const alterOf = (fifths: number): number => Math.floor((fifths + 1) / 7);
const midi = (t: Tone): number => 12 * (t.octave + 1) + LETTER_SEMITONES[letterOf(t.fifths)] + alterOf(t.fifths);
export const nameOf = (fifths: number): string => letterOf(fifths) + (alterOf(fifths) < 0 ? 'b' : '#').repeat(Math.abs(alterOf(fifths)));

function written(t: Tone): string {
  const alter = alterOf(t.fifths);
  const sign = alter === 0 ? '=' : (alter > 0 ? '^' : '_').repeat(Math.abs(alter));
  const letter = letterOf(t.fifths);
  return sign + (t.octave >= 5 ? letter.toLowerCase() + "'".repeat(t.octave - 5) : letter + ','.repeat(4 - t.octave));
}

/** The tone of a name that is nearest to a place on the keyboard. */
function nearest(fifths: number, to: number): Tone {
  const options = [1, 2, 3, 4, 5, 6, 7].map((octave) => ({ fifths, octave }));
  return options.sort((a, b) => Math.abs(midi(a) - to) - Math.abs(midi(b) - to))[0];
}
/** The tones of a chord, each above the one before, the first nearest to a place. */
function close(tones: readonly number[], from: number): Tone[] {
  const stacked = [nearest(tones[0], from)];
  for (const f of tones.slice(1)) {
    const below = midi(stacked[stacked.length - 1]);
    stacked.push(
      [2, 3, 4, 5, 6, 7].map((octave) => ({ fifths: f, octave })).find((t) => midi(t) > below && midi(t) - below <= 12) ??
        nearest(f, below + 6)
    );
  }
  return stacked;
}

/** A sequence of numbers that is the same for the same seed (a linear congruential generator; Numerical Recipes' constants). */
export function dice(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (Math.imul(1664525, state) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

export interface Plan {
  name: string;
  /** Steps of the tonic on the line of fifths from C. */
  tonic: number;
  mode: 'major' | 'minor';
  meter: '4/4' | '3/4' | '6/8' | '2/4';
  texture: SoundingScore;
  /** Each phrase begins with the last eighth of the bar before it. */
  upbeat?: boolean;
  /** The phrases in their order; the same phrase is the same music. */
  phrases: Phrase[];
  seed: number;
  /** Label of the section that each phrase is. */
  labels?: string[];
}

/** Eighths of a bar, and of the unit in which the melody moves. */
const BAR: Record<Plan['meter'], [bar: number, unit: number]> = { '4/4': [8, 2], '3/4': [6, 2], '6/8': [6, 3], '2/4': [4, 2] };

interface Span {
  chord: Chord;
  eighths: number;
}

/** Lengths of the chords of a bar: as equal as the units allow, the first one longer. */
function shares(count: number, [bar, unit]: [number, number]): number[] {
  const units = bar / unit;
  const each = Math.floor(units / count);
  return Array.from({ length: count }, (_, k) => unit * (k === 0 ? units - each * (count - 1) : each));
}

/** A melody over the chords of a phrase, by chord tones on the units and passing notes between thirds. */
function melodyOf(spans: Span[][], tonic: number, end: Phrase['close'], unit: number, roll: (n: number) => number): string[] {
  let last: Tone = nearest(tonic + spans[0][0].chord.tones[roll(3)], 74);
  return spans.map((bar, index) => {
    if (index === spans.length - 1) {
      const { chord } = bar[bar.length - 1];
      const goal = end === 'PAC' ? chord.root : chord.tones[end === 'HC' ? 2 : 0];
      const before = bar.slice(0, -1).map((s) => `${written((last = nearest(tonic + s.chord.tones[1], midi(last))))}${s.eighths}`);
      last = nearest(tonic + goal, Math.min(78, Math.max(67, midi(last))));
      return [...before, `${written(last)}${bar[bar.length - 1].eighths}`].join(' ');
    }
    const notes: string[] = [];
    for (const { chord, eighths } of bar)
      for (let at = 0; at < eighths; at += unit) {
        const way = midi(last) > 79 ? -1 : midi(last) < 67 ? 1 : roll(2) ? 1 : -1;
        const goal = chord.tones
          .map((f) => nearest(tonic + f, midi(last) + 3 * way))
          .sort((a, b) => Math.abs(midi(a) - midi(last) - 3 * way) - Math.abs(midi(b) - midi(last) - 3 * way))[0];
        last = goal;
        // A neighbour a step below or above, diatonic in the chord's own scale, on the unaccented eighth.
        if (roll(3) === 0 && unit === 2 && chord.quality !== '?')
          notes.push(
            `${written(goal)}${unit - 1}`,
            `${written(nearest(goal.fifths + 2 * (goal.fifths - tonic > 3 ? -1 : 1), midi(goal) + 2))}`
          );
        else notes.push(`${written(goal)}${unit}`);
      }
    return notes.join(' ');
  });
}

/** A line alone, as in studies and partitas, that states its chords one note after the other. */
function soloOf(spans: Span[][], tonic: number, style: SoloStyle, end: Phrase['close'], roll: (n: number) => number): string[] {
  let last = nearest(tonic + spans[0][0].chord.tones[roll(3)], 72);
  let suspended: Tone | null = null;
  return spans.map((bar, index) => {
    const notes: string[] = [];
    bar.forEach(({ chord, eighths }, c) => {
      const members = chord.tones.map((f) => tonic + f);
      const bass = nearest(tonic + chord.tones[0], 57);
      const near = (way: number): Tone =>
        members
          .map((f) => nearest(f, midi(last) + way))
          .filter((t) => midi(t) !== midi(last))
          .sort((a, b) => Math.abs(midi(a) - midi(last) - way) - Math.abs(midi(b) - midi(last) - way))[0];
      const way = (): number => (midi(last) > 77 ? -4 : midi(last) < 66 ? 4 : roll(2) ? 4 : -4);
      if (index === spans.length - 1 && c === bar.length - 1) {
        const goal = nearest(tonic + (end === 'PAC' ? chord.root : chord.tones[end === 'HC' ? 2 : 0]), Math.min(74, midi(last)));
        notes.push(style === 'solo basses' ? `${written(bass)}${written(goal)}${eighths - 1}` : `${written(goal)}${eighths}`);
        return;
      }
      const own: string[] = [];
      const push = (t: Tone): void => {
        own.push(written(t));
        last = t;
      };
      if (style === 'solo basses') own.push(written(bass));
      // The note of the chord before, held over, falls a step into this one.
      if (style === 'solo suspensions' && suspended && eighths >= 4) {
        own.push(written(suspended));
        const goal: Tone = suspended;
        const down = members.map((f) => nearest(f, midi(goal) - 2)).find((t) => midi(goal) - midi(t) > 0 && midi(goal) - midi(t) < 3);
        if (down) push(down);
      }
      while (own.length < eighths) {
        const goal = near(way());
        const step = midi(goal) - midi(last);
        const passing =
          style !== 'solo basses' &&
          Math.abs(step) >= 3 &&
          Math.abs(step) <= 4 &&
          own.length + 1 < eighths &&
          own.length > 0 &&
          roll(3) > 0;
        if (passing) {
          const dir = Math.sign(step);
          // Between the two, a step from each, as the scale of the key has it.
          const between = [-1, 0, 1, 2, 3, 4, 5]
            .map((f) => nearest(tonic + f - (spans[0][0].chord.quality.startsWith('m') ? 3 : 0), midi(last) + dir * 2))
            .find((t) => Math.abs(midi(t) - midi(last)) <= 2 && (midi(t) - midi(last)) * dir > 0 && (midi(goal) - midi(t)) * dir > 0);
          if (between) own.push(written(between));
        }
        push(goal);
      }
      suspended = roll(2) ? last : null;
      notes.push(own.join(''));
    });
    return notes.join(' ');
  });
}

function accompany(span: Span, tonic: number, texture: SoundingScore, unit: number): [upper: string, lower: string] {
  const bass = nearest(tonic + span.chord.tones[0], 45);
  const inner = close(
    span.chord.tones.map((f) => tonic + f),
    texture === 'line' ? 57 : 52
  );
  const together = `[${inner.map(written).join('')}]`;
  const seated = (from: number) =>
    close(
      [...span.chord.tones.slice(1), ...span.chord.tones.slice(0, 1)].map((f) => tonic + f),
      from
    );
  if (texture === 'chorale') return [`[${seated(64).map(written).join('')}]${span.eighths}`, `${written(bass)}${span.eighths}`];
  if (texture === 'duet') return ['', `${written(bass)}${span.eighths}`];
  if (texture === 'waltz')
    return [
      '',
      [
        `${written(bass)}${unit}`,
        ...Array.from({ length: Math.floor(span.eighths / unit) - 1 }, () => `[${seated(54).slice(0, 3).map(written).join('')}]${unit}`)
      ].join(' ') + (span.eighths % unit ? `z${span.eighths % unit}` : '')
    ];
  const order = texture === 'alberti' ? [0, 2, 1, 2] : [0, 1, 2, inner.length - 1];
  const broken = Array.from({ length: span.eighths }, (_, k) => written(inner[order[k % 4]]));
  return ['', together && broken.join('')];
}

/** Written notes moved by steps on the line of fifths, each by the same interval. */
function moved(text: string, steps: number): string {
  const semitones = ((((7 * steps) % 12) + 17) % 12) - 5;
  return text.replace(/([=^_]+)([A-Ga-g])([,']*)/g, (_, sign: string, letter: string, marks: string) => {
    const alter = sign[0] === '^' ? sign.length : sign[0] === '_' ? -sign.length : 0;
    const octave = (letter < 'a' ? 4 : 5) + (marks.startsWith(',') ? -marks.length : marks.length);
    const tone = { fifths: LETTERS.indexOf(letter.toUpperCase()) - 1 + 7 * alter, octave };
    const goal = midi(tone) + semitones;
    return written(nearest(tone.fifths + steps, goal));
  });
}

/** The piece, written in C and moved to its key, and what it was written from. */
export function compose({ tonic, ...rest }: Plan): Agreed & { text: string } {
  const plan = { ...rest, tonic: 0 };
  const [bar, unit] = BAR[plan.meter];
  const upper: string[] = [];
  const lower: string[] = [];
  const agreed: Required<Pick<Agreed, 'keys' | 'chords' | 'cadences' | 'phraseEnds'>> = {
    keys: [],
    chords: {},
    cadences: [],
    phraseEnds: []
  };
  const keyAt = (by: number, numeral: string): string => {
    // The closing tonic tells the mode; half closes leave it open.
    const major = numeral === 'I' || (numeral !== 'i' && plan.mode === 'major');
    return `${nameOf(tonic + by)} ${major ? 'major' : 'minor'}`;
  };
  const alone = plan.texture === 'line' || isSolo(plan.texture);
  const upbeat = plan.upbeat && !alone;
  for (const phrase of plan.phrases) {
    // The same phrase has the same melody.
    const roll = dice(plan.seed * 97 + PHRASES[plan.mode].indexOf(phrase) + phrase.bars.join().length);
    const home = (k: number): number => plan.tonic + (phrase.turn && k >= phrase.turn[0] ? phrase.turn[1] : 0);
    const spans = phrase.bars.map((text, k) => {
      const romans = text.split(' ');
      const lengths = shares(romans.length, [bar, unit]);
      return romans.map((roman, i): Span => {
        const chord = chordOf(roman);
        const by = home(k) - plan.tonic;
        return { chord: { ...chord, root: chord.root + by, tones: chord.tones.map((t) => t + by) }, eighths: lengths[i] };
      });
    });
    if (upbeat) {
      const end = spans[spans.length - 1];
      end[end.length - 1].eighths--;
      const lead = `${written(nearest(plan.tonic + 1, 70))}`;
      // The piece's own upbeat stands in a bar of its own; the others close the bar of the phrase before.
      if (!upper.length) {
        upper.push(lead);
        lower.push('z');
      } else {
        upper[upper.length - 1] += lead;
        lower[lower.length - 1] += 'z';
      }
    }
    const solo = isSolo(plan.texture) ? soloOf(spans, plan.tonic, plan.texture, phrase.close, roll) : null;
    const tune = melodyOf(spans, plan.tonic, phrase.close, unit, roll);
    const first = lower.length - (upbeat ? 1 : 0);
    spans.forEach((chords, k) => {
      const both = chords.map((s) => accompany(s, plan.tonic, plan.texture, unit));
      lower.push(solo ? solo[k] : both.map(([, l]) => l).join(' '));
      upper.push(plan.texture === 'chorale' ? both.map(([u]) => u).join(' ') : tune[k]);
      const number = String(first + k + 1);
      // Asked for in eight shares of the bar, so that chords of unequal lengths are asked for where they stand.
      const names = chords.flatMap((s, i) =>
        Array.from({ length: s.eighths + (upbeat && k === spans.length - 1 && i === chords.length - 1 ? 1 : 0) }, () =>
          s.chord.quality === '?' ? '?' : nameOf(tonic + s.chord.root) + s.chord.quality
        )
      );
      agreed.chords[number] = names.join(' ');
    });
    const ends = String(first + phrase.bars.length);
    agreed.cadences.push([ends, phrase.close]);
    agreed.phraseEnds.push(ends);
    if (phrase.turn) {
      // Where the turn begins is a matter of opinion.
      const [from, by] = phrase.turn;
      if (from > 0) agreed.keys.push([String(first + 1), keyAt(0, '')], [String(first + from), '?']);
      agreed.keys.push([String(first + from + 1), keyAt(by, phrase.bars[phrase.bars.length - 1])]);
    } else agreed.keys.push([String(first + 1), keyAt(0, '')]);
  }
  const head = `M:${plan.meter}\nL:1/8`;
  const key = `K:${nameOf(tonic)}${plan.mode === 'minor' ? 'm' : ''}`;
  const bars = (of: string[]): string => `${moved(of.join('|\n'), tonic)}|]`;
  const text = alone
    ? `${head}\n${key}\n${bars(lower)}`
    : `${head}\n%%score {R L}\nV:R\nV:L clef=bass\n${key}\nV:R\n${bars(upper)}\nV:L\n${bars(lower)}`;
  const score = (): Score => abc(text);
  const firsts = agreed.phraseEnds.map((end, k) => String(k ? Number(agreed.phraseEnds[k - 1]) + 1 : 1));
  const sections = plan.labels?.map((label, k): [string, string] => [firsts[k], label]);
  return { name: plan.name, source: 'written from it', score, text, ...agreed, ...(sections ? { sections } : {}) };
}
