import { LIKENESS } from '../style/likeness.ts';
import { sharedLength } from './overlap.ts';
import { beatLikeness, type BeatPair } from './parallels.ts';
import type { Beat } from './grid.ts';

/** A section as a half-open range of beats with its letter: same letter = same music, a prime for a variant. */
export interface BeatSection {
  from: number;
  to: number;
  label: string;
}

/**
 * How alike two stretches are from their beginnings, at the best interval; lengths may differ. A return that
 * begins like its model and goes on otherwise still is one: the opening alone can make a variant.
 */
export function likenessOf(
  beats: readonly Beat[],
  a: { from: number; to: number },
  b: { from: number; to: number }
): { likeness: number; steps: number } {
  const plain = likenessFrom(beats, a, b);
  // Borders are moved to phrases, so two sections with the same music may begin a beat or two apart; then it must be plain.
  for (const shift of [1, -1, 2, -2]) {
    const moved = likenessFrom(beats, { ...a, from: a.from + Math.max(0, -shift) }, { ...b, from: b.from + Math.max(0, shift) });
    if (moved.steps === 0 && moved.likeness >= LIKENESS.sameSection - 0.05 && moved.likeness > plain.likeness) return moved;
  }
  return plain;
}

function likenessFrom(
  beats: readonly Beat[],
  a: { from: number; to: number },
  b: { from: number; to: number }
): { likeness: number; steps: number } {
  const length = Math.min(a.to - a.from, b.to - b.from);
  const longer = Math.max(a.to - a.from, b.to - b.from);
  let best = { likeness: 0, steps: 0 };
  for (const steps of intervals(beats, a.from, b.from, length)) {
    const opening = Math.max(Math.ceil(length * LIKENESS.opening), Math.min(length, 8));
    let sum = 0;
    let count = 0;
    let begins = 0;
    for (let k = 0; k < length; k++) {
      const value = beatLikeness(beats[a.from + k], beats[b.from + k], steps);
      if (value !== null) {
        sum += value;
        count++;
      }
      if (k === opening - 1 && count && steps === 0 && sum / count >= LIKENESS.sameOpening) begins = LIKENESS.variedSection;
    }
    const likeness = count ? Math.max(begins, (sum / count) * (steps % 7 === 0 ? 1 : LIKENESS.sectionElsewhere)) : 0;
    if (likeness > best.likeness) best = { likeness, steps };
  }
  // A much shorter copy is a variant at the most.
  if (longer > 1.5 * length) best.likeness = Math.min(best.likeness, LIKENESS.sameSection - 0.01);
  if (longer > 2.5 * length) best.likeness *= 0.6;
  return best;
}

/** The intervals that occur most between the leading notes of two stretches. */
function intervals(beats: readonly Beat[], a: number, b: number, length: number): number[] {
  const votes = new Map<number, number>([[0, 1]]);
  for (let k = 0; k < length; k++) {
    const x = beats[a + k].lead;
    const y = beats[b + k].lead;
    if (!x || !y) continue;
    const steps = y.height - x.height;
    votes.set(steps, (votes.get(steps) ?? 0) + 1);
  }
  return [...votes]
    .sort((p, q) => q[1] - p[1])
    .slice(0, 3)
    .map(([steps]) => steps);
}

interface Ground {
  beats: readonly Beat[];
  pairs: readonly BeatPair[];
  /** Beats before which the page itself divides: repeats, double bars, endings. */
  dividers: readonly number[];
  /** Beats at which phrases begin. */
  phrases: readonly number[];
  /** Beats at which perfect cadences arrive. */
  closes: readonly number[];
  bar: number;
}

/** Nearest phrase start within so many bars; the beat itself where there is none. */
function snap(playable: Ground, beat: number, reach = 1.5): number {
  const near = playable.phrases
    .filter((p) => Math.abs(p - beat) <= reach * playable.bar)
    .sort((a, b) => Math.abs(a - beat) - Math.abs(b - beat));
  return near[0] ?? beat;
}

/**
 * Where sections begin: at the page's own divisions; where the piece's opening, or the opening of an earlier
 * section, returns at a phrase; and where such a return ends before other music begins.
 */
function borders(playable: Ground): number[] {
  const { beats, pairs, dividers, bar } = playable;
  const total = beats.length;
  const own = [0, ...dividers.filter((d) => d > 0 && d < total)].sort((a, b) => a - b);
  const result = new Set(own);
  const first = own[1] ?? total;
  const blockOf = (beat: number): number => own.findLast((d) => d <= beat) ?? 0;
  const endOf = (beat: number): number => own.find((d) => d > beat) ?? total;
  const least = 4 * bar;
  const returns = pairs
    .filter((p) => (p.steps % 7 === 0 ? p.length >= least - bar : p.length >= least && p.likeness >= LIKENESS.returnElsewhere))
    .filter((p) => p.b - p.a >= least)
    .map((p) => {
      // A return begins where its model begins; only its upbeat may be another.
      const a = snap(playable, p.a);
      const b = snap(playable, p.b + (a - p.a), 0.5);
      return { ...p, a, b, fromA: p.a, fromB: p.b };
    })
    .sort((x, y) => y.length - x.length);
  /** What returns as a whole is one section, whatever is repeated within it. */
  const wholes: { from: number; to: number }[] = [];
  const insideWhole = (beat: number): boolean => wholes.some((w) => beat > w.from + bar && beat < w.to - bar);
  const accept = (beat: number): void => {
    if (!insideWhole(beat) && ![...result].some((r) => Math.abs(r - beat) < bar)) result.add(beat);
  };
  for (const p of returns) {
    if (!own.some((d) => Math.abs(d - p.a) <= bar) || insideWhole(p.b) || insideWhole(p.a)) continue;
    const inside = blockOf(p.b);
    // Within a strain that the page itself closes, the second half may begin like the first: that is one section.
    if (blockOf(p.a) === inside && own.length > 1 && endOf(p.a) - p.a <= 20 * bar && first < total) continue;
    if (p.b - inside < least - bar || endOf(p.b) - p.b < 2 * bar) continue;
    // Compared where the music itself begins alike; the borders are moved to the phrases.
    const length = lengthFrom(playable, { ...p, a: p.fromA, b: p.fromB }, [...result]);
    if (length < least - bar) continue;
    accept(p.b);
    // Where a return has been told, what comes between it and the opening's own end is other music.
    const end = snap(playable, p.a + length, 1);
    const next = [...result].sort((x, y) => x - y).find((s) => s > p.a + bar) ?? total;
    if (end - p.a >= least - bar && next - end >= least - bar) accept(end);
    const after = snap(playable, p.b + (end - p.a), 1);
    const following = [...result].sort((x, y) => x - y).find((s) => s > p.b + bar) ?? total;
    if (following - after >= least - bar) accept(after);
    if (p.b - end >= least - bar) wholes.push({ from: p.a, to: end }, { from: p.b, to: after });
  }
  for (const phrase of playable.phrases) {
    const sorted = [...result].sort((x, y) => x - y);
    const before = sorted.findLast((s) => s <= phrase) ?? 0;
    const next = sorted.find((s) => s > phrase) ?? total;
    const closed = playable.closes.some((c) => c < phrase && c >= phrase - 2 * bar);
    if (closed && phrase - before >= 2 * least && next - phrase >= 2 * least && isNew(playable, phrase)) accept(phrase);
  }
  return [...result].sort((x, y) => x - y);
}

/** Other music begins: its rhythms are none of those before (novelty after Foote 2000, on the rhythms of beats), and it is no return. */
function isNew({ beats, pairs, bar }: Ground, at: number): boolean {
  const counts = (from: number, to: number): Map<number, number> => {
    const map = new Map<number, number>();
    for (const b of beats.slice(Math.max(0, from), to)) map.set(b.rhythm, (map.get(b.rhythm) ?? 0) + 1);
    return map;
  };
  const [old, now] = [counts(at - 4 * bar, at), counts(at, at + 4 * bar)];
  const size = (m: Map<number, number>): number => Math.sqrt([...m.values()].reduce((sum, n) => sum + n * n, 0));
  let shared = 0;
  for (const [rhythm, n] of old) shared += n * (now.get(rhythm) ?? 0);
  const returns = pairs.some((p) => p.b <= at + bar && p.b + p.length >= at + 2 * bar);
  return !returns && 1 - shared / Math.max(1, size(old) * size(now)) >= LIKENESS.novelty;
}

/** How far the music that returns at `b` goes on like that at `a`, to the next border. */
function lengthFrom(playable: Ground, { a, b, steps, ...pair }: BeatPair, sorted: readonly number[]): number {
  const { beats, bar } = playable;
  const most = Math.min(b - a, beats.length - b, ...sorted.filter((s) => s > a + bar).map((s) => s - a));
  // What stands displaced is not alike beat by beat; it was followed note by note.
  if (pair.displaced) return Math.min(most, pair.length);
  let last = 0;
  let sum = 0;
  let count = 0;
  for (let k = 0; k < most; k++) {
    const value = beatLikeness(beats[a + k], beats[b + k], steps);
    if (value !== null) {
      sum += value;
      count++;
    }
    if ((k + 1) % bar === 0) {
      if (sum / Math.max(1, count) >= 0.45) last = k + 1;
      sum = count = 0;
      if (k + 1 - last > 2 * bar) break;
    }
  }
  return last;
}

/** Sections of the piece, lettered in the order in which their music first comes. */
export function findSections(playable: Ground): BeatSection[] {
  const { beats } = playable;
  if (beats.length === 0) return [];
  const starts = borders(playable);
  const ranges = starts.map((from, k) => ({ from, to: starts[k + 1] ?? beats.length }));
  const models: BeatSection[] = [];
  const letters: string[] = [];
  return ranges.map((range) => {
    let best: { label: string; likeness: number } | null = null;
    for (const model of models) {
      const likeness = Math.max(likenessOf(beats, model, range).likeness, knownLikeness(playable, model, range));
      if (!best || likeness > best.likeness) best = { label: model.label, likeness };
    }
    if (best && best.likeness >= LIKENESS.sameSection) return { ...range, label: best.label };
    let label: string;
    if (best && best.likeness >= LIKENESS.variedSection) {
      const letter = best.label.replace(/'/g, '');
      const variants = new Set(models.filter((m) => m.label.startsWith(letter)).map((m) => m.label)).size;
      label = letter + "'".repeat(Math.min(3, variants));
    } else {
      label = letterOf(letters.length);
      letters.push(label);
    }
    models.push({ ...range, label });
    return { ...range, label };
  });
}

/** How alike two sections are by the places already found in them, whatever their pitch and their place in the bar. */
function knownLikeness({ pairs }: Ground, model: BeatSection, range: { from: number; to: number }): number {
  const most = pairs.reduce((best, p) => {
    const share =
      Math.min(sharedLength(p.a, p.a + p.length, model.from, model.to), sharedLength(p.b, p.b + p.length, range.from, range.to)) /
      Math.max(model.to - model.from, range.to - range.from);
    return p.displaced || (p.steps % 7 !== 0 && p.likeness >= LIKENESS.returnElsewhere) ? Math.max(best, share) : best;
  }, 0);
  return most >= LIKENESS.knownShare ? LIKENESS.variedSection : 0;
}

const letterOf = (k: number): string =>
  k < 26 ? String.fromCharCode(65 + k) : `${String.fromCharCode(65 + (k % 26))}${Math.floor(k / 26)}`;

/** A name for the form, from the letters, the repeats and the keys; null where none fits (handbook 3.2). */
export function formName(
  labels: readonly string[],
  repeated: readonly boolean[],
  keys: { opens: string; firstCloses: string },
  bars: readonly number[]
): string | null {
  const plain = labels.map((l) => l.replace(/'/g, ''));
  const word = plain.join('');
  const even = bars.every((b) => b === bars[0]);
  if (/^A(BA|BACA)(?:[C-Z]A)*$/.test(word) && word.length >= 5) return 'rondo or ritornello';
  if (/^AABA$/.test(word)) return even && bars[0] === 8 ? 'A A B A of eight-bar phrases' : 'A A B A';
  if (/^ABA$/.test(word)) return repeated[0] && repeated.some((r, k) => k > 0 && r) ? 'rounded binary' : 'ternary';
  if (/^AB$/.test(word)) return repeated[0] || repeated[1] || keys.firstCloses !== keys.opens ? 'binary' : 'two-part';
  if (/^A{3,}$/.test(word)) return labels.slice(1).every((l) => l !== 'A') ? 'theme and variations' : 'strophic';
  if (/^AA$/.test(word)) return labels[1] === 'A' ? 'strophic' : 'period writ large (A A′)';
  if (/^ABAB$/.test(word)) return 'strophic with two parts';
  if (/^A(B|C|BC)?A?D?A?/.test(word) && plain.filter((l) => l === 'A').length >= 3 && plain.length >= 5) return 'rondo or ritornello';
  return null;
}
