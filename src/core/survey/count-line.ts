import { add, cmp, frac, mul, sub, toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter, groupingOf, inFullBar } from '../score/meter.ts';
import type { Measure, Note, Score } from '../score/model.ts';

/** One syllable of a count line. */
export interface CountSyllable {
  /** Quarters from the beginning of the measure. */
  onset: Fraction;
  text: string;
  /** A note enters here; ties are undone, so a note held over does not. */
  entry: boolean;
}

/** Syllables within a beat by the number of its parts; handbook 1.6, common practice. */
const SYLLABLES: Record<number, readonly string[]> = {
  1: [''],
  2: ['', '&'],
  3: ['', 'trip', 'let'],
  4: ['', 'e', '&', 'a'],
  6: ['', 'ta', 'trip', 'ta', 'let', 'ta'],
  8: ['', '·', 'e', '·', '&', '·', 'a', '·']
};

/** Fewest equal parts of a beat on which all entries fall; null when more than 12 would be needed. */
function partsOf(entries: readonly Fraction[], beat: Fraction): number | null {
  for (const parts of [1, 2, 3, 4, 5, 6, 7, 8, 9, 12]) {
    const unit = mul(beat, frac(1, parts));
    if (entries.every((e) => frac(e.n * unit.d, e.d * unit.n).d === 1)) return parts;
  }
  return null;
}

/** Syllables of the two halves of a beat that are divided differently, by the parts of each: two sixteenths, then a triplet. */
const FIRST_HALF: Record<number, readonly string[]> = { 1: [''], 2: ['', 'e'], 3: ['', 'trip', 'let'], 4: ['', '·', 'e', '·'] };
const SECOND_HALF: Record<number, readonly string[]> = { 1: ['&'], 2: ['&', 'a'], 3: ['&', 'trip', 'let'], 4: ['&', '·', 'a', '·'] };
/** From so many equal parts on no one counts them; the halves are tried. */
const TOO_MANY = 9;

/** A beat as it is counted: `at` may lie before an upbeat bar begins. */
interface CountedBeat {
  at: Fraction;
  length: Fraction;
  name: string;
}

/** Moments of a beat, from its beginning, with their syllables. */
function syllables(inside: readonly Fraction[], { length, name }: CountedBeat): { moment: Fraction; text: string }[] {
  const parts = partsOf(inside, length);
  const named = (text: string): string => text || name;
  if (parts === null || parts >= TOO_MANY) {
    const half = mul(length, frac(1, 2));
    const halves = [inside.filter((e) => cmp(e, half) < 0), inside.filter((e) => cmp(e, half) >= 0).map((e) => sub(e, half))].map((own) =>
      partsOf(own, half)
    );
    const words = [FIRST_HALF[halves[0] ?? 0], SECOND_HALF[halves[1] ?? 0]];
    if (words[0] && words[1])
      return words.flatMap((own, k) =>
        own.map((text, i) => ({ moment: add(mul(half, frac(k)), mul(half, frac(i, own.length))), text: named(text) }))
      );
  }
  if (parts === null) {
    const moments = inside.some((m) => m.n === 0) ? [...inside] : [frac(0), ...inside];
    return moments.map((moment, k) => ({ moment, text: k === 0 ? name : String(k + 1) }));
  }
  return Array.from({ length: parts }, (_, k) => ({
    moment: mul(length, frac(k, parts)),
    text: named(SYLLABLES[parts]?.[k] ?? String(k + 1))
  }));
}

/**
 * The count of one bar for one part (or one staff of it): every beat, and inside a beat the fewest parts on
 * which the entries fall. What matters is when the next note enters, so ties are undone and only entries are marked.
 */
export function countLine(score: Score, measure: Measure, part: number, staff: number | null = null): CountSyllable[] {
  const notes = score.notes.filter(
    (n) => n.measure === measure.index && n.part === part && !n.cue && !n.grace && (staff === null || n.staff === staff)
  );
  const entries = unique(notes.filter((n) => !n.rest && !n.tie?.stop).map((n) => n.onset));
  const result: CountSyllable[] = [];
  for (const beat of countedBeats(measure, notes)) {
    const end = add(beat.at, beat.length);
    const inside = entries.filter((e) => cmp(e, beat.at) >= 0 && cmp(e, end) < 0);
    const from = inside.map((e) => sub(e, beat.at));
    for (const { moment, text } of syllables(from, beat)) {
      const onset = add(beat.at, moment);
      // Of a beat that an upbeat shares with nothing only the sounding part is counted.
      if (onset.n < 0 || cmp(onset, measure.length) >= 0) continue;
      result.push({ onset, text, entry: inside.some((e) => cmp(e, onset) === 0) });
    }
  }
  return result;
}

/**
 * Beats of a bar with their names. Groups of additive meters count from 1 in units; compound meters count their units, as players
 * say them (1 2 3 4 5 6); an upbeat counts from where it stands in a full bar.
 */
function countedBeats(measure: Measure, notes: readonly Note[]): CountedBeat[] {
  const shape = beatOfMeter(measure);
  const groups = groupingOf(measure, notes);
  const unit =
    groups || shape.slots === 1 ? frac(4, measure.time?.unit ?? 4) : shape.slots === 3 ? mul(shape.beat, frac(1, 3)) : shape.beat;
  const names = groups?.flatMap((g) => Array.from({ length: g }, (_, k) => String(k + 1)));
  const shift = sub(inFullBar(measure, frac(0)), frac(0));
  const first = Math.floor(toNumber(shift) / toNumber(unit));
  const result: CountedBeat[] = [];
  for (let k = first; k < first + 64; k++) {
    const at = sub(mul(unit, frac(k)), shift);
    if (cmp(at, measure.length) >= 0) break;
    result.push({ at, length: unit, name: names?.[k] ?? String(k + 1) });
  }
  return result;
}

const unique = (list: Fraction[]): Fraction[] => list.filter((f, k) => list.findIndex((g) => cmp(f, g) === 0) === k).sort(cmp);

/** "1 & (2) & 3": syllables without an entry in brackets. */
export const countText = (line: readonly CountSyllable[]): string => line.map((s) => (s.entry ? s.text : `(${s.text})`)).join(' ');
