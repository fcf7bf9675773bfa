import {
  ONLY_ONE_AMONG,
  MOST_SUSPECT_SHARE,
  FEWEST_PAIRED_NOTES,
  MOST_LOOSE,
  MOST_LOOSE_EXACT,
  MOST_LOOSE_NEAR
} from '../style/analysis-weights.ts';
import { keyAlter } from '../score/accidentals.ts';
import { toNumber, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { pitchName } from '../score/pitch.ts';
import { barLabel } from '../score/position.ts';
import type { Facts, ParallelFact } from './facts.ts';
import { parseKey } from './keys.ts';
import { toTicks, type SoundingScore, type Tone } from './sounding-score.ts';
import { SCALE, TONES } from './vocabulary.ts';
import { inSigns } from './words.ts';

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

const looseness = (p: ParallelFact): number =>
  p.differences.filter((d) => !d.noteA || !d.noteB || d.kind === 'pitch').length / Math.max(1, p.pairs.length);

/** The same for the notes of one's own voice within a bar. */
function looseNear(p: ParallelFact, byId: ReadonlyMap<string, Tone>, at: Tone, bar: number): number {
  const near = (id: string | undefined): boolean => {
    const note = id === undefined ? undefined : byId.get(id)?.note;
    const own = note?.part === at.note.part && note.staff === at.note.staff && note.voice === at.note.voice;
    return own && Math.abs(toNumber(note.start) - toNumber(at.note.start)) <= bar;
  };
  const pairs = p.pairs.filter(([a]) => near(a)).length;
  const loose = p.differences.filter((d) => (!d.noteB || d.kind === 'pitch') && near(d.noteA)).length;
  return loose / Math.max(1, pairs);
}

/** True when a spelling belongs to the chord that sounds at a note. */
function belongs(sounding: SoundingScore, facts: Facts, at: Tone, fifths: number): boolean {
  const chord = facts.chords.findLast((c) => toTicks(sounding, c.start) <= at.start);
  const root = chord ? (parseKey(`${chord.root} major`)?.tonic ?? 0) : 0;
  return chord !== undefined && TONES[chord.quality].some((t) => root + t === fifths);
}

/**
 * True where a note is what its own chord asks for, and that chord does what such chords do: an applied dominant that goes to its
 * goal, a Neapolitan or augmented sixth that goes to the dominant. There a difference from the parallel place is composed.
 */
function isCalledFor(sounding: SoundingScore, facts: Facts, tone: Tone): boolean {
  const k = facts.chords.findLastIndex((c) => toTicks(sounding, c.start) <= tone.start);
  const [chord, next] = [facts.chords[k], facts.chords[k + 1]];
  if (!chord || !next || !belongs(sounding, facts, tone, tone.fifths)) return false;
  if (chord.special) return next.role === 'dominant' || next.special !== null || next.role === 'tonic';
  return chord.applied && chord.roman.endsWith(`/${next.roman.replace(/[\d%o]+$/, '')}`);
}

/** True for the ornament of a decorated return: between two notes a half step away, as their neighbour from below or on the way from one to the other. */
function decorates({ midi, previous, next, start, end }: Tone): boolean {
  if (!previous || !next || end - start > previous.end - previous.start || previous.end < start) return false;
  const [into, out] = [midi - previous.midi, next.midi - midi];
  return (into === -1 && out === 1) || (Math.abs(into) === 1 && into === out);
}

/** True where two notes are reached and left by the same steps, whatever their alterations. */
const sameTurn = (a: Tone, b: Tone): boolean =>
  [a, b].every((t) => t.previous && t.next) &&
  a.height - a.previous!.height === b.height - b.previous!.height &&
  a.next!.height - a.height === b.next!.height - b.height;

/** How a note stands in its surroundings: in its chord as spelled, in the scale of its key, by the signature. */
interface Fit {
  inChord: boolean;
  inScale: boolean;
  /** For choosing the worse of two notes. */
  value: number;
}

function fit(score: Score, sounding: SoundingScore, facts: Facts, tone: Tone): Fit {
  const chord = facts.chords.findLast((c) => toTicks(sounding, c.start) <= tone.start);
  const inChord = belongs(sounding, facts, tone, tone.fifths);
  const scale = SCALE[chord?.key.minor ? 'minor' : 'major'];
  const inScale = chord !== undefined && scale.includes(tone.fifths - chord.key.tonic);
  const key = score.measures[tone.note.measure].key;
  const plain = tone.note.pitch !== undefined && tone.note.pitch.alter === keyAlter(key, tone.note.pitch.step);
  const value = (inChord ? 1 : 0) + (inScale ? 1 : -1) + (plain ? 0.25 : 0) - (hardStep(tone) ? 0.6 : 0);
  return { inChord, inScale, value };
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
export function findSuspects(score: Score, sounding: SoundingScore, facts: Facts): SuspectFact[] {
  const byId = new Map(sounding.tones.map((t) => [t.note.id, t]));
  const found = new Map<string, SuspectFact>();
  const place = (t: Tone): string => barLabel(score.measures, score.measures[t.note.measure]);
  for (const p of facts.parallels) {
    const altered = p.differences.filter((d) => d.kind === 'alteration' && d.noteA && d.noteB);
    if (!altered.length || p.pairs.length < FEWEST_PAIRED_NOTES || altered.length > Math.max(2, MOST_SUSPECT_SHARE * p.pairs.length))
      continue;
    if (otherMode(p) || looseness(p) > (p.semitones === 0 ? MOST_LOOSE_EXACT : MOST_LOOSE)) continue;
    for (const d of altered) {
      const a = byId.get(d.noteA!);
      const b = byId.get(d.noteB!);
      if (!a || !b) continue;
      if (looseNear(p, byId, a, toNumber(score.measures[a.note.measure].length)) > MOST_LOOSE_NEAR) continue;
      const [x, y] = [fit(score, sounding, facts, a), fit(score, sounding, facts, b)];
      if (x.value === y.value) continue;
      const [wrong, right, worse, better] = x.value < y.value ? [a, b, x, y] : [b, a, y, x];
      // At the same pitch the chord of the other place judges, since a wrong note colours the chord that is read from it.
      // At another pitch, where keys answer freely, the note must be foreign to its own chord and key.
      const exact = p.semitones === 0;
      const foreignThere = better.inChord && !belongs(sounding, facts, right, wrong.fifths);
      // Where nothing else differs at all, one note that does is a question whatever it fits.
      const onlyOne = exact && p.pairs.length >= ONLY_ONE_AMONG && p.differences.length <= 2;
      if (exact ? !foreignThere && !onlyOne && worse.inScale : worse.inChord || worse.inScale) continue;
      if (found.has(wrong.note.id) || isCalledFor(sounding, facts, wrong) || (decorates(wrong) && !sameTurn(wrong, right))) continue;
      // By how much the second place is higher than the interval of the two places asks.
      const off = b.midi - a.midi - p.semitones;
      found.set(wrong.note.id, {
        note: wrong.note.id,
        start: wrong.note.start,
        printed: pitchName(wrong.note.pitch!),
        expected: pitchName({ ...wrong.note.pitch!, alter: wrong.note.pitch!.alter + (wrong === a ? off : -off) }),
        parallel: { id: p.id, note: right.note.id, start: right.note.start },
        confidence: Math.round(100 * Math.min(0.95, 0.45 + 0.15 * (better.value - worse.value) + 0.01 * p.pairs.length)) / 100,
        evidence: inSigns(
          `${place(wrong)} has ${pitchName(wrong.note.pitch!)} where ${place(right)}, the same music, has ${pitchName(right.note.pitch!)}`
        )
      });
    }
  }
  return [...found.values()].sort((a, b) => a.start.n / a.start.d - b.start.n / b.start.d);
}

/** Thirds, sixths and sevenths altered throughout: the place returns in the other mode. */
function otherMode(p: ParallelFact): boolean {
  return p.differences.filter((d) => d.kind === 'alteration').length > 4;
}
