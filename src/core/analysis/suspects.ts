import { keyAlter } from '../score/accidentals.ts';
import type { Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { fifthsPc, pitchName } from '../score/pitch.ts';
import { barLabel } from '../score/position.ts';
import type { Facts, ParallelFact } from './facts.ts';
import { parseKey } from './keys.ts';
import { toTicks, type Texture, type Tone } from './texture.ts';
import { TONES } from './vocabulary.ts';

/** A note that may be a misprint: a question with its evidence, never a correction (handbook 2.11). */
export interface SuspectFact {
  note: string;
  start: Fraction;
  /** What stands, and what the parallel place has there. */
  printed: string;
  expected: string;
  parallel: { id: string; note: string; start: Fraction };
  confidence: number;
  evidence: string;
}

/** More alteration differences than this share of the notes mean another mode or key, not misprints. */
const MOST_SHARE = 0.08;
/** Notes of a place that must belong together before one that does not is suspect. */
const FEWEST_NOTES = 8;

/** How well a note fits its surroundings: in the scale of its key, in its chord, with its own sign or by the signature. */
function fit(score: Score, texture: Texture, facts: Facts, tone: Tone): number {
  const chord = facts.chords.findLast((c) => toTicks(texture, c.start) <= tone.start);
  let value = 0;
  if (chord) {
    const root = parseKey(`${chord.root} major`)?.tonic ?? 0;
    if (TONES[chord.quality].some((t) => fifthsPc(root + t) === fifthsPc(tone.fifths))) value += 1;
    const relative = tone.fifths - chord.key.tonic;
    const scale = chord.key.minor ? [-4, -3, -2, -1, 0, 1, 2, 3, 5] : [-1, 0, 1, 2, 3, 4, 5];
    value += scale.includes(relative) ? 1 : -1;
  }
  const key = score.measures[tone.note.measure].key;
  if (tone.note.pitch && tone.note.pitch.alter === keyAlter(key, tone.note.pitch.step)) value += 0.25;
  return value;
}

/** True when an augmented or diminished step stands next to the note in its line, which one alteration would remove. */
function hardStep(tone: Tone): boolean {
  return [tone.previous, tone.next].some((other) => {
    if (!other) return false;
    const steps = Math.abs(
      (other.note.sounding!.octave - tone.note.sounding!.octave) * 7 + other.note.sounding!.step - tone.note.sounding!.step
    );
    const semitones = Math.abs(other.midi - tone.midi);
    return (steps === 1 && semitones === 3) || (steps === 0 && semitones === 1);
  });
}

/**
 * Notes whose alteration differs from all that a parallel place has, where the rest agrees, and which fit their
 * surroundings worse than the note of the parallel place would. One of the two is named, with the other as evidence.
 */
export function findSuspects(score: Score, texture: Texture, facts: Facts): SuspectFact[] {
  const byId = new Map(texture.tones.map((t) => [t.note.id, t]));
  const found = new Map<string, SuspectFact>();
  const place = (t: Tone): string => barLabel(score.measures, score.measures[t.note.measure]);
  for (const p of facts.parallels) {
    const altered = p.differences.filter((d) => d.kind === 'alteration' && d.noteA && d.noteB);
    if (!altered.length || p.pairs.length < FEWEST_NOTES || altered.length > Math.max(1, MOST_SHARE * p.pairs.length)) continue;
    if (otherMode(p)) continue;
    for (const d of altered) {
      const a = byId.get(d.noteA!);
      const b = byId.get(d.noteB!);
      if (!a || !b) continue;
      const [x, y] = [fit(score, texture, facts, a) - (hardStep(a) ? 0.6 : 0), fit(score, texture, facts, b) - (hardStep(b) ? 0.6 : 0)];
      if (x === y || Math.abs(x - y) < 0.5) continue;
      const [wrong, right] = x < y ? [a, b] : [b, a];
      if (found.has(wrong.note.id)) continue;
      // By how much the second place is higher than the interval of the two places asks.
      const off = b.midi - a.midi - p.semitones;
      found.set(wrong.note.id, {
        note: wrong.note.id,
        start: wrong.note.start,
        printed: pitchName(wrong.note.pitch!),
        expected: pitchName({ ...wrong.note.pitch!, alter: wrong.note.pitch!.alter + (wrong === a ? off : -off) }),
        parallel: { id: p.id, note: right.note.id, start: right.note.start },
        confidence: Math.round(100 * Math.min(0.95, 0.45 + 0.15 * Math.abs(x - y) + 0.01 * p.pairs.length)) / 100,
        evidence: `${place(wrong)} has ${pitchName(wrong.note.pitch!)} where ${place(right)}, the same music, has ${pitchName(right.note.pitch!)}`
      });
    }
  }
  return [...found.values()].sort((a, b) => a.start.n / a.start.d - b.start.n / b.start.d);
}

/** Thirds, sixths and sevenths altered throughout: the place returns in the other mode. */
function otherMode(p: ParallelFact): boolean {
  return p.differences.filter((d) => d.kind === 'alteration').length > 4;
}
