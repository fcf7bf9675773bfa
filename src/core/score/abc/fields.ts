import { frac, mul, type Fraction } from '../fraction.ts';
import type { KeySignature, TimeSignature } from '../model.ts';
import { stepOf } from '../pitch.ts';
import { timeSignature } from '../musicxml/attributes.ts';

/** Fifths of the major key on each natural tonic. Source: ABC 2.1, section 3.1.14. */
const TONIC_FIFTHS: Record<string, number> = { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 };
/** Shift of the signature against the major key, by mode. Source: ABC 2.1, section 3.1.14. */
const MODES: Record<string, number> = { maj: 0, ion: 0, '': 0, mix: -1, dor: -2, min: -3, m: -3, aeo: -3, phr: -4, loc: -5, lyd: 1 };
const MODE_NAMES: Record<string, string> = {
  maj: 'major',
  ion: 'ionian',
  mix: 'mixolydian',
  dor: 'dorian',
  min: 'minor',
  m: 'minor',
  aeo: 'aeolian',
  phr: 'phrygian',
  loc: 'locrian',
  lyd: 'lydian',
  '': 'major'
};

export interface KeyField {
  key: KeySignature;
  clef: string | null;
  transpose: number | null;
  octave: number | null;
  /** Highland pipe key: sharps in force, not printed for HP. */
  pipes: boolean;
}

/** Reads a K: field; null when it is no key. */
export function readKeyField(text: string): KeyField | null {
  const clef = /(?:clef=)?\b(treble|bass|alto|tenor|perc|none)([+-]8)?/i.exec(text);
  const transpose = /transpose=(-?\d+)/.exec(text);
  const octave = /octave=(-?\d+)/.exec(text);
  const base = {
    clef: clef ? clef[1].toLowerCase() + (clef[2] ?? '') : null,
    transpose: transpose ? Number(transpose[1]) : null,
    octave: octave ? Number(octave[1]) : null
  };
  const t = text.trim();
  // The pipers' scale: two sharps in force (Hp prints them, HP does not). Source: ABC 2.1, section 3.1.14.
  if (/^H[Pp]\b/.test(t)) return { ...base, key: { fifths: 2, mode: 'mixolydian' }, pipes: true };
  if (t === '' || /^none\b/i.test(t) || /^(clef=|transpose=|octave=|treble|bass|alto|tenor|perc)/.test(t))
    return { ...base, key: { fifths: 0 }, pipes: false };
  const match = /^([A-G])([#b]?)\s*([A-Za-z]*)/.exec(t);
  if (!match) return null;
  const word = match[3].toLowerCase();
  const mode = /^(treble|bass|alto|tenor|perc|exp|clef|transpose|octave|staff|middle)/.test(word)
    ? ''
    : word === 'm'
      ? 'm'
      : word.slice(0, 3);
  if (!(mode in MODES)) return null;
  const fifths = TONIC_FIFTHS[match[1]] + (match[2] === '#' ? 7 : match[2] === 'b' ? -7 : 0) + MODES[mode];
  const key: KeySignature = { fifths, mode: MODE_NAMES[mode] };
  const extra = [...t.matchAll(/(?:^|\s)(\^\^|\^|__|_|=)([A-Ga-g])\b/g)];
  if (extra.length) {
    key.steps = {};
    for (let step = 0; step < 7; step++) key.steps[step] = signature(step, fifths);
    for (const [, sign, letter] of extra) key.steps[stepOf(letter.toUpperCase())] = ACCIDENTALS[sign];
  }
  return { ...base, key, pipes: false };
}

function signature(step: number, fifths: number): number {
  const order = [3, 0, 4, 1, 5, 2, 6];
  if (fifths > 0) return order.slice(0, fifths).includes(step) ? 1 : 0;
  return order.slice().reverse().slice(0, -fifths).includes(step) ? -1 : 0;
}

export const ACCIDENTALS: Record<string, number> = { '^^': 2, '^': 1, '=': 0, _: -1, __: -2 };

/** Reads an M: field; undefined when it is no meter, null for free meter. */
export function readMeterField(text: string): TimeSignature | null | undefined {
  const t = text.trim();
  if (t === 'C') return timeSignature([{ beats: '4', unit: '4' }], 'common');
  if (t === 'C|') return timeSignature([{ beats: '2', unit: '2' }], 'cut');
  if (/^none$/i.test(t) || t === '') return null;
  const match = /^\(?([\d+]+)\)?\/(\d+)$/.exec(t.replace(/\s/g, ''));
  return match ? (timeSignature([{ beats: match[1], unit: match[2] }]) ?? undefined) : undefined;
}

/** A fraction of a whole note ("1/8") in quarters. */
export function readLengthField(text: string): Fraction | null {
  const match = /^\s*(\d+)(?:\/(\d+))?\s*$/.exec(text);
  const [top, bottom] = [Number(match?.[1] ?? 0), Number(match?.[2] ?? 1)];
  // Nothing is longer than four whole notes or shorter than any flag shows.
  return top > 0 && bottom > 0 && top <= 4 * bottom && bottom <= 2048 ? mul(frac(top, bottom), frac(4)) : null;
}

export interface TempoField {
  text: string;
  unit: Fraction | null;
  perMinute: string | null;
}

/** Reads a Q: field: `"Allegro" 1/4=120`, `1/4=120`, `120`. */
export function readTempoField(text: string, unitLength: Fraction): TempoField {
  const words = [...text.matchAll(/"([^"]*)"/g)].map((m) => m[1]).join(' ');
  const rest = text.replace(/"[^"]*"/g, ' ').trim();
  const match = /^((?:\d+\/\d+\s*)+)=\s*(\d+(?:\.\d+)?)$/.exec(rest);
  if (match) {
    const unit = match[1]
      .trim()
      .split(/\s+/)
      .map((f) => readLengthField(f)!)
      .reduce((a, b) => frac(a.n * b.d + b.n * a.d, a.d * b.d));
    return { text: words, unit, perMinute: match[2] };
  }
  if (/^\d+$/.test(rest)) return { text: words, unit: unitLength, perMinute: rest };
  return { text: words, unit: null, perMinute: null };
}
