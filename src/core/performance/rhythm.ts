import { add, cmp, format, frac, sub, toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter, inFullBar } from '../score/meter.ts';
import type { Measure, Score } from '../score/model.ts';
import { tiedLength } from '../score/ties.ts';
import { swingRatio } from '../style/swing.ts';

/** One entry of a bar, as it is counted and where it falls. */
export interface Entry {
  note: string;
  /** Quarters from the bar line, and written length with ties. */
  at: Fraction;
  length: Fraction;
  /** "2 &", "3 e", "1 trip": what is said when it enters. */
  count: string;
  /** Seconds from the bar line at a tempo; with swing where it moves. */
  seconds: number;
  swung: number | null;
}

/** A group of neighbouring values with its ratio. */
export interface Ratio {
  /** "3 : 1" */
  says: string;
  at: Fraction;
  /** Where the second value enters within the group: written, and as a triplet would have it. */
  share: number;
  /** Seconds between its place and the triplet's; null where the two are not to be confused. */
  fromTriplet: number | null;
}

const HALVES = ['', '&'];
const FOURTHS = ['', 'e', '&', 'a'];
const THIRDS = ['', 'trip', 'let'];

/** What is counted at a moment of a bar (handbook 1.6); finer entries are told as fractions of the beat. */
function countAt(measure: Measure, at: Fraction): string {
  const { beat, slots } = beatOfMeter(measure);
  // An upbeat is counted as the end of a bar.
  const full = inFullBar(measure, at);
  const beats = frac(full.n * beat.d, full.d * beat.n);
  const number = Math.floor(toNumber(beats));
  const rest = sub(beats, frac(number));
  const names = slots === 3 ? { 3: ['', '2', '3'] } : { 2: HALVES, 4: FOURTHS, 3: THIRDS };
  if (rest.n === 0) return String(number + 1);
  const word = (names as Record<number, string[]>)[rest.d]?.[rest.n];
  return `${number + 1} ${word ?? format(rest)}`;
}

/**
 * Where each entry of a line falls in a bar.
 * @param line ids of the notes that belong to the line
 * @param tempo quarters a minute
 */
export function entriesOf(score: Score, measure: Measure, line: ReadonlySet<string>, tempo: number): Entry[] {
  const { beat, slots } = beatOfMeter(measure);
  const beatQuarters = toNumber(beat);
  const ratio = swingRatio(tempo / beatQuarters);
  return score.notes
    .filter((n) => n.measure === measure.index && line.has(n.id) && !n.chord && !n.tie?.stop)
    .sort((a, b) => cmp(a.onset, b.onset))
    .map((n) => {
      const offset = toNumber(n.onset) / beatQuarters;
      const half = slots === 2 && Math.abs(offset - Math.floor(offset) - 0.5) < 1e-9;
      return {
        note: n.id,
        at: n.onset,
        length: tiedLength(score, n),
        count: countAt(measure, n.onset),
        seconds: (toNumber(n.onset) * 60) / tempo,
        swung: half ? ((Math.floor(offset) + ratio / (1 + ratio)) * beatQuarters * 60) / tempo : null
      };
    });
}

/** Pairs of unequal neighbours inside a beat: three to one must not soften to two to one (handbook 1.7). */
export function ratiosOf(entries: readonly Entry[], tempo: number): Ratio[] {
  return entries.flatMap((a, k) => {
    const b = entries[k + 1];
    if (!b || a.length.n === 0 || b.length.n === 0) return [];
    const whole = add(a.length, b.length);
    const next = entries[k + 2]?.at;
    // The second value has to end with the group, or the pair is none.
    if (next && toNumber(next) < toNumber(add(a.at, whole)) - 1e-9) return [];
    if (toNumber(add(a.at, a.length)) !== toNumber(b.at) || toNumber(whole) > 2) return [];
    const ratio = frac(a.length.n * b.length.d, a.length.d * b.length.n);
    if (ratio.n === ratio.d || Math.max(ratio.n, ratio.d) > 7) return [];
    const share = toNumber(a.length) / toNumber(whole);
    const triplet = share > 0.5 ? 2 / 3 : 1 / 3;
    const away = ((share - triplet) * toNumber(whole) * 60) / tempo;
    return [
      {
        says: `${ratio.n} : ${ratio.d}`,
        at: a.at,
        share,
        fromTriplet: Math.abs(share - triplet) < 1e-9 || Math.abs(share - triplet) > 0.2 ? null : away
      }
    ];
  });
}
