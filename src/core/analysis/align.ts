import { pitchName } from '../score/pitch.ts';
import { heightOf } from './grid.ts';
import type { Tone } from './sounding-score.ts';

/** What two aligned places differ in at one point; null on the side where nothing stands. */
export interface Difference {
  kind: 'pitch' | 'alteration' | 'rhythm' | 'slur' | 'articulation' | 'dynamic' | 'ornament' | 'added' | 'left out';
  a: Tone | null;
  b: Tone | null;
  what: string;
}

export interface Alignment {
  pairs: { a: Tone; b: Tone }[];
  differences: Difference[];
  /** Semitones from a to b, by majority. */
  chromatic: number;
}

/** Cost of leaving a note out, of another pitch at the same time, and per beat of displacement; set by hand. */
const COST = { gap: 0.75, otherPitch: 0.9, beat: 0.45, longestShift: 2 };
/** Notes on either side of the diagonal that are compared. */
const BAND = 24;

/** Aligns two lines note by note; times count from the places' own beginnings, heights from `steps` apart. */
function alignLines(
  a: readonly Tone[],
  b: readonly Tone[],
  startA: number,
  startB: number,
  steps: number,
  beat: number
): [number, number][] {
  const n = a.length;
  const m = b.length;
  // Only a band around the diagonal is kept: one row a note of a, its cells counted from the row's first column.
  const width = 2 * BAND + 1;
  const firstOf = (i: number): number => Math.max(0, (n ? Math.round((i * m) / n) : 0) - BAND);
  const from = new Uint8Array((n + 1) * width);
  let above = new Float64Array(width).fill(Infinity);
  let row = new Float64Array(width);
  let before = 0;
  for (let i = 0; i <= n; i++) {
    const first = firstOf(i);
    const last = Math.min(m, first + width - 1, (n ? Math.round((i * m) / n) : 0) + BAND);
    const costAbove = (j: number): number => (j >= before && j < before + width ? above[j - before] : Infinity);
    row.fill(Infinity);
    for (let j = first; j <= last; j++) {
      const at = j - first;
      let best = i === 0 && j === 0 ? 0 : Infinity;
      let step = 0;
      if (i > 0 && costAbove(j) + COST.gap < best) [best, step] = [costAbove(j) + COST.gap, 1];
      if (at > 0 && row[at - 1] + COST.gap < best) [best, step] = [row[at - 1] + COST.gap, 2];
      if (i > 0 && j > 0) {
        const x = a[i - 1];
        const y = b[j - 1];
        const shift = Math.abs(x.start - startA - (y.start - startB)) / beat;
        if (shift <= COST.longestShift) {
          const same = heightOf(y) - heightOf(x) === steps;
          const value = costAbove(j - 1) + COST.beat * shift + (same ? 0 : shift < 0.01 ? COST.otherPitch : 2);
          if (value < best) [best, step] = [value, 3];
        }
      }
      row[at] = best;
      from[i * width + at] = step;
    }
    [above, row] = [row, above];
    before = first;
  }
  const pairs: [number, number][] = [];
  for (let i = n, j = m; i > 0 || j > 0;) {
    const step = from[i * width + j - firstOf(i)];
    if (step === 3) pairs.push([--i, --j]);
    else if (step === 1) i--;
    else if (step === 2) j--;
    else break;
  }
  return pairs.reverse();
}

const lineKey = (t: Tone): string => `${t.note.part}|${t.note.staff}|${t.note.voice}`;
const marksOf = (t: Tone, group: string): string =>
  (t.note.marks ?? [])
    .filter((m) => m.group === group)
    .map((m) => m.name)
    .sort()
    .join(', ');
const slurState = (t: Tone): string =>
  (t.note.spans ?? [])
    .filter((s) => s.kind === 'slur')
    .map((s) => s.type)
    .sort()
    .join(' ');
const name = (t: Tone): string => pitchName(t.note.sounding!);
const or = (text: string, nothing: string): string => text || nothing;

/**
 * Aligns all voices of two places and names every difference in notes, rhythm, slurs, articulation and ornaments.
 * Tones of each place in order of time; grace notes are left to the ornaments. `acrossVoices`: each place is one line, whatever
 * voice it stands in.
 */
export function alignPlaces(
  a: readonly Tone[],
  b: readonly Tone[],
  startA: number,
  startB: number,
  steps: number,
  beat: number,
  acrossVoices = false
): Alignment {
  const lines = (tones: readonly Tone[]): Map<string, Tone[]> => {
    const map = new Map<string, Tone[]>();
    for (const t of tones) {
      if (t.note.grace) continue;
      const key = acrossVoices ? '' : lineKey(t);
      const list = map.get(key);
      if (list) list.push(t);
      else map.set(key, [t]);
    }
    return map;
  };
  const linesA = lines(a);
  const linesB = lines(b);
  const pairs: { a: Tone; b: Tone }[] = [];
  const differences: Difference[] = [];
  for (const key of new Set([...linesA.keys(), ...linesB.keys()])) {
    const one = linesA.get(key) ?? [];
    const two = linesB.get(key) ?? [];
    const found = alignLines(one, two, startA, startB, steps, beat);
    const usedA = new Set(found.map(([i]) => i));
    const usedB = new Set(found.map(([, j]) => j));
    for (const [i, j] of found) pairs.push({ a: one[i], b: two[j] });
    one.forEach((t, i) => usedA.has(i) || differences.push({ kind: 'left out', a: t, b: null, what: `left out: ${name(t)}` }));
    two.forEach((t, j) => usedB.has(j) || differences.push({ kind: 'added', a: null, b: t, what: `added: ${name(t)}` }));
  }
  const chromatic = majority(pairs.filter((p) => heightOf(p.b) - heightOf(p.a) === steps).map((p) => p.b.midi - p.a.midi));
  for (const { a: x, b: y } of pairs) {
    if (heightOf(y) - heightOf(x) !== steps) differences.push({ kind: 'pitch', a: x, b: y, what: `pitch: ${name(x)} and ${name(y)}` });
    else if (y.midi - x.midi !== chromatic)
      differences.push({ kind: 'alteration', a: x, b: y, what: `alteration: ${name(x)} and ${name(y)}` });
    if (x.start - startA !== y.start - startB) differences.push({ kind: 'rhythm', a: x, b: y, what: 'rhythm: enters at another moment' });
    else if (x.end - x.start !== y.end - y.start) differences.push({ kind: 'rhythm', a: x, b: y, what: 'rhythm: another length' });
    if (slurState(x) !== slurState(y))
      differences.push({ kind: 'slur', a: x, b: y, what: `slur: ${or(slurState(x), 'none')} and ${or(slurState(y), 'none')}` });
    for (const kind of ['articulation', 'ornament'] as const) {
      const [p, q] = [marksOf(x, kind), marksOf(y, kind)];
      if (p !== q) differences.push({ kind, a: x, b: y, what: `${kind}: ${or(p, 'none')} and ${or(q, 'none')}` });
    }
  }
  const at = (d: Difference): number => (d.a ? d.a.start - startA : d.b!.start - startB);
  return { pairs, differences: differences.sort((p, q) => at(p) - at(q)), chromatic };
}

function majority(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  return [...counts].sort((p, q) => q[1] - p[1])[0]?.[0] ?? 0;
}
