import type { Score } from '../score/model.ts';
import { cmp, type Fraction } from '../score/fraction.ts';
import { cadenceCandidates, chooseCadences } from './cadences.ts';
import { chordFacts, keyFacts, matchesRoman } from './chords.ts';
import type { Facts, Pin } from './facts.ts';
import { harmonyGround, searchHarmony, searchWithPins, type HarmonyPins } from './harmony-search.ts';
import { parseKey } from './keys.ts';
import { signatureShift } from '../score/transposition.ts';
import { compare, parallelFacts, sectionFacts, sequenceFacts } from './structure.ts';
import { findPhrases } from './phrases.ts';
import { slotIndexAt, textureOf, toTicks, type Texture } from './texture.ts';

/** Changes whenever the same score may yield other facts; part of the cache's key. */
export const ENGINE = 'nuvelo-2';

/** Signatures in the piece as they sound, the first one first. */
function signatures(score: Score): number[] {
  // A part that is not transposed shows the sounding signature; else the first part's is moved.
  const concert = score.parts.find((p) => p.transpose.chromatic % 12 === 0);
  const part = concert ?? score.parts[0];
  const shift = concert ? 0 : signatureShift(part.transpose.chromatic);
  const found = new Set<number>();
  for (const change of part.changes) for (const { key } of change.keys ?? []) found.add(key.fifths + shift);
  return found.size ? [...found] : [shift];
}

function harmonyPins(texture: Texture, pins: readonly Pin[]): HarmonyPins {
  const result: HarmonyPins = { keys: [], chords: [] };
  for (const pin of pins) {
    if (pin.kind === 'phrase-start') continue;
    const from = slotIndexAt(texture, toTicks(texture, pin.start));
    const end = toTicks(texture, pin.end);
    let to = from + 1;
    while (to < texture.slots.length && texture.slots[to].start < end) to++;
    if (pin.kind === 'key') {
      const key = parseKey(pin.key);
      if (key) result.keys.push({ from, to, key });
    } else result.chords.push({ from, to, matches: matchesRoman(pin.roman) });
  }
  return result;
}

/**
 * All facts about a score, on sounding pitch. Corrections bind the search, so that what depends on them
 * follows. `parts` limits the analysis to some parts (indices); null takes all.
 */
export function analyse(
  score: Score,
  pins: readonly Pin[] = [],
  parts: readonly number[] | null = null,
  texture = textureOf(score, parts)
): Facts {
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
  if (texture.tones.length === 0) return facts;
  const overlaps = (p: { start: Fraction; end: Fraction }, start: number, end: number): boolean =>
    toTicks(texture, p.start) < end && toTicks(texture, p.end) > start;
  const pinnedKey = (start: number, end: number): boolean => pins.some((p) => p.kind === 'key' && overlaps(p, start, end));
  const pinnedChord = (start: number, end: number): string | null => {
    const pin = pins.find((p) => p.kind === 'chord' && overlaps(p, start, end));
    return pin?.kind === 'chord' ? pin.roman : null;
  };
  const { spans } = searchWithPins(searchHarmony(harmonyGround(texture, signatures(score))), harmonyPins(texture, pins));
  facts.chords = chordFacts(texture, spans, pinnedChord);
  facts.keys = keyFacts(texture, spans, facts.chords, pinnedKey);
  const candidates = cadenceCandidates(score, texture, facts.chords);
  facts.phrases = findPhrases(score, texture, candidates, [...pins]);
  facts.cadences = chooseCadences(
    texture,
    candidates,
    facts.phrases.map((p) => ({ start: toTicks(texture, p.start), last: toTicks(texture, p.last), end: toTicks(texture, p.end) }))
  );
  const comparison = compare(score, texture);
  facts.parallels = parallelFacts(score, texture, comparison);
  facts.sequences = sequenceFacts(texture, comparison, facts.chords);
  Object.assign(facts, sectionFacts(score, texture, comparison, facts.phrases, facts.keys, facts.chords));
  for (const phrase of facts.phrases) {
    const closing = facts.cadences.filter((c) => cmp(c.start, phrase.start) > 0 && cmp(c.start, phrase.end) < 0).at(-1);
    if (closing) phrase.cadence = closing.id;
  }
  return facts;
}
