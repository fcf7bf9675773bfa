import { lazily } from '../once.ts';
import type { Score } from '../score/model.ts';
import { add, cmp, type Fraction } from '../score/fraction.ts';
import { ENGINE } from './engine.ts';
import { cadenceCandidates, chooseCadences, sectionEnds } from './cadences.ts';
import { chordFacts, keyFacts, matchesRoman } from './chords.ts';
import { factId, type CadenceFact, type Facts, type ParallelFact } from './facts.ts';
import type { Pin } from './pins.ts';
import { COMMON } from './harmony-space.ts';
import { slotsWithoutKey } from './no-key.ts';
import { placedSymbols, type PlacedSymbol } from './symbols.ts';
import { bluesKeys, isBlues, worldOf, type Tonality } from './tonality.ts';
import { harmonyLattice, searchHarmony, searchWithPins, type HarmonyPins, type HarmonyResult, type HarmonySpan } from './harmony-search.ts';
import { parseKey } from './keys.ts';
import { withSameBarsAlike } from './same-bars.ts';
import { signatureShift } from '../score/transposition.ts';
import {
  compare,
  insideSequences,
  parallelFacts,
  pinnedParallels,
  returnsOf,
  sectionFacts,
  sequenceFacts,
  type Comparison
} from './structure.ts';
import { closingSlots, findPhrases, jointEvidence, type JointEvidence } from './phrases.ts';
import {
  fromPhraseStarts,
  inKeysThatPhrasesClose,
  inKeysThatSectionsClose,
  withColoursOfTheNextKey,
  withoutPassingKeys,
  withoutTonicisations
} from './key-boundaries.ts';
import { inSigns } from './words.ts';
import { slotIndexAt, soundingScore, toTicks, type SoundingScore } from './sounding-score.ts';

/** Signatures in the piece as they sound: the first one first, and by slot where another begins. */
function signatures(score: Score, sounding: SoundingScore): { all: number[]; changes: Map<number, number> } {
  // A part that is not transposed shows the sounding signature; else the first part's is moved.
  const concert = score.parts.find((p) => p.transpose.chromatic % 12 === 0);
  const part = concert ?? score.parts[0];
  const shift = concert ? 0 : signatureShift(part.transpose.chromatic);
  const all: number[] = [];
  const changes = new Map<number, number>();
  let last: number | null = null;
  for (const change of part.changes)
    for (const { key } of change.keys ?? []) {
      const fifths = key.fifths + shift;
      if (last !== null && fifths !== last)
        changes.set(slotIndexAt(sounding, toTicks(sounding, add(score.measures[change.measure].start, change.onset))), fifths);
      last = fifths;
      if (!all.includes(fifths)) all.push(fifths);
    }
  return { all: all.length ? all : [shift], changes };
}

function harmonyPins(sounding: SoundingScore, pins: readonly Pin[]): HarmonyPins {
  const result: HarmonyPins = { keys: [], chords: [] };
  for (const pin of pins) {
    if (pin.kind !== 'key' && pin.kind !== 'chord') continue;
    const from = slotIndexAt(sounding, toTicks(sounding, pin.start));
    const end = toTicks(sounding, pin.end);
    let to = from + 1;
    while (to < sounding.slots.length && sounding.slots[to].start < end) to++;
    if (pin.kind === 'key') {
      const key = parseKey(pin.key);
      if (key) result.keys.push({ from, to, key });
    } else result.chords.push({ from, to, matches: matchesRoman(pin.roman) });
  }
  return result;
}

/**
 * A score opened for analysis: all that corrections do not change, so that what follows from one is there at once. Each
 * part is worked out when it is first asked for: who has the facts already needs little of it.
 */
export interface Analysis {
  score: Score;
  sounding: SoundingScore;
  harmony: HarmonyResult | null;
  /** What the piece's key is, where it is neither major nor minor. */
  tonality: Tonality | null;
  /** Slots in which no key fits. */
  without: Uint8Array;
  comparison: Comparison;
  parallels: ParallelFact[];
  joints: JointEvidence;
}

/** Opens a score for analysis, on sounding pitch. `parts` limits it to some parts (indices); null takes all. */
export function openAnalysis(score: Score, parts: readonly number[] | null = null, sounding?: SoundingScore): Analysis {
  const found = lazily<{ own: { harmony: HarmonyResult; tonality: Tonality | null } | null }>({
    own: () => (analysis.sounding.tones.length ? harmonyOf(score, analysis.sounding, analysis.joints) : null)
  });
  const analysis: Analysis = lazily<Analysis>({
    score: () => score,
    sounding: () => sounding ?? soundingScore(score, parts),
    harmony: () => (found.own ? withSameBarsAlike(found.own.harmony) : null),
    tonality: () => found.own?.tonality ?? null,
    without: () => {
      const own = found.own;
      if (!own || own.tonality || own.harmony.playable.world.vocabulary !== 'common') return new Uint8Array(analysis.sounding.slots.length);
      return slotsWithoutKey(analysis.sounding, own.harmony.spans);
    },
    comparison: () => compare(score, analysis.sounding),
    parallels: () => parallelFacts(score, analysis.sounding, analysis.comparison),
    joints: () => jointEvidence(score, analysis.sounding, returnsOf(analysis.comparison), insideSequences(analysis.comparison))
  });
  return analysis;
}

/** The harmony of a piece, read in the world to which it belongs: major and minor, symbols, a mode, a blues. */
function harmonyOf(score: Score, sounding: SoundingScore, joints: JointEvidence): { harmony: HarmonyResult; tonality: Tonality | null } {
  const printed = signatures(score, sounding);
  const symbols: PlacedSymbol[] = placedSymbols(score, sounding);
  const { world, tonality } = worldOf(sounding, sectionEnds(score, sounding), symbols);
  const closing = closingSlots(sounding, joints);
  const harmony = searchHarmony(harmonyLattice(sounding, printed, world, symbols, closing));
  if (world.key && world.vocabulary !== COMMON.vocabulary) return { harmony, tonality };
  const vocabulary = symbols.length ? 'blues symbols' : 'blues';
  const blues = bluesKeys(sounding, printed.all, symbols)
    .map((key) => searchHarmony(harmonyLattice(sounding, printed, { vocabulary, key }, symbols, closing)))
    .filter((found) => isBlues(found, harmony))
    .sort((a, b) => b.worth - a.worth)[0];
  return blues ? { harmony: blues, tonality: 'blues' } : { harmony, tonality };
}

/** Spans cut where music without a key begins or ends. */
function cutAtKeyless(spans: readonly HarmonySpan[], without: Uint8Array): HarmonySpan[] {
  return spans.flatMap((span) => {
    const parts: HarmonySpan[] = [];
    for (let from = span.from; from < span.to;) {
      let to = from + 1;
      while (to < span.to && without[to] === without[from]) to++;
      parts.push({ ...span, from, to });
      from = to;
    }
    return parts;
  });
}

const overlaps = (sounding: SoundingScore, p: { start: Fraction; end: Fraction }, start: number, end: number): boolean =>
  toTicks(sounding, p.start) < end && toTicks(sounding, p.end) > start;

/**
 * Keys, chords and phrases, which hang on one another: sections decide where keys close, cadences where phrases end,
 * phrases where keys begin. `candidates` are the steps that may be cadences, in the keys as they were settled.
 */
function harmonyAndPhrases(analysis: Analysis, harmony: HarmonyResult, pins: readonly Pin[]) {
  const { score, sounding, joints, tonality } = analysis;
  const { world, symbols, basses } = harmony.playable;
  const pinnedKey = (start: number, end: number): boolean => pins.some((p) => p.kind === 'key' && overlaps(sounding, p, start, end));
  const pinnedChord = (start: number, end: number): string | null => {
    const pin = pins.find((p) => p.kind === 'chord' && overlaps(sounding, p, start, end));
    return pin?.kind === 'chord' ? pin.roman : null;
  };
  const timesOf = (span: HarmonySpan): [number, number] => [sounding.slots[span.from].start, sounding.slots[span.to - 1].end];
  const bound = (span: HarmonySpan): boolean => pinnedKey(...timesOf(span)) || pinnedChord(...timesOf(span)) !== null;
  const ends = sectionEnds(score, sounding).map((t) => (t < sounding.totalTicks ? slotIndexAt(sounding, t) : sounding.slots.length));
  const set = harmonyPins(sounding, pins);
  const searched = searchWithPins(harmony, set).spans;
  // What the instructor hears as tonal is.
  const without = set.keys.length || set.chords.length ? analysis.without.slice() : analysis.without;
  for (const { from, to } of [...set.keys, ...set.chords]) without.fill(0, from, to);
  const facts = (spans: HarmonySpan[]) =>
    chordFacts(
      sounding,
      spans.filter((span) => !without[span.from]),
      pinnedChord,
      symbols
    );
  const barOf = (slot: number): number => {
    const { start, measure } = sounding.slots[slot];
    const from = sounding.measureStarts[measure];
    return measure + (start - from) / Math.max(1, (sounding.measureStarts[measure + 1] ?? sounding.totalTicks) - from);
  };
  const settled = world.key
    ? searched
    : inKeysThatSectionsClose(withoutTonicisations(withoutPassingKeys(searched, bound), barOf, ends, bound), ends, bound);
  const found = cutAtKeyless(settled, without);
  let chords = facts(found);
  let candidates = cadenceCandidates(score, sounding, chords, basses);
  const phrases = findPhrases(sounding, joints, candidates, [...pins]);
  const starts = phrases.map((p) => found.findIndex((span) => timesOf(span)[1] > toTicks(sounding, p.start))).filter((k) => k >= 0);
  const spans = world.key
    ? found
    : withColoursOfTheNextKey(fromPhraseStarts(inKeysThatPhrasesClose(found, starts, bound), starts, bound), bound);
  if (spans.some((span, k) => span !== found[k])) {
    chords = facts(spans);
    candidates = cadenceCandidates(score, sounding, chords, basses);
  }
  return { chords, keys: keyFacts(sounding, spans, chords, pinnedKey, without, tonality), phrases, candidates };
}

/** The facts of an opened score under the instructor's corrections. They bind, and what depends on them follows. */
export function factsOf(analysis: Analysis, pins: readonly Pin[] = []): Facts {
  const { score, sounding, harmony, comparison, parallels } = analysis;
  const facts: Facts = {
    engine: ENGINE,
    keys: [],
    chords: [],
    cadences: [],
    phrases: [],
    sections: [],
    form: null,
    parallels: [],
    sequences: []
  };
  if (!harmony) return facts;
  const { candidates, ...settled } = harmonyAndPhrases(analysis, harmony, pins);
  Object.assign(facts, settled);
  facts.cadences = withPinnedCadences(
    chooseCadences(
      sounding,
      candidates,
      facts.phrases.map((p) => ({
        start: toTicks(sounding, p.start),
        last: toTicks(sounding, p.last),
        end: toTicks(sounding, p.end),
        answered: /returns|comes twice/.test(p.evidence)
      }))
    ),
    facts,
    pins
  );
  const dismissed = new Set(pins.flatMap((p) => (p.kind === 'dismiss' ? [p.fact] : [])));
  const shown = <T extends { id: string }>(list: T[]): T[] => (dismissed.size ? list.filter((f) => !dismissed.has(f.id)) : list);
  facts.cadences = shown(facts.cadences);
  facts.parallels = shown([...parallels, ...pinnedParallels(score, sounding, comparison, pins)]);
  facts.sequences = shown(sequenceFacts(sounding, comparison, facts.chords));
  Object.assign(facts, sectionFacts(score, sounding, comparison, facts.phrases, facts.keys, facts.chords, facts.cadences, pins));
  for (const phrase of facts.phrases) {
    const closing = facts.cadences.filter((c) => cmp(c.start, phrase.start) > 0 && cmp(c.start, phrase.end) < 0).at(-1);
    if (closing) phrase.cadence = closing.id;
  }
  // Those that name notes and numerals; the others are shared with every later correction.
  for (const list of [facts.keys, facts.chords, facts.cadences, facts.sequences])
    for (const fact of list) fact.evidence = inSigns(fact.evidence);
  return facts;
}

/** Cadences whose type the instructor has set; one where none was found hangs on the chord that sounds there. */
function withPinnedCadences(cadences: CadenceFact[], facts: Facts, pins: readonly Pin[]): CadenceFact[] {
  const result = [...cadences];
  for (const pin of pins) {
    if (pin.kind !== 'cadence') continue;
    const k = result.findIndex((c) => cmp(c.start, pin.start) === 0);
    const at = facts.chords.findLastIndex((c) => cmp(c.start, pin.start) <= 0);
    if (at < 0) continue;
    const known = result[k];
    const settled: CadenceFact = {
      id: factId('cadence', pin.start),
      start: pin.start,
      type: pin.type,
      key: known?.key ?? facts.chords[at].key,
      strength: known?.strength ?? 0.5,
      from: known?.from ?? facts.chords[Math.max(0, at - 1)].id,
      to: known?.to ?? facts.chords[at].id,
      confidence: 1,
      evidence: 'set by the instructor',
      pinned: true
    };
    if (k >= 0) result[k] = settled;
    else result.push(settled);
  }
  return result.sort((a, b) => cmp(a.start, b.start));
}

/**
 * All facts about a score, on sounding pitch. Corrections bind the search, so that what depends on them
 * follows. `parts` limits the analysis to some parts (indices); null takes all.
 */
export const analyse = (score: Score, pins: readonly Pin[] = [], parts: readonly number[] | null = null): Facts =>
  factsOf(openAnalysis(score, parts), pins);
