import { SETTLE } from '../style/harmony-weights.ts';
import type { HarmonySpan } from './harmony-search.ts';
import { sameKey, type Key } from './keys.ts';
import { VOCABULARY, type ChordType } from './vocabulary.ts';

/** The same chord as a plain chord of another key; null where it is none. */
function plainIn(span: HarmonySpan, key: Key): ChordType | null {
  const root = span.key.tonic + span.type.root - key.tonic;
  const types = key.minor ? VOCABULARY.minor : VOCABULARY.major;
  const same = types.find((t) => t.root === root && t.quality === span.type.quality && t.role !== 'applied' && !t.special);
  return same && same.cost <= SETTLE.plain ? same : null;
}

/** The same chord in another key, as an applied dominant or a colour too; null where the key has no such chord. */
function anyIn(span: HarmonySpan, key: Key): ChordType | null {
  const root = span.key.tonic + span.type.root - key.tonic;
  const types = key.minor ? VOCABULARY.minor : VOCABULARY.major;
  return types.find((t) => t.root === root && t.quality === span.type.quality) ?? null;
}

/** Whether the instructor has settled a span. */
type Bound = (span: HarmonySpan) => boolean;

/** Spans read in another key; null where one is no plain chord there, or is settled. */
function readIn(spans: readonly HarmonySpan[], key: Key, bound: Bound): HarmonySpan[] | null {
  const read: HarmonySpan[] = [];
  for (const span of spans) {
    const type = plainIn(span, key);
    if (!type || bound(span)) return null;
    read.push({ ...span, key, type });
  }
  return read;
}

/** End of the run of spans in one key that begins at `from`. */
function runEnd(spans: readonly HarmonySpan[], from: number): number {
  let end = from + 1;
  while (end < spans.length && sameKey(spans[end].key, spans[from].key)) end++;
  return end;
}

/**
 * A key needs its dominant: chords between two keys that have none of their own belong to the key before them, or
 * else to the one after, where they are plain chords there (pivots). Common practice; handbook 2.2, "a cadence confirms
 * a key".
 */
export function withoutPassingKeys(spans: readonly HarmonySpan[], bound: Bound): HarmonySpan[] {
  const result = [...spans];
  for (let from = 0; from < result.length;) {
    const end = runEnd(result, from);
    const run = result.slice(from, end);
    if (run.length <= SETTLE.passing && !run.some((s) => s.type.role === 'dominant'))
      for (const neighbour of [result[from - 1], result[end]]) {
        const read = neighbour && readIn(run, neighbour.key, bound);
        if (!read) continue;
        result.splice(from, run.length, ...read);
        break;
      }
    from = end;
  }
  return result;
}

/**
 * A key that only passes is none: one that lasts hardly a bar, or that is nothing but a dominant and its goal to and fro, between
 * two stretches of one key is a tonicisation there. Common practice; handbook 2.2.
 * @param barOf bars from the beginning to a slot
 * @param ends slots at which sections end: what closes there is a key
 */
export function withoutTonicisations(
  spans: readonly HarmonySpan[],
  barOf: (slot: number) => number,
  ends: readonly number[],
  bound: Bound
): HarmonySpan[] {
  const result = [...spans];
  for (let from = 0; from < result.length;) {
    const end = runEnd(result, from);
    const [before, after] = [result[from - 1], result[end]];
    const run = result.slice(from, end);
    from = end;
    if (!before || !after || !sameKey(before.key, after.key) || run.some(bound)) continue;
    const bars = barOf(after.from) - barOf(run[0].from);
    const toAndFro = run.every((s) => s.type.role === 'dominant' || s.type.role === 'tonic');
    if (bars > (toAndFro ? SETTLE.toAndFro : SETTLE.shortest)) continue;
    if (ends.some((e) => e > run[0].from && e <= after.from)) continue;
    // The goal must be a chord of the key around it; what leads there may be applied.
    const types = run.map((s) => (s.type.role === 'dominant' ? anyIn(s, before.key) : plainIn(s, before.key)));
    if (types.some((t) => t === null)) continue;
    result.splice(end - run.length, run.length, ...run.map((s, k) => ({ ...s, key: before.key, type: types[k]! })));
  }
  return result;
}

/**
 * A phrase that begins on a chord, closes on it through its dominant and has no chord that is foreign to it is in that
 * key, though each step could be an applied dominant of the key around it. The close before it that led there, with the
 * chord that prepared it, belongs to that key too. Common practice. `starts` are the spans with which phrases begin.
 */
export function inKeysThatPhrasesClose(spans: readonly HarmonySpan[], starts: readonly number[], bound: Bound): HarmonySpan[] {
  const result = [...spans];
  starts.forEach((start, k) => {
    const phrase = result.slice(start, starts[k + 1] ?? result.length);
    const key = keyClosed(phrase);
    if (!key || phrase.length < SETTLE.phrase || sameKey(key, phrase[0].key)) return;
    const read = readIn(phrase, key, bound);
    if (read?.[0].type.role !== 'tonic') return;
    result.splice(start, phrase.length, ...read);
    // The phrase may begin in the chord on which the one before it closed.
    for (const end of [start, start + 1]) {
      const from = Math.max(starts[k - 1] ?? 0, end - SETTLE.close);
      const before = result.slice(from, end);
      const closed = keyClosed(before);
      const led = closed && sameKey(closed, key) ? readIn(before, key, bound) : null;
      if (led?.[0].type.role === 'predominant') result.splice(from, before.length, ...led);
    }
  });
  return result;
}

/**
 * A section that closes on a chord through the dominant of it closes in that key: the close, back to the chord that
 * prepares it, is read there. Common practice. `ends` are the slots at which sections end (repeats, double bars); what
 * goes on in the same chord after the end is as it was.
 */
export function inKeysThatSectionsClose(spans: readonly HarmonySpan[], ends: readonly number[], bound: Bound): HarmonySpan[] {
  const result = [...spans];
  for (const end of ends) {
    const k = result.findIndex((s) => s.from < end && s.to >= end);
    if (k < 1) continue;
    const goal = { ...result[k], to: end };
    const key = keyClosed([result[k - 1], goal]);
    if (!key || sameKey(key, goal.key)) continue;
    let from = k - 1;
    for (let i = k - 1; i >= Math.max(0, k - SETTLE.close); i--) {
      const type = plainIn(result[i], key);
      if (!type) break;
      if (type.role === 'predominant') from = i;
    }
    const read = readIn([...result.slice(from, k), goal], key, bound);
    if (!read) continue;
    const rest = end < result[k].to ? [{ ...result[k], from: end }] : [];
    result.splice(from, k - from + 1, ...read, ...rest);
  }
  return result;
}

/** The key in which a phrase closes: that of its last chord, where the chord before is the dominant of it. */
function keyClosed(phrase: readonly HarmonySpan[]): Key | null {
  const [from, to] = phrase.slice(-2);
  if (!to || !['maj', 'min'].includes(to.type.quality)) return null;
  const goal = to.key.tonic + to.type.root;
  const dominant = from.key.tonic + from.type.root === goal + 1 && ['maj', 'dom7'].includes(from.type.quality);
  return dominant ? { tonic: goal, minor: to.type.quality === 'min' } : null;
}

/**
 * A phrase that begins on the tonic of the key into which it soon goes is in that key from its first chord: keys return
 * at joints rather than a bar after them. Common practice. `starts` are the spans with which phrases begin.
 */
export function fromPhraseStarts(spans: readonly HarmonySpan[], starts: readonly number[], bound: Bound): HarmonySpan[] {
  const result = [...spans];
  for (const start of starts) {
    const change = runEnd(result, start);
    if (change >= result.length || change - start > SETTLE.reach) continue;
    const before = result.slice(start, change);
    const read = before.some((s) => s.type.role === 'dominant') ? null : readIn(before, result[change].key, bound);
    if (read?.[0].type.role === 'tonic') result.splice(start, before.length, ...read);
  }
  return result;
}

/**
 * A Neapolitan or an augmented sixth just before the dominant of a new key is that key's: it is heard as its colour before it
 * is looked for in the key that ends. Plain chords of the old key stay pivots. Common practice.
 */
export function withColoursOfTheNextKey(spans: readonly HarmonySpan[], bound: Bound): HarmonySpan[] {
  return spans.map((span, k) => {
    const next = spans[k + 1];
    if (!next || sameKey(span.key, next.key) || bound(span) || plainIn(span, span.key)) return span;
    const type = anyIn(span, next.key);
    const leads = next.type.role === 'dominant' || (next.type.role === 'tonic' && spans[k + 2]?.type.role === 'dominant');
    return type?.special && leads ? { ...span, key: next.key, type } : span;
  });
}
