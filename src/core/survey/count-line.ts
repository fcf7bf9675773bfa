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

/**
 * The count of one bar for one part (or one staff of it): every beat, and inside a beat the fewest parts on
 * which the entries fall. What matters is when the next note enters, so ties are undone and only entries are marked.
 */
export function countLine(score: Score, measure: Measure, part: number, staff: number | null = null): CountSyllable[] {
  const notes = score.notes.filter(
    (n) => n.measure === measure.index && n.part === part && !n.cue && !n.grace && (staff === null || n.staff === staff)
  );
  const entries = unique(notes.filter((n) => !n.rest && !n.tie?.stop).map((n) => n.onset));
  const beats = beatStarts(measure, notes);
  const result: CountSyllable[] = [];
  beats.forEach(({ at, length, name }) => {
    const end = add(at, length);
    const inside = entries.filter((e) => cmp(e, at) >= 0 && cmp(e, end) < 0);
    const parts = partsOf(
      inside.map((e) => sub(e, at)),
      length
    );
    const moments = parts === null ? inside.map((e) => sub(e, at)) : Array.from({ length: parts }, (_, k) => mul(length, frac(k, parts)));
    if (parts === null && !moments.some((m) => m.n === 0)) moments.unshift(frac(0));
    moments.forEach((moment, k) => {
      const onset = add(at, moment);
      const text = k === 0 ? name : (SYLLABLES[parts ?? 0]?.[k] ?? String(k + 1));
      result.push({ onset, text, entry: inside.some((e) => cmp(e, onset) === 0) });
    });
  });
  return result;
}

/** Beats of a bar with their names; groups of additive meters count from 1 in units, an upbeat from where it stands. */
function beatStarts(measure: Measure, notes: readonly Note[]): { at: Fraction; length: Fraction; name: string }[] {
  const shape = beatOfMeter(measure);
  const groups = groupingOf(measure, notes);
  // Additive and slow-unit meters are counted in their own unit.
  const unit = groups || shape.slots === 1 ? frac(4, measure.time?.unit ?? 4) : shape.beat;
  const shift = sub(inFullBar(measure, frac(0)), frac(0));
  const first = Math.floor(toNumber(shift) / toNumber(unit));
  const result: { at: Fraction; length: Fraction; name: string }[] = [];
  for (let k = first; k < first + 64; k++) {
    const start = sub(mul(unit, frac(k)), shift);
    const end = add(start, unit);
    if (cmp(start, measure.length) >= 0) break;
    const from = start.n < 0 ? frac(0) : start;
    const to = cmp(end, measure.length) > 0 ? measure.length : end;
    result.push({ at: from, length: sub(to, from), name: String(k + 1) });
  }
  return result;
}

const unique = (list: Fraction[]): Fraction[] => list.filter((f, k) => list.findIndex((g) => cmp(f, g) === 0) === k).sort(cmp);

/** "1 & (2) & 3": syllables without an entry in brackets. */
export const countText = (line: readonly CountSyllable[]): string => line.map((s) => (s.entry ? s.text : `(${s.text})`)).join(' ');
