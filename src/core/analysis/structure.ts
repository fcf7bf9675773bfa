import { lazily } from '../once.ts';
import { LIKENESS } from '../style/likeness.ts';
import { add, cmp, format, sub, toNumber, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { intervalName } from '../score/pitch.ts';
import { measureAt, positionAt } from '../score/position.ts';
import { alignPlaces } from './align.ts';
import { findEchoes, type Echo, type EchoLine } from './echoes.ts';
import { sectionEnds } from './cadences.ts';
import {
  factId,
  type CadenceFact,
  type ChordFact,
  type KeyFact,
  type ParallelFact,
  type PhraseFact,
  type SectionFact,
  type SequenceFact,
  type Span
} from './facts.ts';
import type { Pin } from './pins.ts';
import { beatGrid, beatIndexAt, beatsPerBar, heightOf, type Beat } from './grid.ts';
import { toldKey } from './key-words.ts';
import { parseKey } from './keys.ts';
import { sharedPlaces, type TwoPlaces } from './overlap.ts';
import { findPairs, type BeatPair } from './parallels.ts';
import { findSections, formName, likenessOf, type BeatSection } from './sections.ts';
import { anchorsOf, findSequences, kindOf, type BeatSequence } from './sequences.ts';
import { firstFrom, fromTicks, toTicks, type SoundingScore, type Tone } from './sounding-score.ts';

/**
 * The ground of comparisons: beats, pairs and sequences; depends on the notes alone, not on chords or corrections. Pairs
 * and sequences are costly and found when they are asked for.
 */
export interface Comparison {
  beats: Beat[];
  bar: number;
  pairs: BeatPair[];
  sequences: BeatSequence[];
  /** What returns in another voice or displaced by less than a beat. */
  echoes: Echo[];
}

export function compare(score: Score, sounding: SoundingScore): Comparison {
  const beats = beatGrid(score, sounding);
  const bar = beatsPerBar(beats);
  return lazily<Comparison>({
    beats: () => beats,
    bar: () => bar,
    pairs: () => findPairs(beats, bar),
    sequences: () => findSequences(beats, bar),
    echoes: () => findEchoes(sounding, beats, bar)
  });
}

/** Bars that a passage needs for its beginnings to be joints. */
const JOINT_BARS = 3.5;

/** Ticks at which longer passages begin that come twice. */
export const returnsOf = ({ beats, pairs, bar }: Comparison): number[] =>
  pairs.filter((p) => p.length >= JOINT_BARS * bar && p.likeness >= 0.75).flatMap((p) => [beats[p.a].start, beats[p.b].start]);

const tonesBetween = (sounding: SoundingScore, from: number, to: number): Tone[] =>
  sounding.tones.slice(firstFrom(sounding.tones, from), firstFrom(sounding.tones, to));

/** A span from tick to tick, with the last note that begins in it. */
function spanOf(sounding: SoundingScore, from: number, to: number): Span {
  const last = sounding.tones[firstFrom(sounding.tones, to) - 1];
  return { start: fromTicks(sounding, from), end: fromTicks(sounding, to), last: fromTicks(sounding, Math.max(from, last?.start ?? from)) };
}

/** Trims silence: from the first note that begins in the beats to the last. */
const soundingSpan = (sounding: SoundingScore, beats: readonly Beat[], from: number, to: number): Span =>
  firstToLast(sounding, beats[from].start, beats[to - 1].end);

/** The same from tick to tick. */
function firstToLast(sounding: SoundingScore, start: number, end: number): Span {
  const first = sounding.tones[firstFrom(sounding.tones, start)];
  return spanOf(sounding, first && first.start < end ? first.start : start, end);
}

/** Place in the bar, in quarters from the bar line; an upbeat counts to the end of a full bar, at a repeat after what the bar before it holds. */
function inBar(score: Score, at: Fraction): Fraction {
  const measure = measureAt(score, at);
  const full = measure.time?.quarters;
  const own = sub(at, measure.start);
  if (!full || cmp(measure.length, full) >= 0) return own;
  if (measure.index === 0) return add(own, sub(full, measure.length));
  const before = score.measures[measure.index - 1].length;
  return cmp(add(before, measure.length), full) <= 0 ? add(own, before) : own;
}

/** By how much most notes of the second place stand later in their bars; beats cut differently by an upbeat do not matter to it. */
function usualShift(score: Score, pairs: readonly { a: Tone; b: Tone }[]): Fraction | null {
  const counts = new Map<string, { shift: Fraction; count: number }>();
  for (const { a, b } of pairs) {
    const shift = sub(inBar(score, b.note.start), inBar(score, a.note.start));
    const found = counts.get(format(shift)) ?? { shift, count: 0 };
    found.count++;
    counts.set(format(shift), found);
  }
  let most: { shift: Fraction; count: number } | null = null;
  for (const entry of counts.values()) if (!most || entry.count > most.count) most = entry;
  return most?.shift ?? null;
}

/** Notes of one place beyond this many beats are not aligned one by one. */
const MOST_ALIGNED_BEATS = 400;

/** A pair of places as it is told, and the notes of each that are compared. */
interface Places extends TwoPlaces {
  steps: number;
  likeness: number;
  /** Ends up to which notes are aligned. */
  alignedA: number;
  alignedB: number;
  lines?: [EchoLine, EchoLine];
}

/** All places that are the same music: what returns as a whole, and what returns in another voice or displaced. */
export function parallelFacts(score: Score, sounding: SoundingScore, comparison: Comparison): ParallelFact[] {
  const { beats, pairs, echoes } = comparison;
  const whole = pairs.map((pair) => placesOf(beats, pair));
  const same = (x: TwoPlaces, y: TwoPlaces): boolean => sharedPlaces(x, y) > LIKENESS.overlap;
  const length = ({ fromA, toA }: TwoPlaces): number => toA - fromA;
  // Note for note is the better account of two that tell of the same places.
  const told = whole.filter(
    (p) =>
      !echoes.some(
        (e) => e.lineA === e.lineB && e.fromB - e.fromA !== p.fromB - p.fromA && length(e) > LIKENESS.overlap * length(p) && same(e, p)
      )
  );
  const others = echoes.filter((e) => !told.some((p) => length(p) > LIKENESS.overlap * length(e) && same(p, e)));
  return [
    ...told.map((p) => parallelFact(score, sounding, comparison, p)),
    ...others.map((e) => parallelFact(score, sounding, comparison, { ...e, alignedA: e.toA, alignedB: e.toB, lines: [e.lineA, e.lineB] }))
  ].sort((x, y) => cmp(x.a.start, y.a.start) || cmp(x.b.start, y.b.start));
}

function placesOf(beats: readonly Beat[], pair: BeatPair): Places {
  const length = Math.min(pair.length, MOST_ALIGNED_BEATS);
  return {
    fromA: beats[pair.a].start,
    toA: beats[pair.a + pair.length - 1].end,
    fromB: beats[pair.b].start,
    toB: beats[pair.b + pair.length - 1].end,
    steps: pair.steps,
    likeness: pair.likeness,
    alignedA: beats[pair.a + length - 1].end,
    alignedB: beats[pair.b + length - 1].end
  };
}

/** A line in words. */
function lineWords(score: Score, line: EchoLine): string {
  if (line.name === 'bass') return 'the bass';
  const [part, staff, voice] = line.name.split('|');
  const own = score.parts[Number(part)];
  if (score.parts.length > 1) return own.name || `part ${Number(part) + 1}`;
  if (own.staves > 1) return staff === '1' ? 'the upper staff' : 'the lower staff';
  return `voice ${voice}`;
}

/** Places that the instructor has declared to be the same music, aligned like those that were found. */
export function pinnedParallels(score: Score, sounding: SoundingScore, comparison: Comparison, pins: readonly Pin[]): ParallelFact[] {
  const { beats } = comparison;
  return pins.flatMap((pin) => {
    if (pin.kind !== 'same-music') return [];
    const a = beatIndexAt(beats, toTicks(sounding, pin.start));
    const b = beatIndexAt(beats, toTicks(sounding, pin.other));
    const end = beatIndexAt(beats, toTicks(sounding, add(pin.start, pin.length)) - 1) + 1;
    const length = Math.min(end - a, beats.length - b);
    if (length < 1 || a === b) return [];
    const { steps, likeness } = likenessOf(beats, { from: a, to: a + length }, { from: b, to: b + length });
    const fact = parallelFact(score, sounding, comparison, placesOf(beats, { a, b, length, steps, likeness }));
    return [{ ...fact, id: pin.id, confidence: 1, evidence: `set by the instructor; ${fact.evidence}`, pinned: true as const }];
  });
}

function parallelFact(score: Score, sounding: SoundingScore, { beats, bar }: Comparison, places: Places): ParallelFact {
  const { fromA, fromB, lines } = places;
  const first = beats[beatIndexAt(beats, fromA)];
  const beat = first.end - first.start;
  const tonesOf = (line: EchoLine | undefined, from: number, to: number): Tone[] =>
    line ? line.tones.slice(firstFrom(line.tones, from), firstFrom(line.tones, to)) : tonesBetween(sounding, from, to);
  const {
    pairs: notes,
    differences,
    chromatic
  } = alignPlaces(
    tonesOf(lines?.[0], fromA, places.alignedA),
    tonesOf(lines?.[1], fromB, places.alignedB),
    fromA,
    fromB,
    places.steps,
    beat,
    lines !== undefined
  );
  const a = firstToLast(sounding, fromA, places.toA);
  const b = firstToLast(sounding, fromB, places.toB);
  const place = (t: Tone | null, own: number, other: Tone | null, otherStart: number): Fraction =>
    fromTicks(sounding, t ? t.start : own + (other!.start - otherStart));
  const bars = Math.max(1, Math.round((places.toA - fromA) / (beat * bar)));
  const share = notes.length ? Math.round((100 * notes.length) / (notes.length + differences.filter((d) => !d.a || !d.b).length)) : 0;
  const shift = usualShift(score, notes) ?? sub(inBar(score, fromTicks(sounding, fromB)), inBar(score, fromTicks(sounding, fromA)));
  const words = lines && lines[0] !== lines[1] ? ([lineWords(score, lines[0]), lineWords(score, lines[1])] as [string, string]) : null;
  return {
    id: `parallel-${factId('', a.start)}-${factId('', b.start)}`,
    a,
    b,
    transposition: intervalName({ diatonic: places.steps, chromatic }),
    semitones: chromatic,
    shift,
    ...(words ? { lines: words } : {}),
    weight: Math.round(100 * ((places.toA - fromA) / (beat * bar)) * places.likeness) / 100,
    differences: differences.map((d) => ({
      kind: d.kind,
      what: d.what,
      a: place(d.a, fromA, d.b, fromB),
      b: place(d.b, fromB, d.a, fromA),
      ...(d.a ? { noteA: d.a.note.id } : {}),
      ...(d.b ? { noteB: d.b.note.id } : {})
    })),
    pairs: notes.map((p) => [p.a.note.id, p.b.note.id] as [string, string]),
    confidence: Math.round(100 * Math.min(0.99, places.likeness + Math.min(0.15, 0.02 * bars))) / 100,
    evidence: `${bars} ${bars === 1 ? 'bar' : 'bars'}, ${share} % of the notes belong together`
  };
}

/** Half-open ranges of ticks inside sequences of short units, after the first unit's beginning and before the last one. */
export const insideSequences = ({ beats, sequences, bar }: Comparison): [number, number][] =>
  sequences
    .filter((s) => s.unit <= 2 * bar && s.line === 'melody')
    .map((s) => [beats[s.from].start + 1, beats[Math.max(s.from, s.to - s.unit)].start + 1]);

/** Chords in a row, each a fifth below the one before, that make a sequence without a motive. */
const FALLING = 5;

/** Falling fifths in the chords themselves, in equal lengths, where no motive tells of them. Handbook 2.7. */
function fallingFifths(sounding: SoundingScore, chords: readonly ChordFact[], known: readonly SequenceFact[]): SequenceFact[] {
  const roots = chords.map((c) => parseKey(`${c.root} major`)?.tonic ?? NaN);
  const length = (c: ChordFact): number => toNumber(sub(c.end, c.start));
  const found: SequenceFact[] = [];
  for (let from = 0; from < chords.length;) {
    let to = from + 1;
    const falls = (k: number): boolean => [-1, 6].includes(roots[k] - roots[k - 1]) && cmp(chords[k - 1].end, chords[k].start) === 0;
    // The last chord may be held.
    while (to < chords.length && falls(to) && Math.abs(length(chords[to - 1]) - length(chords[from])) < 0.01) to++;
    const run = chords.slice(from, to);
    from = Math.max(from + 1, to - 1);
    if (run.length < FALLING || !run.every((c) => length(c) >= length(run[0]) - 0.01)) continue;
    const span = firstToLast(
      sounding,
      toTicks(sounding, run[0].start),
      toTicks(sounding, add(run[run.length - 1].start, sub(run[0].end, run[0].start)))
    );
    const covered = known.some((s) => toNumber(s.start) < toNumber(span.end) && toNumber(s.end) > toNumber(span.start));
    if (covered) continue;
    const unit = add(sub(run[0].end, run[0].start), sub(run[1].end, run[1].start));
    found.push({
      ...span,
      id: factId('sequence', span.start),
      unit,
      units: Math.floor(run.length / 2),
      step: '-M2',
      kind: 'descending fifths',
      line: 'bass',
      anchors: [],
      confidence: Math.min(0.95, 0.55 + 0.05 * run.length),
      evidence: `${run.length} chords, each a fifth below the one before: ${run.map((c) => c.roman).join(' ')}`
    });
  }
  return found;
}

/** Sequences of a motive, and falling fifths of plain chords. */
export function sequenceFacts(sounding: SoundingScore, comparison: Comparison, chords: readonly ChordFact[]): SequenceFact[] {
  const motivic = motivicSequences(sounding, comparison, chords);
  return [...motivic, ...fallingFifths(sounding, chords, motivic)].sort((a, b) => cmp(a.start, b.start));
}

function motivicSequences(sounding: SoundingScore, { beats, sequences }: Comparison, chords: readonly ChordFact[]): SequenceFact[] {
  return sequences.map((s) => {
    const span = soundingSpan(sounding, beats, s.from, s.to);
    const tones = s.line === 'melody' ? (k: number) => beats[k].lead : (k: number) => beats[k].bass;
    const votes = new Map<number, number>();
    for (let k = s.from; k + s.unit < s.to; k++) {
      const [x, y] = [tones(k), tones(k + s.unit)];
      if (x && y && heightOf(y) - heightOf(x) === s.steps) votes.set(y.midi - x.midi, (votes.get(y.midi - x.midi) ?? 0) + 1);
    }
    const chromatic = [...votes].sort((a, b) => b[1] - a[1] || Math.abs(b[0]) - Math.abs(a[0]))[0]?.[0] ?? Math.round((s.steps * 12) / 7);
    const inside = chords.filter(
      (c) => toTicks(sounding, c.start) >= toTicks(sounding, span.start) && toTicks(sounding, c.start) < toTicks(sounding, span.end)
    );
    const roots = inside.map((c) => parseKey(`${c.root} major`)?.tonic ?? 0).filter((r, k, all) => k === 0 || r !== all[k - 1]);
    const kind = kindOf(beats, s, roots, chromatic);
    return {
      ...span,
      id: factId('sequence', span.start),
      unit: fromTicks(sounding, beats[s.from + s.unit].start - beats[s.from].start),
      units: s.units,
      step: intervalName({ diatonic: s.steps, chromatic }),
      kind,
      line: s.line,
      anchors: anchorsOf(beats, s).map((t) => t.note.id),
      confidence: Math.min(0.98, 0.7 + 0.07 * s.units),
      evidence: `${s.units} units in the ${s.line}, each ${s.steps > 0 ? 'higher' : 'lower'} than the one before`
    };
  });
}

/** Bars for which a new meter must hold, and the old one before it, to make a section. */
const METER_HOLDS = 8;

/** Measures at which the page itself divides besides its bar lines: rehearsal letters, another signature, another meter that stays. */
function printedDivisions({ measures }: Score): number[] {
  const holds = (from: number, to: number): boolean => measures.slice(from, to).every((m) => m.time?.text === measures[from].time?.text);
  return measures
    .filter((m, k) => {
      if (k === 0) return false;
      const meter = m.time?.text !== measures[k - 1].time?.text;
      const stays = k >= METER_HOLDS && holds(k, k + METER_HOLDS) && holds(k - METER_HOLDS, k);
      return m.rehearsal !== undefined || m.key.fifths !== measures[k - 1].key.fifths || (meter && stays);
    })
    .map((m) => m.index);
}

/** Sections and the name of the form. */
export function sectionFacts(
  score: Score,
  sounding: SoundingScore,
  { beats, bar, pairs, echoes }: Comparison,
  phrases: readonly PhraseFact[],
  keys: readonly KeyFact[],
  chords: readonly ChordFact[],
  cadences: readonly CadenceFact[],
  pins: readonly Pin[] = []
): { sections: SectionFact[]; form: string | null } {
  const set = pins.filter((p): p is Extract<Pin, { kind: 'section' }> => p.kind === 'section');
  const melodyStarts = phrases.map((p) => toTicks(sounding, p.start));
  // An upbeat belongs to what it leads into: a section begins with the first phrase at or just before its bar line.
  const withUpbeat = (tick: number): number => melodyStarts.find((p) => p >= tick - barTicks && p < tick && lateInBar(p)) ?? tick;
  const barTicks = bar * (beats[0] ? beats[Math.min(1, beats.length - 1)].end - beats[Math.min(1, beats.length - 1)].start : 1);
  const lateInBar = (tick: number): boolean => {
    const measure = measureAt(score, fromTicks(sounding, tick));
    return toNumber(sub(fromTicks(sounding, tick), measure.start)) > toNumber(measure.length) / 2;
  };
  const ends = sectionEnds(score, sounding);
  const displaced = echoes
    .filter((e) => e.lineA === e.lineB && e.lineA.name !== 'bass')
    .map((e): BeatPair => {
      const [a, b] = [beatIndexAt(beats, e.fromA), beatIndexAt(beats, e.fromB)];
      return { a, b, length: beatIndexAt(beats, e.toA - 1) + 1 - a, steps: e.steps, likeness: e.likeness, displaced: true };
    });
  const letters = printedDivisions(score).map((m) => sounding.measureStarts[m]);
  const found = findSections({
    beats,
    pairs: [...pairs, ...displaced],
    dividers: [...new Set([...ends, ...letters])]
      .sort((x, y) => x - y)
      .map((e) => (e >= sounding.totalTicks ? beats.length : beatIndexAt(beats, e))),
    phrases: melodyStarts.map((p) => beatIndexAt(beats, p)),
    closes: cadences.filter((c) => c.type === 'PAC').map((c) => beatIndexAt(beats, toTicks(sounding, c.start))),
    bar
  });
  const sections = withPinnedSections(
    found,
    set.map((p) => ({ at: beatIndexAt(beats, toTicks(sounding, p.start)), label: p.label })),
    beats.length
  );
  const starts = sections.map((s, k) =>
    k === 0 ? beats[0].start : ends.includes(beats[s.from].start) ? beats[s.from].start : withUpbeat(beats[s.from].start)
  );
  const keyAt = (tick: number): string => {
    const key = keys.find((k) => toTicks(sounding, k.end) > tick) ?? keys.at(-1);
    return key ? toldKey(key) : '';
  };
  const facts = sections.map((s, k): SectionFact => {
    const to = starts[k + 1] ?? sounding.totalTicks;
    const span = spanOf(sounding, starts[k], to);
    const before = chords.filter((c) => toTicks(sounding, c.end) <= starts[k] + 1).at(-1);
    const same = sections.findIndex((o) => o.label.replace(/'/g, '') === s.label.replace(/'/g, ''));
    return {
      ...span,
      id: factId('section', span.start),
      label: s.label,
      opens: keyAt(starts[k]),
      closes: keyAt(Math.max(starts[k], toTicks(sounding, span.last))),
      setUp: k === 0 ? 'the beginning' : before ? `${before.roman} in ${keyAt(starts[k] - 1)} before it` : 'silence before it',
      confidence: ends.includes(starts[k]) || k === 0 ? 0.95 : 0.75,
      ...(set.some((p) => cmp(p.start, span.start) === 0) ? { pinned: true as const } : {}),
      evidence:
        same < k
          ? `the music of section ${sections[same].label} at ${positionAt(score, fromTicks(sounding, starts[same])).number}`
          : 'other music'
    };
  });
  const repeated = facts.map((f) =>
    score.measures.some((m) => m.repeatEnd && toNumber(m.start) >= toNumber(f.start) && toNumber(m.start) < toNumber(f.end))
  );
  const bars = sections.map((s) => Math.round((s.to - s.from) / bar));
  const form = facts.length
    ? formName(
        sections.map((s) => s.label),
        repeated,
        { opens: facts[0].opens, firstCloses: facts[0].closes },
        bars
      )
    : null;
  return { sections: facts, form };
}

/** Sections under the instructor's corrections: another name, another beginning, or none where one was found. */
function withPinnedSections(found: BeatSection[], set: readonly { at: number; label: string }[], total: number): BeatSection[] {
  if (!set.length) return found;
  const starts = new Map(found.map((s) => [s.from, s.label]));
  for (const { at, label } of set) {
    // A correction within a beat or two of a found border is about that border.
    const near = [...starts.keys()].find((s) => Math.abs(s - at) <= 2);
    if (near !== undefined) starts.delete(near);
    if (label) starts.set(near ?? at, label);
  }
  if (!starts.has(0)) starts.set(0, found[0]?.label ?? 'A');
  const ordered = [...starts].sort((a, b) => a[0] - b[0]);
  return ordered.map(([from, label], k) => ({ from, to: ordered[k + 1]?.[0] ?? total, label }));
}
