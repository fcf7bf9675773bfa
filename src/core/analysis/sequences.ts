import { SEQUENCE } from '../style/likeness.ts';
import { heightOf, type Beat } from './grid.ts';
import type { Tone } from './sounding-score.ts';

/** A model and its copies: half-open range of beats, unit in beats, staff steps from unit to unit. */
export interface BeatSequence {
  from: number;
  to: number;
  unit: number;
  units: number;
  steps: number;
  line: 'melody' | 'bass';
}

/** One line of the grid: its leading heights, all heights and the rhythm of every beat. */
interface Line {
  name: 'melody' | 'bass';
  lead: (number | null)[];
  entries: Tone[][];
  /** Heights of the entries. */
  heights: number[][];
  rhythm: number[];
}

function linesOf(beats: readonly Beat[]): Line[] {
  const melody: Line = {
    name: 'melody',
    lead: beats.map((b) => (b.lead ? heightOf(b.lead) : null)),
    entries: beats.map((b) => b.entries),
    heights: beats.map((b) => b.entries.map(heightOf)),
    rhythm: beats.map((b) => b.rhythm)
  };
  if (!beats.some((b) => b.bass && b.bass !== b.lead)) return [melody];
  const struck = beats.map((b) => (b.bass && b.bass.start >= b.start ? [b.bass] : []));
  const bass: Line = {
    name: 'bass',
    lead: beats.map((b) => (b.bass ? heightOf(b.bass) : null)),
    entries: struck,
    heights: struck.map((entries) => entries.map(heightOf)),
    rhythm: beats.map((b) => (b.bass && b.bass.start >= b.start ? 1 : 0))
  };
  return [melody, bass];
}

const isMoved = (x: number, y: number, steps: number, loose: boolean): boolean => y - x === steps || (loose && (y - x - steps) % 7 === 0);

/** True when every note of a beat stands `steps` higher in the other; octaves may break where `loose`. */
function agrees(line: Line, i: number, j: number, steps: number, loose: boolean): boolean {
  if (line.rhythm[i] !== line.rhythm[j]) return false;
  const a = line.lead[i];
  const b = line.lead[j];
  if (a === null || b === null) return a === b;
  if (!isMoved(a, b, steps, loose)) return false;
  const [p, q] = [line.heights[i], line.heights[j]];
  if (p.length !== q.length) return false;
  let wrong = 0;
  for (let k = 0; k < p.length; k++) if (!isMoved(p[k], q[k], steps, loose)) wrong++;
  return wrong === 0 || (p.length >= 4 && wrong === 1);
}

/** Notes of one chord only, in thirds: a broken chord, not a sequence. */
function isBrokenChord(notes: readonly Tone[]): boolean {
  const classes = [...new Set(notes.map((t) => ((heightOf(t) % 7) + 7) % 7))];
  return classes.some((root) => classes.every((c) => [0, 2, 4, 6].includes((c - root + 7) % 7)));
}

/** Notes that begin in a range of beats. */
const notesIn = (line: Line, from: number, to: number): Tone[] => line.entries.slice(from, to).flat();

/** A run that only goes one way by equal steps is a scale or an arpeggio, not a sequence. */
function isPlainRun(notes: readonly Tone[]): boolean {
  const heights = notes.map(heightOf).filter((h, k, all) => k === 0 || h !== all[k - 1]);
  const moves = heights.slice(1).map((h, k) => h - heights[k]);
  const first = moves[0] ?? 0;
  return (
    moves.every((m) => m === first) ||
    (moves.every((m) => m > 0) && Math.max(...moves) <= 2) ||
    (moves.every((m) => m < 0) && Math.min(...moves) >= -2)
  );
}

function scan(line: Line, unit: number, steps: number, loose: boolean): BeatSequence[] {
  const found: BeatSequence[] = [];
  const n = line.lead.length;
  for (let i = 0; i + unit < n;) {
    if (!agrees(line, i, i + unit, steps, loose) || line.lead[i] === null) {
      i++;
      continue;
    }
    let end = i;
    let missed = 0;
    let checked = 0;
    while (end + unit < n) {
      const ok = agrees(line, end, end + unit, steps, loose);
      checked++;
      if (!ok && (++missed > 1 || missed / Math.max(checked, unit) > 1 - SEQUENCE.agree)) break;
      // A copy may give way at its end only: what follows a miss must agree again.
      if (!ok && !(end + 1 + unit < n && agrees(line, end + 1, end + 1 + unit, steps, loose))) break;
      end++;
    }
    const length = end - i;
    const units = 1 + Math.floor((length + 0.26 * unit) / unit);
    const to = Math.min(n, i + units * unit, end + unit);
    if (units < SEQUENCE.fewestUnits) {
      i++;
      continue;
    }
    const model = notesIn(line, i, i + unit);
    const fits =
      model.length >= 2 &&
      new Set(model.map(heightOf)).size >= 2 &&
      !isPlainRun(notesIn(line, i, i + 2 * unit)) &&
      !isBrokenChord(notesIn(line, i, to)) &&
      notesIn(line, i, to).length >= (line.name === 'melody' ? 6 : 5);
    if (fits) found.push({ from: i, to, unit, units, steps, line: line.name });
    i = fits ? Math.max(i + 1, end) : i + 1;
  }
  return found;
}

/** A bar and a half in all; a bar is enough for four units and more. */
const isLongEnough = (s: BeatSequence, bar: number): boolean => s.to - s.from >= (s.units >= 4 ? bar : 1.5 * bar);

/**
 * Sequences in the melody and in the bass: at least three units at a constant step, in the smallest unit that
 * explains them. Exact ones first; octave breaks are allowed where nothing exact is found.
 */
export function findSequences(beats: readonly Beat[], bar: number): BeatSequence[] {
  const kept: BeatSequence[] = [];
  const covers = (a: BeatSequence, b: BeatSequence): boolean => {
    const shared = Math.min(a.to, b.to) - Math.max(a.from, b.from);
    return shared > 0.5 * Math.min(b.to - b.from, a.to - a.from);
  };
  for (const line of linesOf(beats)) {
    for (const loose of [false, true]) {
      const found: BeatSequence[] = [];
      for (let unit = 1; unit <= Math.min(SEQUENCE.longestUnitBeats, Math.floor(beats.length / 2)); unit++)
        for (const steps of loose ? [-3, -2, -1, 1, 2, 3] : [-6, -5, -4, -3, -2, -1, 1, 2, 3, 4, 5, 6])
          found.push(...scan(line, unit, steps, loose));
      found.sort((a, b) => (b.to - b.from) * (1 + 0.02 * b.units) - (a.to - a.from) * (1 + 0.02 * a.units) || a.unit - b.unit);
      for (const f of found.filter((s) => isLongEnough(s, bar))) if (!kept.some((k) => covers(k, f))) kept.push(f);
    }
  }
  return kept.sort((a, b) => a.from - b.from);
}

/** Heights on which the units begin, in the bass where there is one: the anchor notes. */
export function anchorsOf(beats: readonly Beat[], s: BeatSequence): Tone[] {
  const anchors: Tone[] = [];
  for (let at = s.from; at < s.to; at += s.unit) {
    const beat = beats[at];
    const tone = (beat.bass && beat.bass.start >= beat.start ? beat.bass : null) ?? beat.lead;
    if (tone) anchors.push(tone);
  }
  return anchors;
}

/** Staff steps, up to the octave, from the beginning of a unit to its middle; null where it has no middle of its own. */
function halfStep(beats: readonly Beat[], s: BeatSequence): number | null {
  if (s.unit % 2) return null;
  const low = (k: number): number | null => {
    const b = beats[k];
    const tone = b.bass ?? b.lead;
    return tone ? heightOf(tone) : null;
  };
  const votes = new Map<number, number>();
  for (let at = s.from; at + s.unit / 2 < s.to; at += s.unit) {
    const a = low(at);
    const b = low(at + s.unit / 2);
    if (a === null || b === null) continue;
    const h = (((b - a) % 7) + 7) % 7;
    votes.set(h, (votes.get(h) ?? 0) + 1);
  }
  return [...votes].sort((x, y) => y[1] - x[1])[0]?.[0] ?? null;
}

/**
 * Name of a sequence where it is a known cycle (handbook 2.7), from the falling and rising of the chord roots
 * (fifths on the line of fifths, by step) or, without chords, of the anchor notes.
 */
export function kindOf(beats: readonly Beat[], s: BeatSequence, roots: readonly number[], semitones: number): string | null {
  const moves = roots.slice(1).map((r, k) => r - roots[k]);
  const share = (test: (m: number) => boolean): number => (moves.length ? moves.filter(test).length / moves.length : 0);
  const falling = (m: number): boolean => m === -1 || m === 6;
  if (moves.length >= 2 && share(falling) >= 0.6) return 'descending fifths';
  if (s.steps === -2) return 'descending thirds';
  if (moves.length >= 2 && share((m) => m === 1 || m === -6) >= 0.6) return 'ascending fifths';
  const half = halfStep(beats, s);
  if (Math.abs(semitones) === 1 && Math.abs(s.steps) <= 1) return 'chromatic';
  if (s.steps === -1 && half === 3) return 'descending fifths';
  if ((s.steps === 3 || s.steps === -4) && s.unit >= 1 && half !== 4) return 'descending fifths';
  if (s.steps === 1 && (half === 5 || (moves.length >= 2 && share((m) => m === 3 || m === -4) >= 0.35))) return 'ascending 5-6';
  return null;
}
