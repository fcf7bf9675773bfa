import { SURE_MARGIN } from '../style/analysis-weights.ts';
import { fifthsName, fifthsPc } from '../score/pitch.ts';
import { factId, type ChordFact, type KeyFact } from './facts.ts';
import { CONFIDENCE } from '../style/confidence-weights.ts';
import { confidenceOf, sigmoid } from './confidence.ts';
import { contentOf, contentWords } from './content.ts';
import type { Tonality } from './tonality.ts';
import type { HarmonySpan } from './harmony-search.ts';
import { keyName, keySignature, profileWeight, sameKey, type Key } from './keys.ts';
import type { PlacedSymbol } from './symbols.ts';
import { firstFrom, fromTicks, toTicks, type Slot, type SoundingScore, type Tone } from './sounding-score.ts';
import { romanOf, SCALE, TONES, type ChordType } from './vocabulary.ts';

/** Tones that begin or sound within a range of slots, without grace notes. */
function tonesIn(slots: Slot[], from: number, to: number): Tone[] {
  const tones = new Set<Tone>();
  for (let s = from; s < to; s++) for (const t of slots[s].tones) tones.add(t);
  return [...tones];
}

const lowestOf = (slot: Slot): Tone | undefined => [...slot.tones].sort((a, b) => a.midi - b.midi)[0];

interface Bass {
  inversion: number;
  fifths: number;
  pedal?: true;
}

/** The note under a chord to which it does not belong, held or struck again from before it to its end: a pedal. */
function pedalUnder(sounding: SoundingScore, span: HarmonySpan, belongs: (t: Tone) => boolean): Tone | null {
  if (sounding.singleLine || span.from === 0) return null;
  const low = lowestOf(sounding.slots[span.from]);
  if (!low || belongs(low)) return null;
  const under = sounding.slots
    .slice(span.from - 1, span.to)
    .filter((s) => s.tones.length && (s.level > 0 || s === sounding.slots[span.from]));
  return under.length > 1 && under.every((s) => lowestOf(s)!.midi === low.midi) ? low : null;
}

/** Which chord tone (0 root … 3 seventh) is in the bass, and its spelling. */
function bassOf(sounding: SoundingScore, span: HarmonySpan, symbol: PlacedSymbol | null): Bass {
  const root = span.key.tonic + span.type.root;
  const tones = TONES[span.type.quality];
  const place = (t: Tone): number => {
    const exact = tones.indexOf(t.fifths - root);
    return exact >= 0 ? exact : tones.findIndex((x) => fifthsPc(x) === fifthsPc(t.fifths - root));
  };
  // A symbol states its bass.
  if (symbol) {
    const stated = tones.findIndex((t) => fifthsPc(root + t) === fifthsPc(symbol.bass));
    return stated > 0 ? { inversion: stated, fifths: symbol.bass } : { inversion: 0, fifths: root };
  }
  const pedal = pedalUnder(sounding, span, (t) => place(t) >= 0);
  if (pedal) return { inversion: 0, fifths: pedal.fifths, pedal: true };
  const start = sounding.slots[span.from].start;
  const beatEnd = start + sounding.ticksPerQuarter;
  const all = tonesIn(sounding.slots, span.from, span.to);
  const members = (tones: Tone[]): Tone[] => tones.filter((t) => place(t) >= 0).sort((a, b) => a.midi - b.midi);
  // The bass is what sounds lowest as the chord sets in, or soon after. A single line states a bass only by
  // beginning with its lowest chord tone; elsewhere its chords are understood in root position.
  const low = sounding.singleLine
    ? members(all)
        .slice(0, 1)
        .find((t) => t.start <= start)
    : (members(all.filter((t) => t.start <= start))[0] ?? members(all.filter((t) => t.start < beatEnd))[0] ?? members(all)[0]);
  if (!low) return { inversion: 0, fifths: root };
  const inversion = place(low);
  // A line that begins a chord on its fifth does not state a six-four.
  if (sounding.singleLine && inversion === 2) return { inversion: 0, fifths: root };
  // A bass that goes on from the fifth to the root on a strong beat states the root: the fifth was an upbeat to it.
  if (inversion === 2 && sounding.slots.slice(span.from + 1, span.to).some((s) => s.level >= 2 && lowestOf(s)?.fifths === root))
    return { inversion: 0, fifths: root };
  return { inversion, fifths: root + tones[inversion] };
}

/** Chord facts from the spans of the search. `pinnedAt` gives the numeral that the instructor set there, as written. */
export function chordFacts(
  sounding: SoundingScore,
  spans: HarmonySpan[],
  pinnedAt: (start: number, end: number) => string | null,
  symbols: readonly (PlacedSymbol | null)[]
): ChordFact[] {
  const facts = spans.map((span) => chordFact(sounding, span, pinnedAt, symbols[span.from] ?? null));
  markCadentialSixFours(facts, spans);
  return facts;
}

function chordFact(
  sounding: SoundingScore,
  span: HarmonySpan,
  pinnedAt: (start: number, end: number) => string | null,
  symbol: PlacedSymbol | null
): ChordFact {
  const { slots } = sounding;
  const start = slots[span.from].start;
  const end = slots[span.to - 1].end;
  const { inversion, fifths, pedal } = bassOf(sounding, span, symbol);
  const root = span.key.tonic + span.type.root;
  const heard = new Set(tonesIn(slots, span.from, span.to).map((t) => fifthsName(t.fifths)));
  const special = span.type.special;
  const fact: ChordFact = {
    id: factId('chord', fromTicks(sounding, start)),
    start: fromTicks(sounding, start),
    end: fromTicks(sounding, end),
    key: span.key,
    roman: special === 'neapolitan' ? `N${['', '6', '64'][inversion] ?? ''}` : romanOf(span.type, inversion),
    root: fifthsName(root),
    bass: fifthsName(fifths),
    quality: span.type.quality,
    role: span.type.role,
    inversion,
    applied: span.type.role === 'applied',
    special,
    confidence: confidenceOf('chord', {
      margin: 1.2 + (2.4 * span.margin) / SURE_MARGIN,
      quarters: Math.log2(Math.max(1 / 8, (end - start) / sounding.ticksPerQuarter)),
      symbol: symbol !== null
    }),
    evidence: `${symbol ? `written ${symbol.text}; ` : ''}sounds ${[...heard].join(' ')}${pedal ? `, over ${fifthsName(fifths)} held below` : ''}`
  };
  if (pedal) fact.pedal = true;
  if (symbol) fact.symbol = symbol.text;
  if (span.rival) fact.rival = `${fifthsName(span.rival.root)} ${span.rival.quality}`;
  const pinned = pinnedAt(start, end);
  if (pinned !== null) {
    fact.pinned = true;
    fact.roman = pinned;
    fact.confidence = 1;
    fact.evidence = 'set by the instructor';
  }
  return fact;
}

/**
 * A tonic six-four on the way into the dominant over the same bass is the dominant's ornament and is
 * named as such (V64). Handbook 2.3.
 */
function markCadentialSixFours(facts: ChordFact[], spans: HarmonySpan[]): void {
  for (let k = 0; k + 1 < facts.length; k++) {
    const next = facts[k + 1];
    if (facts[k].role !== 'tonic' || facts[k].inversion !== 2 || facts[k].pinned || spans[k].to !== spans[k + 1].from) continue;
    if (next.role !== 'dominant' || next.inversion !== 0 || !next.roman.startsWith('V') || !sameKey(spans[k].key, spans[k + 1].key))
      continue;
    facts[k] = { ...facts[k], roman: 'V64', root: next.root, quality: 'maj', role: 'dominant', inversion: 0, cadential: true };
  }
}

/**
 * Key areas: runs of chords in one key. `without` marks the slots in which no key fits; `tonality` is what the piece's key is,
 * where it is neither major nor minor.
 */
export function keyFacts(
  sounding: SoundingScore,
  spans: HarmonySpan[],
  chords: ChordFact[],
  pinned: (start: number, end: number) => boolean,
  without: Uint8Array,
  tonality: Tonality | null
): KeyFact[] {
  const facts: KeyFact[] = [];
  for (let k = 0; k < spans.length;) {
    let end = k + 1;
    const none = without[spans[k].from] === 1;
    while (end < spans.length && (without[spans[end].from] === 1) === none && (none || sameKey(spans[end].key, spans[k].key))) end++;
    const from = sounding.slots[spans[k].from].start;
    const to = sounding.slots[spans[end - 1].to - 1].end;
    const tones = sounding.tones.slice(firstFrom(sounding.tones, from), firstFrom(sounding.tones, to));
    const { rival, margin } = rivalKey(spans[k].key, tones);
    const evidence = keyEvidence(
      spans[k].key,
      tones,
      chords.filter((c) => toTicks(sounding, c.start) >= from && toTicks(sounding, c.start) < to)
    );
    const confidence = confidenceOf('key', {
      margin: 1.3 + 6 * margin,
      bars: Math.log2(Math.max(1 / 8, (to - from) / (4 * sounding.ticksPerQuarter))),
      dominant: /dominant to tonic/.test(evidence),
      tonality: tonality !== null
    });
    const fact: KeyFact = {
      id: factId('key', fromTicks(sounding, from)),
      start: fromTicks(sounding, from),
      end: fromTicks(sounding, to),
      last: fromTicks(sounding, tones.length ? tones[tones.length - 1].start : from),
      key: spans[k].key,
      name: keyName(spans[k].key),
      confidence,
      evidence
    };
    if (none) {
      fact.tonality = 'none';
      fact.confidence = Math.round(100 * Math.min(0.5, sigmoid(1.3 + 6 * margin) / 2)) / 100;
      fact.evidence = contentWords(contentOf(tones, sounding.slots.slice(spans[k].from, spans[end - 1].to)));
    } else if (tonality) fact.tonality = tonality;
    else fact.confidence = Math.min(confidence, mostWithForeign(foreignShare(spans[k].key, tones)));
    if (rival) fact.rival = keyName(rival);
    if (pinned(from, to)) {
      fact.pinned = true;
      fact.confidence = 1;
      fact.evidence = 'set by the instructor';
    }
    facts.push(fact);
    k = end;
  }
  return facts;
}

/** The key near by that fits the notes best, and by how much it fits them less than the one that was read. */
function rivalKey(key: Key, tones: Tone[]): { rival: Key; margin: number } {
  const lengths = new Map<number, number>();
  for (const t of tones) lengths.set(t.fifths, (lengths.get(t.fifths) ?? 0) + t.end - t.start);
  const heard = [...lengths];
  const fit = (k: Key): number => heard.reduce((sum, [fifths, length]) => sum + length * profileWeight(k, fifths), 0);
  const total = heard.reduce((sum, [, length]) => sum + length, 0) || 1;
  const rivals: Key[] = [];
  for (let s = keySignature(key) - 2; s <= keySignature(key) + 2; s++) {
    for (const rival of [
      { tonic: s, minor: false },
      { tonic: s + 3, minor: true }
    ])
      if (!sameKey(rival, key)) rivals.push(rival);
  }
  const best = rivals.map((k) => ({ k, fit: fit(k) })).sort((a, b) => b.fit - a.fit)[0];
  return { rival: best.k, margin: (fit(key) - best.fit) / total };
}

/** What speaks for a key: its leading note, its dominant-to-tonic steps. */
function keyEvidence(key: Key, tones: Tone[], chords: ChordFact[]): string {
  const leading = key.tonic + 5;
  const count = tones.filter((t) => t.fifths === leading).length;
  let resolved = 0;
  for (let k = 0; k + 1 < chords.length; k++) if (chords[k].role === 'dominant' && chords[k + 1].role === 'tonic') resolved++;
  const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
  const parts: string[] = [];
  if (count) parts.push(`leading note ${fifthsName(leading)} ${times(count)}`);
  if (resolved) parts.push(`dominant to tonic ${times(resolved)}`);
  return parts.join('; ') || 'the notes of its scale';
}

/** Share of the notes that are foreign to a key. */
function foreignShare(key: Key, tones: readonly Tone[]): number {
  const scale = SCALE[key.minor ? 'minor' : 'major'];
  return tones.filter((t) => !scale.includes(t.fifths - key.tonic)).length / Math.max(1, tones.length);
}

/** A key is no surer than its notes allow. */
function mostWithForeign(share: number): number {
  const { foreign, most } = CONFIDENCE;
  return Math.round(100 * Math.max(CONFIDENCE.least, most - Math.max(0, share - foreign.usual) * foreign.loss)) / 100;
}

export const matchesRoman =
  (roman: string) =>
  (_key: Key, type: ChordType): boolean =>
    TONES[type.quality].some((_, inversion) => romanOf(type, inversion) === roman) || (type.special === 'neapolitan' && /^N/.test(roman));
