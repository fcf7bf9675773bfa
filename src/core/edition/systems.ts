import { cmp } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import type { Marking } from '../markings/marking.ts';
import type { Chunk } from './chunk.ts';

/** A chunk of measures with the systems it is set in; `systems` holds the first measure of each. */
export interface SetChunk extends Chunk {
  systems: number[];
  /** How many lines its widest bar would fill: the chunk is drawn so much smaller; absent when all fits. */
  needs?: number;
}

/** Width of a bar in note spaces: a little for the bar itself, then one for each moment at which a note enters. */
const BAR_SPACE = 2.2;
/** Notes with accidentals need more room. */
const ACCIDENTAL_SPACE = 0.35;
/** Syllables stand side by side: room for each letter, and for the hyphen or gap to the next. */
const SYLLABLE_LETTER_SPACE = 0.4;
const SYLLABLE_GAP = 0.6;
/** Chord symbols of the source stand side by side: room for each letter, and for the gap to the next. */
const LETTER_SPACE = 0.6;
const SYMBOL_GAP = 1;
/** A system that starts a chunk repeats clef and signature. */
const PREFIX_SPACE = 3;
/** The engraver sets notes closer by so much before they touch. */
const CLOSER = 1.12;
/** A bar longer than so many lines is drawn too close rather than too small to be read. */
const MOST_LINES = 2.5;
/** No more systems than this are engraved together, so that one change is drawn again quickly. */
const MOST_SYSTEMS = 3;

function barWidths(score: Score): number[] {
  const entries = score.measures.map(() => new Map<string, number>());
  for (const n of score.notes) {
    const key = n.grace ? `g${n.id}` : `${n.onset.n}/${n.onset.d}`;
    const syllable = Math.max(0, ...(n.lyrics ?? []).map((l) => l.text.length * SYLLABLE_LETTER_SPACE + SYLLABLE_GAP));
    const width = Math.max((n.grace ? 0.5 : 1) + (n.accidental ? ACCIDENTAL_SPACE : 0), syllable);
    const map = entries[n.measure];
    map.set(key, Math.max(map.get(key) ?? 0, width));
  }
  const symbols = score.measures.map(() => 0);
  for (const h of score.harmonies) symbols[h.measure] += h.text.length * LETTER_SPACE + SYMBOL_GAP;
  return entries.map((map, k) =>
    Math.max(
      symbols[k],
      [...map.values()].reduce((a, b) => a + b, BAR_SPACE)
    )
  );
}

/** How many slurs, ties and hairpins each bar line cuts; index k is the line before measure k. */
function crossings(score: Score, markings: readonly Marking[] = []): number[] {
  const count = score.measures.length;
  const crossing = new Array<number>(count + 1).fill(0);
  const measureOf = new Map(score.notes.map((n) => [n.id, n.measure]));
  const cross = (a: number, b: number) => {
    for (let k = a + 1; k <= Math.min(b, count - 1); k++) crossing[k]++;
  };
  for (const s of score.slurs) cross(measureOf.get(s.from)!, measureOf.get(s.to)!);
  for (const n of score.notes) if (n.tie?.start) cross(n.measure, n.measure + 1);
  for (const h of score.hairpins) {
    const first = score.measures.findLastIndex((m) => cmp(m.start, h.start) <= 0);
    const last = score.measures.findLastIndex((m) => cmp(m.start, h.end) < 0);
    cross(first, last);
  }
  for (const m of markings) if (m.end) cross(measureAt(score, m.start).index, measureAt(score, m.end).index);
  return crossing;
}

/**
 * Joins chunks into longer ones of at least so many systems, between which nothing is cut; the first of them may be
 * shorter, so that it is there early.
 */
export function joinChunks(
  score: Score,
  chunks: readonly SetChunk[],
  markings: readonly Marking[],
  first: number,
  least: number
): SetChunk[] {
  const cut = crossings(score, markings);
  const joined: SetChunk[] = [];
  for (const chunk of chunks) {
    const last = joined.at(-1);
    const enough = last && last.systems.length >= (joined.length === 1 ? first : least);
    if (last && (!enough || cut[chunk.from] > 0)) {
      last.systems.push(...chunk.systems);
      last.to = chunk.to;
      if (chunk.needs) last.needs = Math.max(last.needs ?? 1, chunk.needs);
    } else joined.push({ ...chunk, systems: [...chunk.systems] });
  }
  return joined;
}

/**
 * Divides a score into evenly filled systems, broken rather where a section or phrase ends, and the
 * systems into chunks that no slur, tie or hairpin leaves if that can be had.
 * @param capacity note spaces that fit on one line
 * @param niceStarts measure indices at which a new line is welcome (phrase starts)
 */
export function planSystems(score: Score, capacity: number, niceStarts: ReadonlySet<number> = new Set()): SetChunk[] {
  const widths = barWidths(score);
  const count = widths.length;
  const cut = crossings(score);
  // Shortest path over line breaks: squared deviation from a comfortable filling, less for welcome breaks.
  const best = new Array<number>(count + 1).fill(Infinity);
  const from = new Array<number>(count + 1).fill(0);
  best[0] = 0;
  for (let end = 1; end <= count; end++) {
    let width = PREFIX_SPACE;
    for (let start = end - 1; start >= 0 && end - start <= 16; start--) {
      width += widths[start];
      if (width > capacity * CLOSER && end - start > 1) break;
      const filling = width / capacity;
      const loose = end === count ? Math.max(0, 0.5 - filling) : Math.abs(filling - 0.9);
      const section = end < count && (score.measures[end - 1].repeatEnd || score.measures[end - 1].barline === 'light-light');
      const cost =
        best[start] +
        loose * loose * 6 +
        0.05 -
        (section ? 0.25 : 0) -
        (end < count && niceStarts.has(end) ? 0.12 : 0) +
        (end < count ? Math.min(3, cut[end]) * 0.03 : 0);
      if (cost < best[end]) {
        best[end] = cost;
        from[end] = start;
      }
    }
  }
  const starts: number[] = [];
  for (let end = count; end > 0; end = from[end]) starts.unshift(from[end]);
  const chunks: SetChunk[] = [];
  starts.forEach((start, k) => {
    const last = chunks.at(-1);
    const to = starts[k + 1] ?? count;
    const filling = widths.slice(start, to).reduce((a, b) => a + b, PREFIX_SPACE) / capacity;
    const needs = filling > CLOSER ? Math.min(MOST_LINES, filling) : undefined;
    if (last && cut[start] > 0 && last.systems.length < MOST_SYSTEMS) {
      last.systems.push(start);
      last.to = to;
      if (needs) last.needs = Math.max(last.needs ?? 1, needs);
    } else chunks.push({ from: start, to, systems: [start], ...(needs && { needs }) });
  });
  return chunks;
}

/** Puts the planned line breaks into the MEI of a chunk; as page breaks, each system becomes a picture of its own. */
export function breakSystems(mei: string, chunk: SetChunk, sign: 'sb' | 'pb' = 'sb'): string {
  let result = mei.replace(/<(?:sb|pb)\b[^>]*\/>/g, '');
  // The first one is needed too: without any encoded break the engraver would choose its own.
  for (const start of chunk.systems) {
    const at = result.search(new RegExp(`<measure\\b[^>]*xml:id="m${start}"`));
    if (at >= 0) result = `${result.slice(0, at)}<${sign}/>${result.slice(at)}`;
  }
  return result;
}
