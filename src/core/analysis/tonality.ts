import { fifthsPc } from '../score/pitch.ts';
import { TONALITY } from '../style/tonality-weights.ts';
import { COMMON, type World } from './harmony-space.ts';
import type { HarmonyResult } from './harmony-search.ts';
import { usualInterval } from './cadences.ts';
import { firstFrom, type SoundingScore, type Tone } from './sounding-score.ts';
import type { PlacedSymbol } from './symbols.ts';
import { isMinorMode, MODE_SCALES, MODES, type Mode } from './vocabulary.ts';
import type { Key } from './keys.ts';

/** What a key is where it is neither plain major nor minor. "none": no tonal reading fits. */
export const TONALITIES = ['blues', ...MODES, 'pentatonic', 'none'] as const;
export type Tonality = (typeof TONALITIES)[number];

/** Time that each note has in all, by its place on the line of fifths; shares of 1. */
export function shares(tones: readonly Tone[]): Map<number, number> {
  const amounts = new Map<number, number>();
  let total = 0;
  for (const t of tones) {
    if (t.note.grace) continue;
    amounts.set(t.fifths, (amounts.get(t.fifths) ?? 0) + t.end - t.start);
    total += t.end - t.start;
  }
  for (const [f, amount] of amounts) amounts.set(f, amount / Math.max(1, total));
  return amounts;
}

/** Lowest tone that sounds at a tick. */
function lowestAt(sounding: SoundingScore, tick: number): Tone | null {
  let low: Tone | null = null;
  for (let k = firstFrom(sounding.tones, tick + 1) - 1, seen = 0; k >= 0 && seen < 64; k--, seen++) {
    const t = sounding.tones[k];
    if (!t.note.grace && t.end > tick && (!low || t.midi < low.midi)) low = t;
  }
  return low;
}

/** Notes on which the music comes to rest: long ones of the line, those before rests, with the lowest note under them. */
function restingNotes(sounding: SoundingScore, ends: readonly number[]): Map<number, number> {
  const usual = usualInterval(sounding);
  const rests = new Map<number, number>();
  let total = 0;
  sounding.melody.forEach((tone, k) => {
    const next = sounding.melody[k + 1];
    // The last note is a final already; whether it is a centre too must show before it.
    if (!next) return;
    const span = next.start - tone.start;
    const closes = ends.some((e) => tone.start < e && next.start >= e);
    const weight = closes ? 2 : span >= 2 * usual ? 1 : 0;
    const low = weight ? lowestAt(sounding, tone.start) : null;
    if (!low) return;
    rests.set(low.fifths, (rests.get(low.fifths) ?? 0) + weight);
    total += weight;
  });
  for (const [f, weight] of rests) rests.set(f, weight / Math.max(1, total));
  return rests;
}

/** The last note: of a line its last, of a texture the lowest that sounds at the end. */
function finalOf(sounding: SoundingScore): number | null {
  const last = sounding.melody.at(-1);
  if (!last) return null;
  return sounding.singleLine ? last.fifths : (lowestAt(sounding, last.start)?.fifths ?? last.fifths);
}

/** How much of a centre each note is. */
function centres(sounding: SoundingScore, ends: readonly number[]): (fifths: number) => number {
  const time = shares(sounding.tones);
  const rests = restingNotes(sounding, ends);
  const strong = sounding.slots.find((s) => s.level === 3 && s.tones.length);
  const first = strong ? strong.tones.reduce((a, b) => (b.midi < a.midi ? b : a)).fifths : null;
  const T = TONALITY;
  return (f) => T.time * (time.get(f) ?? 0) + T.rest * (rests.get(f) ?? 0) + (first === f ? T.first : 0);
}

/** Degrees of which a mode has one and major or minor the other, by the notes of the scale: [its own, the other]. */
const TELLING: Record<Mode, [number, number][]> = {
  mixolydian: [
    [4, -3],
    [-2, 5]
  ],
  dorian: [
    [-3, 4],
    [3, -4],
    [-2, 5]
  ],
  aeolian: [
    [-3, 4],
    [-4, 3],
    [-2, 5]
  ],
  phrygian: [
    [-3, 4],
    [-5, 2],
    [-2, 5]
  ],
  lydian: [
    [4, -3],
    [6, -1],
    [5, -2]
  ]
};
/** Steps from the final to the tonic of the major key with the same notes. */
const RELATIVE: Record<Mode, number> = { mixolydian: -1, dorian: -2, aeolian: -3, phrygian: -4, lydian: 1 };

/** The mode of a piece: its final, the notes of its scale, and the final as its centre; null where major or minor fits. */
function modeOf(sounding: SoundingScore, ends: readonly number[]): { key: Key; mode: Mode } | null {
  const final = finalOf(sounding);
  if (final === null || sounding.measureStarts.length < TONALITY.modeBars) return null;
  const time = shares(sounding.tones);
  const of = (f: number): number => time.get(final + f) ?? 0;
  const T = TONALITY;
  const scale = (mode: Mode): number => (MODE_SCALES[mode] as readonly number[]).reduce((sum, f) => sum + of(f), 0);
  const mode = MODES.find(
    (m) =>
      scale(m) >= T.scale &&
      TELLING[m].every(([own, other], k) => {
        const both = of(own) + of(other);
        // A leading note, even a rare one, makes minor of a mode.
        const needed = own === -2 && isMinorMode(m) ? T.ownSeventh : T.own;
        return (k === 0 || of(own) >= (isMinorMode(m) ? T.heardInMinor : T.heard)) && of(own) >= needed * both && both > 0;
      })
  );
  if (!mode) return null;
  const telling = final + TELLING[mode].at(mode === 'dorian' || mode === 'phrygian' || mode === 'lydian' ? 1 : -1)![0];
  const bars = new Set(sounding.tones.filter((t) => t.fifths === telling).map((t) => t.note.measure));
  // A raised fourth is often a leading note to the fifth, a lowered seventh one on its way to the fourth.
  if (bars.size < (mode === 'lydian' || mode === 'mixolydian' ? T.tellingBars : 1)) return null;
  const centre = centres(sounding, ends);
  // Nor is the final the dominant on which a piece, or an excerpt, stops.
  const rival = Math.max(centre(final + RELATIVE[mode]), centre(final - 1));
  return centre(final) >= T.centre * rival ? { key: { tonic: final, minor: isMinorMode(mode) }, mode } : null;
}

/** The final of a minor tune that has no sixth degree, and a seventh that is always the flat one: no mode, but no dominant either. */
function gappedMinor(sounding: SoundingScore): Key | null {
  const final = finalOf(sounding);
  if (final === null) return null;
  const time = shares(sounding.tones);
  const of = (f: number): number => time.get(final + f) ?? 0;
  const plain = [0, 2, -3, -1, 1, -2].reduce((sum, f) => sum + of(f), 0);
  return plain >= 1 - TONALITY.foreign && of(-2) >= TONALITY.flatSeventh && of(-3) >= TONALITY.heard ? { tonic: final, minor: true } : null;
}

/** The key of a tune on five notes, where it ends on the tonic of their major or minor; null where other notes sound too. */
function pentatonicOf(sounding: SoundingScore): Key | null {
  const time = [...shares(sounding.tones)].filter(([, share]) => share > TONALITY.foreign).map(([f]) => f);
  const low = Math.min(...time);
  if (time.length !== 5 || Math.max(...time) - low !== 4) return null;
  const final = finalOf(sounding);
  if (final === low) return { tonic: low, minor: false };
  return final === low + 3 ? { tonic: final, minor: true } : null;
}

/** Keys in which a blues could stand by its signature: the printed major, or the major on the tonic of the printed minor. */
export function bluesKeys(sounding: SoundingScore, signatures: readonly number[], symbols: readonly PlacedSymbol[]): Key[] {
  const bars = sounding.measureStarts.length;
  if (bars < TONALITY.bars) return [];
  const time = shares(sounding.tones);
  const printed = [signatures[0], signatures[0] + 3, signatures[0] + 1].map((tonic): Key => ({ tonic, minor: false }));
  const pcs = new Map<number, number>();
  for (const [f, share] of time) pcs.set(fifthsPc(f), (pcs.get(fifthsPc(f)) ?? 0) + share);
  const heard = (f: number): number => pcs.get(fifthsPc(f)) ?? 0;
  return printed.filter(({ tonic }) =>
    symbols.length
      ? [0, -1].every((f) => symbols.some((s) => s.kind === 'dom7' && fifthsPc(s.root) === fifthsPc(tonic + f)))
      : heard(tonic - 2) >= TONALITY.flatSeventh && heard(tonic - 3) >= TONALITY.flatThird && heard(tonic - 2) >= heard(tonic + 5) / 2
  );
}

/** True where a search among the chords of the blues reads dominant sevenths on tonic and subdominant most of the time. */
export function isBlues(found: HarmonyResult, common: HarmonyResult): boolean {
  const { slots, ticksPerQuarter } = found.playable.sounding;
  const T = TONALITY;
  let total = 0;
  const sevenths = new Map<number, number>();
  for (const span of found.spans) {
    const length = slots[span.to - 1].end - slots[span.from].start;
    total += length;
    if (span.type.quality === 'dom7') sevenths.set(span.type.root, (sevenths.get(span.type.root) ?? 0) + length);
  }
  const beats = total / ticksPerQuarter;
  const share = (root: number): number => (sevenths.get(root) ?? 0) / Math.max(1, total);
  return (
    share(0) >= T.each &&
    share(-1) >= T.each &&
    share(0) + share(-1) + share(1) >= T.sevenths &&
    common.worth - found.worth <= T.slack * beats &&
    found.worth >= T.worth * beats
  );
}

/** In what world a piece is read before any chord is known: a mode, five notes, symbols, or the common one. */
export function worldOf(
  sounding: SoundingScore,
  ends: readonly number[],
  symbols: readonly PlacedSymbol[]
): { world: World; tonality: Tonality | null } {
  if (symbols.length) return { world: { vocabulary: 'symbols', key: null }, tonality: null };
  if (!sounding.melody.length) return { world: COMMON, tonality: null };
  const mode = modeOf(sounding, ends);
  if (mode) return { world: { vocabulary: mode.mode, key: mode.key }, tonality: mode.mode };
  const five = pentatonicOf(sounding);
  if (five) return { world: { vocabulary: 'common', key: five }, tonality: 'pentatonic' };
  const gapped = sounding.singleLine && sounding.melody.length >= TONALITY.gappedNotes ? gappedMinor(sounding) : null;
  if (gapped) return { world: { vocabulary: 'aeolian', key: gapped }, tonality: null };
  return { world: COMMON, tonality: null };
}
