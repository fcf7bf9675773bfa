import { fifthsName, fifthsPc } from '../score/pitch.ts';
import { CONTENT } from '../style/tonality-weights.ts';
import { bestShare, SYMMETRIC_SCALES } from './no-key.ts';
import { shares } from './tonality.ts';
import type { Slot, Tone } from './sounding-score.ts';

/** What there is to say of music that no key explains, in plain words; counts are of notes or chords. */
export interface Content {
  /** Notes by their share of the time, the most heard first. */
  notes: { name: string; share: number }[];
  /** Name of the collection that they make: "whole-tone scale", "all twelve notes"; null where it has none. */
  collection: string | null;
  /** Notes with the most weight: long, strong, first and last. */
  centres: string[];
  /** Steps and leaps of the lines, the commonest first. */
  intervals: { name: string; share: number }[];
  /** What sounds together, the commonest first. */
  sets: { name: string; count: number }[];
}

const INTERVALS = [
  'repeated notes',
  'semitones',
  'whole tones',
  'minor thirds',
  'major thirds',
  'fourths',
  'tritones',
  'fifths',
  'minor sixths',
  'major sixths',
  'minor sevenths',
  'major sevenths',
  'octaves'
];
const intervalOf = (semitones: number): string => (Math.abs(semitones) <= 12 ? INTERVALS[Math.abs(semitones)] : 'leaps beyond the octave');

/** Chords by the intervals between neighbouring notes when laid as closely as can be, in semitones. */
const SETS: Record<string, string> = {
  '5,5': 'two fourths',
  '2,5': 'two fourths',
  '5,2': 'two fourths',
  '5,5,5': 'three fourths',
  '3,2,5': 'three fourths',
  '2,3,2': 'three fourths',
  '1,1': 'three neighbouring semitones',
  '2,2': 'three whole tones in a row',
  '4,4': 'an augmented triad',
  '3,3': 'a diminished triad',
  '3,3,3': 'a diminished seventh',
  '4,3': 'a major triad',
  '3,4': 'a minor triad',
  '1,5': 'a fourth and a tritone',
  '5,1': 'a fourth and a tritone',
  '2,4': 'whole tone and major third',
  '4,2': 'whole tone and major third',
  '1,3': 'semitone and minor third',
  '3,1': 'semitone and minor third',
  '1,2': 'semitone and whole tone',
  '2,1': 'semitone and whole tone',
  '1,4': 'semitone and major third',
  '4,1': 'semitone and major third',
  '2,3': 'whole tone and minor third',
  '3,2': 'whole tone and minor third'
};

/** Steps between neighbours of a set of notes in its closest position (normal order; Forte, The Structure of Atonal Music, 1973). */
export function closest(pcs: readonly number[]): number[] {
  const sorted = [...new Set(pcs)].sort((a, b) => a - b);
  let best: number[] = [];
  let span = Infinity;
  sorted.forEach((_, k) => {
    const turned = [...sorted.slice(k), ...sorted.slice(0, k).map((p) => p + 12)];
    const steps = turned.slice(1).map((p, i) => p - turned[i]);
    const wide = turned[turned.length - 1] - turned[0];
    if (wide < span || (wide === span && steps.join() < best.join())) [best, span] = [steps, wide];
  });
  return best;
}

function collectionOf(pcs: readonly number[]): string | null {
  const used = pcs.filter((x) => x > CONTENT.used).length;
  const symmetric = bestShare(pcs, SYMMETRIC_SCALES, 1);
  if (symmetric > CONTENT.symmetric && used <= CONTENT.wholeTones && bestShare(pcs, SYMMETRIC_SCALES.slice(0, 2), 1) > CONTENT.symmetric)
    return 'a whole-tone scale';
  if (symmetric > CONTENT.symmetric && used >= CONTENT.octatonic) return 'an octatonic scale, semitones and whole tones in turn';
  if (used >= CONTENT.twelve) return Math.max(...pcs) < CONTENT.equal ? 'all twelve notes, about equally' : 'all twelve notes';
  return null;
}

/** The content of a stretch of tones and of the slots that they fill. */
export function contentOf(tones: readonly Tone[], slots: readonly Slot[]): Content {
  const time = shares(tones);
  const names = new Map<number, { name: string; share: number; most: number }>();
  for (const [f, share] of time) {
    const known = names.get(fifthsPc(f));
    if (!known) names.set(fifthsPc(f), { name: fifthsName(f), share, most: share });
    else {
      known.share += share;
      if (share > known.most) [known.name, known.most] = [fifthsName(f), share];
    }
  }
  const weights = new Map<number, number>();
  const add = (t: Tone | undefined, weight: number): void => {
    if (t) weights.set(fifthsPc(t.fifths), (weights.get(fifthsPc(t.fifths)) ?? 0) + weight);
  };
  const total = tones.reduce((sum, t) => sum + t.end - t.start, 0) || 1;
  for (const t of tones) add(t, (t.end - t.start) / total);
  for (const s of slots)
    if (s.level === 3) for (const t of s.tones) add(t, CONTENT.strong / Math.max(1, slots.length / 8) / s.tones.length);
  add(tones[0], CONTENT.first);
  add(tones.at(-1), CONTENT.last);
  const heaviest = [...weights].sort((a, b) => b[1] - a[1]);
  const mean = heaviest.reduce((sum, [, w]) => sum + w, 0) / Math.max(1, heaviest.length);
  const steps = new Map<string, number>();
  let count = 0;
  for (const t of tones) {
    if (!t.next || t.note.grace) continue;
    const name = intervalOf(t.next.midi - t.midi);
    steps.set(name, (steps.get(name) ?? 0) + 1);
    count++;
  }
  const sets = new Map<string, number>();
  let before = '';
  for (const s of slots) {
    const pcs = [...new Set(s.tones.filter((t) => !t.note.grace).map((t) => fifthsPc(t.fifths)))].sort((a, b) => a - b);
    if (pcs.length < 3 || pcs.join() === before) continue;
    before = pcs.join();
    const name = SETS[closest(pcs).join()] ?? `${pcs.length} notes within ${closest(pcs).reduce((a, b) => a + b, 0)} semitones`;
    sets.set(name, (sets.get(name) ?? 0) + 1);
  }
  const pcs = Array.from({ length: 12 }, (_, k) => names.get(k)?.share ?? 0);
  const commonest = <T>(map: Map<string, number>, make: (name: string, n: number) => T): T[] =>
    [...map]
      .sort((a, b) => b[1] - a[1])
      .slice(0, CONTENT.most)
      .map(([name, n]) => make(name, n));
  return {
    notes: [...names.values()].map(({ name, share }) => ({ name, share })).sort((a, b) => b.share - a.share),
    collection: collectionOf(pcs),
    centres: heaviest.filter(([, w], k) => k < CONTENT.most && w >= CONTENT.centre * mean).map(([pc]) => names.get(pc)!.name),
    intervals: commonest(steps, (name, n) => ({ name, share: n / Math.max(1, count) })),
    sets: commonest(sets, (name, n) => ({ name, count: n }))
  };
}

/** The content as one line. */
export function contentWords(content: Content): string {
  const parts = [content.collection ?? `${content.notes.length} different notes`];
  parts.push(content.centres.length ? `most weight on ${content.centres.join(' and ')}` : 'no note has more weight than the others');
  if (content.intervals.length)
    parts.push(
      `moves mostly by ${content.intervals
        .slice(0, 2)
        .map((i) => i.name)
        .join(' and ')}`
    );
  if (content.sets.length) parts.push(`sounds together: ${content.sets[0].name}`);
  return parts.join('; ');
}
