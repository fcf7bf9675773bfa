import { WIDE_LEAP } from '../style/analysis-weights.ts';
import { cmp, toNumber, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { isPickup } from '../score/position.ts';
import { dynamicStep } from '../style/dynamics.ts';
import type { Facts } from './facts.ts';
import { heightOf, type Beat } from './grid.ts';
import { beatLikeness } from './parallels.ts';
import { firstFrom, fromTicks, toTicks, type SoundingScore, type Tone } from './sounding-score.ts';

/** Small shapes and the texture around them (handbook 3.6). */
export interface GestureFact {
  kind:
    | 'rising upbeat'
    | 'falling upbeat'
    | 'repeated at once'
    | 'three times'
    | 'echo'
    | 'call and answer'
    | 'tutti'
    | 'solo'
    | 'melody below'
    | 'highest note'
    | 'lowest note'
    | 'leap';
  start: Fraction;
  end: Fraction;
  measure: number;
  evidence: string;
}

function upbeats(score: Score, sounding: SoundingScore, facts: Facts): GestureFact[] {
  const { melody } = sounding;
  const result: GestureFact[] = [];
  for (const p of facts.phrases) {
    const k = firstFrom(melody, toTicks(sounding, p.start));
    const first = melody[k];
    if (!first) continue;
    const bar = sounding.measureStarts.find((m) => m > first.start);
    // An upbeat: the phrase begins in the second half of its bar and leads over the bar line.
    const own = sounding.measureStarts.findLast((m) => m <= first.start) ?? 0;
    const pickup = isPickup(score.measures[first.note.measure]);
    if (bar === undefined || (!pickup && (first.start === own || bar - first.start > (bar - own) / 2))) continue;
    const goal = melody[firstFrom(melody, bar)];
    if (!goal || goal.start !== bar) continue;
    const move = heightOf(goal) - heightOf(first);
    if (move === 0) continue;
    result.push({
      kind: move > 0 ? 'rising upbeat' : 'falling upbeat',
      start: p.start,
      end: goal.note.start,
      measure: first.note.measure,
      evidence: `the upbeat ${move > 0 ? 'rises' : 'falls'} to the downbeat`
    });
  }
  return result;
}

/** Level in force at a moment in the first part that has one. */
function levelAt(score: Score, at: number, ticks: (f: Fraction) => number): number | null {
  const d = score.directions.filter((x) => x.kind === 'dynamic' && ticks(x.start) <= at).at(-1);
  return d?.kind === 'dynamic' ? dynamicStep(d.value) : null;
}

/** Units of half a bar to four bars that come again at once, twice or three times; softer ones are echoes. */
function repetitions(score: Score, sounding: SoundingScore, beats: readonly Beat[], bar: number): GestureFact[] {
  const result: GestureFact[] = [];
  const alike = (a: number, b: number, length: number): boolean => {
    if (b + length > beats.length) return false;
    let notes = 0;
    for (let k = 0; k < length; k++) {
      const value = beatLikeness(beats[a + k], beats[b + k], 0);
      if (value !== null && value < 0.9) return false;
      notes += beats[b + k].entries.length;
    }
    return notes >= 3;
  };
  const ticks = (f: Fraction): number => toTicks(sounding, f);
  let k = 0;
  while (k < beats.length) {
    let found = 0;
    for (const length of [4 * bar, 2 * bar, bar]) {
      if (!alike(k, k + length, length)) continue;
      const third = alike(k, k + 2 * length, length);
      const [first, second] = [levelAt(score, beats[k].start, ticks), levelAt(score, beats[k + length].start, ticks)];
      const softer = first !== null && second !== null && second < first;
      const count = third ? 3 : 2;
      result.push({
        kind: third ? 'three times' : softer ? 'echo' : 'repeated at once',
        start: fromTicks(sounding, beats[k].start),
        end: fromTicks(sounding, beats[Math.min(beats.length, k + count * length) - 1].end),
        measure: beats[k].measure,
        evidence: `${length / bar === 1 ? 'a bar' : `${length / bar} bars`} ${third ? 'three times' : softer ? 'and again, softer' : 'and again'}`
      });
      found = count * length;
      break;
    }
    k += found || 1;
  }
  return result;
}

/** Short units of contrasting register or voice that alternate, parted by rests or by staff. */
function callAndAnswer(sounding: SoundingScore): GestureFact[] {
  const { melody, ticksPerQuarter: beat } = sounding;
  const units: Tone[][] = [];
  for (const t of melody) {
    const last = units.at(-1)?.at(-1);
    const parted = !last || t.start - last.end >= beat / 2 || t.note.staff !== last.note.staff || t.note.part !== last.note.part;
    if (parted) units.push([t]);
    else units.at(-1)!.push(t);
  }
  const result: GestureFact[] = [];
  const mean = (u: readonly Tone[]): number => u.reduce((s, t) => s + t.midi, 0) / u.length;
  for (let k = 0; k + 3 < units.length; k++) {
    const four = units.slice(k, k + 4);
    if (four.some((u) => u.length < 2 || u[u.length - 1].end - u[0].start > 10 * beat)) continue;
    const [a, b, c, d] = four.map(mean);
    const high = Math.min(a, c) - Math.max(b, d);
    const low = Math.min(b, d) - Math.max(a, c);
    if (high < 4 && low < 4) continue;
    result.push({
      kind: 'call and answer',
      start: four[0][0].note.start,
      end: fromTicks(sounding, four[3][four[3].length - 1].end),
      measure: four[0][0].note.measure,
      evidence: `short units alternate between ${high >= 4 ? 'high and low' : 'low and high'}`
    });
    k += 3;
  }
  return result;
}

/** Where many parts play together and where few do; only for scores of several parts. */
function tuttiSolo(score: Score): GestureFact[] {
  if (score.parts.length < 3) return [];
  const counts = score.measures.map(() => new Set<number>());
  for (const n of score.notes) if (!n.rest && !n.cue) counts[n.measure].add(n.part);
  const result: GestureFact[] = [];
  let state: 'tutti' | 'solo' | null = null;
  counts.forEach((set, k) => {
    const now = set.size >= Math.max(3, 0.8 * score.parts.length) ? 'tutti' : set.size === 1 ? 'solo' : null;
    if (now && now !== state)
      result.push({
        kind: now,
        start: score.measures[k].start,
        end: score.measures[k].start,
        measure: k,
        evidence: `${set.size} of ${score.parts.length} parts play`
      });
    if (now || set.size) state = now;
  });
  return result;
}

/** Bars of a two-staff part in which the lower staff moves in longer, singing values under a repeated accompaniment. */
function melodyBelow(score: Score, sounding: SoundingScore): GestureFact[] {
  const part = score.parts.find((p) => p.staves === 2);
  if (!part) return [];
  const result: GestureFact[] = [];
  const byBar = new Map<number, Tone[]>();
  for (const t of sounding.tones) {
    if (t.note.part !== part.index || t.note.grace) continue;
    const bar = byBar.get(t.note.measure);
    if (bar) bar.push(t);
    else byBar.set(t.note.measure, [t]);
  }
  for (const m of score.measures) {
    const own = byBar.get(m.index) ?? [];
    const of = (staff: number) => own.filter((t) => t.note.staff === staff);
    const [upper, lower] = [of(1), of(2)];
    // Where it sang in the bar before, two notes go on with it.
    const least = result.at(-1)?.measure === m.index - 1 ? 2 : 3;
    if (lower.length < least || upper.length < 3) continue;
    const distinct = (tones: Tone[]): number => new Set(tones.map((t) => t.midi)).size / tones.length;
    const chords = new Set(upper.map((t) => t.start)).size < 0.67 * upper.length;
    const lineBelow = new Set(lower.map((t) => t.start)).size === lower.length;
    if (chords && lineBelow && distinct(lower) > 0.6 && distinct(upper) < 0.67)
      result.push({
        kind: 'melody below',
        start: m.start,
        end: m.start,
        measure: m.index,
        evidence: 'the lower staff has the line, the upper one repeats chords'
      });
  }
  return result;
}

function extremes(sounding: SoundingScore): GestureFact[] {
  const { melody } = sounding;
  if (melody.length < 4) return [];
  const high = melody.reduce((a, b) => (b.midi > a.midi ? b : a));
  const low = melody.reduce((a, b) => (b.midi < a.midi ? b : a));
  const fact = (kind: 'highest note' | 'lowest note', t: Tone): GestureFact => ({
    kind,
    start: t.note.start,
    end: fromTicks(sounding, t.end),
    measure: t.note.measure,
    evidence: `${kind} of the line, ${melody.filter((x) => x.midi === t.midi).length === 1 ? 'once' : 'more than once'}`
  });
  return [fact('highest note', high), fact('lowest note', low)];
}

function leaps(sounding: SoundingScore): GestureFact[] {
  return sounding.melody.slice(1).flatMap((t, k): GestureFact[] => {
    const from = sounding.melody[k];
    const wide = Math.abs(t.midi - from.midi) >= WIDE_LEAP && t.start === from.end && t.note.staff === from.note.staff;
    return wide
      ? [
          {
            kind: 'leap',
            start: from.note.start,
            end: t.note.start,
            measure: from.note.measure,
            evidence: `a leap ${t.midi > from.midi ? 'up' : 'down'} of ${Math.abs(heightOf(t) - heightOf(from)) + 1} notes`
          }
        ]
      : [];
  });
}

/** All gestures and facts of texture, in order of time. */
export function gestures(score: Score, sounding: SoundingScore, facts: Facts, beats: readonly Beat[], bar: number): GestureFact[] {
  return [
    ...upbeats(score, sounding, facts),
    ...repetitions(score, sounding, beats, bar),
    ...callAndAnswer(sounding),
    ...tuttiSolo(score),
    ...melodyBelow(score, sounding),
    ...extremes(sounding),
    ...leaps(sounding)
  ].sort((a, b) => cmp(a.start, b.start) || toNumber(a.end) - toNumber(b.end));
}
