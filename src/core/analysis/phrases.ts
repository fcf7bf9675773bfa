import type { Score } from '../score/model.ts';
import { toNumber } from '../score/fraction.ts';
import { BOUNDARY } from '../style/form-weights.ts';
import { sectionEnds, usualInterval, type CadenceCandidate } from './cadences.ts';
import { confidenceOf } from './confidence.ts';
import { factId, type PhraseFact } from './facts.ts';
import type { Pin } from './pins.ts';
import { firstFrom, fromTicks, slotAt, slotIndexAt, toTicks, type SoundingScore, type Tone } from './sounding-score.ts';

interface Boundary {
  /** Index in the melody of the first note of what would be the next phrase. */
  index: number;
  strength: number;
  evidence: string[];
  forced: boolean;
  /** A cadence, a rest or a fermata stands here. */
  closed: boolean;
}

/** Degree of change between two neighbouring values (Cambouropoulos 2001). */
const change = (a: number, b: number): number => (a + b === 0 ? 0 : Math.abs(a - b) / (a + b));

/** Local boundary strength before each melody note, normalised to 0…1. */
function localChange(melody: Tone[]): number[] {
  const profile = (values: number[]): number[] => {
    const s = values.map((x, i) => x * (change(values[i - 1] ?? x, x) + change(x, values[i + 1] ?? x)));
    const most = Math.max(...s, 1e-9);
    return s.map((x) => x / most);
  };
  const pairs = melody.slice(1).map((t, i) => ({ a: melody[i], b: t }));
  const pitch = profile(pairs.map(({ a, b }) => Math.abs(b.midi - a.midi) + 0.1));
  const interval = profile(pairs.map(({ a, b }) => b.start - a.start));
  const rest = profile(pairs.map(({ a, b }) => Math.max(0, b.start - a.end)));
  const W = BOUNDARY.local;
  return [0, ...pairs.map((_, i) => W.pitch * pitch[i] + W.interval * interval[i] + W.rest * rest[i])];
}

/** Notes under a slur that began earlier in the line, so that the line is not broken before them. */
function insideSlurs(score: Score, melody: Tone[]): Set<number> {
  const place = new Map(melody.map((t, i) => [t.note.id, i]));
  const inside = new Set<number>();
  for (const slur of score.slurs) {
    const from = place.get(slur.from);
    const to = place.get(slur.to);
    if (slur.kind !== 'slur' || from === undefined || to === undefined) continue;
    for (let i = from + 1; i <= to; i++) inside.add(i);
  }
  return inside;
}

/** The rhythm of a few notes from an index: distances between entries, up to a bar or so. */
const rhythmFrom = (melody: Tone[], index: number, count: number): number[] => {
  const rhythm: number[] = [];
  for (let i = index; i < Math.min(index + count, melody.length - 1); i++) rhythm.push(melody[i + 1].start - melody[i].start);
  return rhythm;
};

/** Moments at which a note of any voice bears a fermata, a breath mark or a caesura. */
function pauses(score: Score, sounding: SoundingScore): Set<number> {
  const moments = new Set<number>();
  for (const n of score.notes)
    if (n.marks?.some((m) => m.group === 'fermata' || m.name === 'breath-mark' || m.name === 'caesura'))
      moments.add(toTicks(sounding, n.start));
  return moments;
}

/** What the notes alone say of each joint of the line; depends on no chord and no correction. */
export interface JointEvidence {
  /** By index of the melody note after the joint. */
  joints: { strength: number; evidence: string[]; forced: boolean }[];
  bar: number;
}

/**
 * Looks once at every joint of the highest line; `returns` are the ticks at which longer passages begin that come twice,
 * `sequences` the ranges in which units follow one another. Signs: rests, long notes, slurs, pauses, the page's own divisions.
 */
export function jointEvidence(
  score: Score,
  sounding: SoundingScore,
  returns: readonly number[],
  sequences: readonly [from: number, to: number][]
): JointEvidence {
  const { melody } = sounding;
  const playable: JointEvidence = { joints: [], bar: usualBar(score) * sounding.ticksPerQuarter };
  if (melody.length === 0) return playable;
  const B = BOUNDARY;
  const beat = sounding.ticksPerQuarter;
  const usual = usualInterval(sounding);
  const local = localChange(melody);
  const inside = insideSlurs(score, melody);
  const ends = new Set(sectionEnds(score, sounding));
  const slurEnds = new Set(score.slurs.filter((s) => s.kind === 'slur').map((s) => s.to));
  const held = pauses(score, sounding);
  const returning = new Set(returns.map((t) => firstFrom(melody, t)));
  const opening = rhythmFrom(melody, 0, 5);
  const openingVaries = new Set(opening).size > 1;
  const firstPlace = placeInBar(sounding, melody[0].start);
  for (let i = 1; i < melody.length; i++) {
    const before = melody[i - 1];
    const tone = melody[i];
    const evidence: string[] = [];
    let strength = B.localChange * local[i];
    const gap = tone.start - before.end;
    if (gap > 0) {
      strength += B.rest * Math.min(1, gap / beat);
      evidence.push('a rest');
    }
    const length = tone.start - before.start;
    if (length >= B.longNoteRatio * usual) {
      strength += B.longNote * Math.min(1.5, length / (B.longNoteRatio * usual) - 0.5);
      evidence.push('a long note');
    }
    if (slurEnds.has(before.note.id)) strength += B.slurEnd;
    if (inside.has(i)) strength += B.insideSlur;
    if (held.has(before.start)) {
      strength += B.fermataOrBreath;
      evidence.push('a fermata or breath');
    }
    const slot = slotAt(sounding, tone.start);
    if (slot?.level === 3 && slot.start === tone.start) strength += B.onBar;
    if (Math.abs(placeInBar(sounding, tone.start) - firstPlace) < 1) strength += B.samePlaceInBar;
    const rhythm = rhythmFrom(melody, i, 5);
    if (openingVaries && rhythm.length === 5 && rhythm.every((r, k) => r === opening[k])) {
      strength += B.repetition;
      evidence.push('the opening rhythm returns');
    }
    if (gap < beat && sequences.some(([from, to]) => tone.start >= from && tone.start < to)) strength += B.insideSequence;
    if (returning.has(i)) {
      strength += B.returns;
      evidence.push('a passage begins that comes twice');
    }
    // A section's end divides the line at the last note before it, or at an upbeat to what follows it.
    let forced = false;
    for (const end of ends) {
      if (before.start < end && tone.start >= end) {
        strength += B.barline;
        forced = true;
        evidence.push('a section ends');
      }
    }
    playable.joints[i] = { strength, evidence, forced };
  }
  return playable;
}

/** Slots with the last note of a section. */
export function closingSlots(sounding: SoundingScore, { joints }: JointEvidence): Uint8Array {
  const { melody, slots } = sounding;
  const closing = new Uint8Array(slots.length);
  melody.forEach((tone, i) => {
    if (!joints[i + 1] || joints[i + 1].forced) closing[slotIndexAt(sounding, tone.start)] = 1;
  });
  return closing;
}

/** The joints worth trying: what the notes say, with cadences and the instructor's corrections. */
function boundaries(sounding: SoundingScore, playable: JointEvidence, candidates: CadenceCandidate[], pins: Pin[]): Boundary[] {
  const { melody } = sounding;
  const B = BOUNDARY;
  const set = new Map(pins.flatMap((p) => (p.kind === 'phrase-start' ? [[toTicks(sounding, p.start), p.here] as const] : [])));
  const result: Boundary[] = [];
  let cadence = 0;
  for (let i = 1; i < melody.length; i++) {
    const before = melody[i - 1];
    const tone = melody[i];
    let { strength, evidence, forced } = playable.joints[i];
    while (cadence + 1 < candidates.length && candidates[cadence + 1].at <= before.start) cadence++;
    for (const c of [candidates[cadence], candidates[cadence + 1]]) {
      if (!c || c.at > before.start || c.until < before.start || tone.start <= c.at) continue;
      // The first break after the arrival closes the phrase; later ones in the same chord less and less.
      const late = i - firstFrom(melody, c.at) - 1;
      if (c.score <= 0) continue;
      strength += (B.cadence * Math.min(1.2, c.score / 1.6)) / (1 + 0.5 * Math.max(0, late));
      evidence = [...evidence, `a cadence (${c.type})`];
      break;
    }
    const here = set.get(tone.start);
    if (here !== undefined) {
      forced = here;
      strength = here ? 99 : -99;
      evidence = [...evidence, 'set by the instructor'];
    }
    if (strength <= B.worthTrying) continue;
    const closed = forced || evidence.some((e) => /rest|cadence|fermata|instructor/.test(e));
    result.push({ index: i, strength, evidence, forced, closed });
  }
  return result;
}

function placeInBar(sounding: SoundingScore, ticks: number): number {
  const slot = slotAt(sounding, ticks);
  if (!slot) return 0;
  const end = sounding.measureStarts[slot.measure + 1] ?? sounding.totalTicks;
  // Counted back from the bar's end, so that a short first bar compares with the upbeats after it.
  return end - ticks;
}

/**
 * Phrases of the highest line: the division that earns most from the signs at its joints, less a price
 * for each joint and for unusual lengths. A shortest path over the possible joints.
 */
export function findPhrases(sounding: SoundingScore, playable: JointEvidence, candidates: CadenceCandidate[], pins: Pin[]): PhraseFact[] {
  const { melody } = sounding;
  if (melody.length === 0) return [];
  const joints = boundaries(sounding, playable, candidates, pins);
  const B = BOUNDARY;
  const { bar } = playable;
  const nodes: Boundary[] = [
    { index: 0, strength: 0, evidence: [], forced: false, closed: true },
    ...joints,
    { index: melody.length, strength: 0, evidence: ['the end of the piece'], forced: false, closed: true }
  ];
  const startOf = (node: Boundary): number => melody[node.index]?.start ?? sounding.totalTicks;
  const best = new Array<number>(nodes.length).fill(-Infinity);
  const from = new Array<number>(nodes.length).fill(0);
  best[0] = 0;
  for (let b = 1; b < nodes.length; b++) {
    // No length adds more than this; a way that cannot become the best one is not worked out.
    const longest = B.wholeBars + B.evenBars + B.alike + Math.max(0, B.openShort);
    const most = longest + (b < nodes.length - 1 ? nodes[b].strength - B.price : 0);
    for (let a = b - 1; a >= 0; a--) {
      const bars = (startOf(nodes[b]) - startOf(nodes[a])) / bar;
      if (best[a] + most <= best[b]) {
        if (nodes[a].forced || bars > B.longestBars) break;
        continue;
      }
      const octaves = Math.log2(Math.max(0.1, bars) / B.usualBars);
      let value = best[a] - B.length * octaves * octaves + (sameLength(bars, Math.round(bars)) ? B.wholeBars : 0);
      if (B.evenLengths.some((n) => sameLength(bars, n))) value += B.evenBars;
      if (a > 0 && sameLength(bars, (startOf(nodes[a]) - startOf(nodes[from[a]])) / bar)) value += B.alike;
      if (bars < B.shortestBars && !nodes[a].forced && !nodes[b].forced) value -= 3;
      if (bars <= B.openShortBars && b < nodes.length - 1 && !nodes[b].closed) value += B.openShort;
      if (b < nodes.length - 1) value += nodes[b].strength - B.price;
      if (value > best[b]) {
        best[b] = value;
        from[b] = a;
      }
      if (nodes[a].forced || bars > B.longestBars) break;
    }
  }
  const path: number[] = [];
  for (let k = nodes.length - 1; k > 0; k = from[k]) path.unshift(k);
  const phrases: PhraseFact[] = [];
  let open = 0;
  for (const k of path) {
    const says = (sign: RegExp): boolean => nodes[k].evidence.some((e) => sign.test(e));
    const first = melody[nodes[open].index];
    const last = melody[nodes[k].index - 1];
    phrases.push({
      id: factId('phrase', fromTicks(sounding, first.start)),
      start: fromTicks(sounding, first.start),
      end: fromTicks(sounding, nodes[k].index < melody.length ? melody[nodes[k].index].start : sounding.totalTicks),
      last: fromTicks(sounding, last.start),
      confidence: confidenceOf('phrase', {
        cadence: says(/cadence/),
        rest: says(/rest|long/),
        end: says(/end/) || nodes[k].index === melody.length,
        returns: says(/twice|returns/)
      }),
      evidence: nodes[k].evidence.join('; ') || 'the usual length'
    });
    open = k;
  }
  return phrases;
}

/** Lengths in bars come from a division, so they are compared within what that may lose. */
const sameLength = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;

function usualBar(score: Score): number {
  const counts = new Map<number, number>();
  for (const m of score.measures) counts.set(toNumber(m.length), (counts.get(toNumber(m.length)) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0][0] || 4;
}
