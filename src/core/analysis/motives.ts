import { cmp, type Fraction } from '../score/fraction.ts';
import type { PhraseFact } from './facts.ts';
import { heightOf } from './grid.ts';
import { fromTicks, levelAt, slotAt, toTicks, type SoundingScore, type Tone } from './sounding-score.ts';

/** What happened to a motive at a place (handbook 3.4). */
export type Transformation =
  'same' | 'transposed' | 'inverted' | 'augmented' | 'diminished' | 'moved to another beat' | 'begun early' | 'rhythm only';

export interface MotiveOccurrence {
  start: Fraction;
  end: Fraction;
  notes: string[];
  transformations: Transformation[];
  /** Staff steps from the model. */
  steps: number;
}

export interface MotiveFact {
  id: string;
  name: string;
  notes: string[];
  occurrences: MotiveOccurrence[];
  evidence: string;
}

/** A pattern of notes: staff steps between them, and distances between their entries. */
interface Pattern {
  tones: Tone[];
  moves: number[];
  gaps: number[];
}

const patternOf = (tones: Tone[]): Pattern => ({
  tones,
  moves: tones.slice(1).map((t, k) => heightOf(t) - heightOf(tones[k])),
  gaps: tones.slice(1).map((t, k) => t.start - tones[k].start)
});

const equal = (a: readonly number[], b: readonly number[]): boolean => a.length === b.length && a.every((x, k) => x === b[k]);
const scaled = (a: readonly number[], b: readonly number[], factor: number): boolean => a.every((x, k) => b[k] === x * factor);

/** Place in the bar as ticks back from its end, so that upbeats compare. */
function placeInBar(sounding: SoundingScore, ticks: number): number {
  const slot = slotAt(sounding, ticks);
  return slot ? ticks - sounding.measureStarts[slot.measure] : 0;
}

/** How the notes from an index stand to a pattern; null when they are something else. */
function compareAt(
  sounding: SoundingScore,
  pattern: Pattern,
  line: readonly Tone[],
  index: number
): { transformations: Transformation[]; steps: number } | null {
  const n = pattern.tones.length;
  const tones = line.slice(index, index + n);
  if (tones.length < n) return null;
  const own = patternOf(tones);
  const steps = heightOf(tones[0]) - heightOf(pattern.tones[0]);
  const found: Transformation[] = [];
  const inverted = pattern.moves.map((m) => -m || 0);
  const sameRhythm = equal(pattern.gaps, own.gaps);
  if (equal(pattern.moves, own.moves)) {
    if (sameRhythm) found.push(steps === 0 ? 'same' : 'transposed');
    else if (scaled(pattern.gaps, own.gaps, 2)) found.push('augmented');
    else if (scaled(pattern.gaps, own.gaps, 0.5)) found.push('diminished');
    else return null;
    if (!sameRhythm && steps !== 0) found.push('transposed');
  } else if (equal(inverted, own.moves) && (sameRhythm || scaled(pattern.gaps, own.gaps, 2) || scaled(pattern.gaps, own.gaps, 0.5))) {
    found.push('inverted');
    if (!sameRhythm) found.push(scaled(pattern.gaps, own.gaps, 2) ? 'augmented' : 'diminished');
  } else return null;
  if (sameRhythm && placeInBar(sounding, tones[0].start) !== placeInBar(sounding, pattern.tones[0].start)) {
    // Its accented note now stands elsewhere in the bar: a trap for the player.
    if (levelAt(sounding, tones[0].start) !== levelAt(sounding, pattern.tones[0].start)) found.push('moved to another beat');
  }
  return { transformations: found, steps };
}

/** Every place in the lines at which a pattern occurs, as it is or transformed, without overlaps. */
function occurrencesOf(sounding: SoundingScore, pattern: Pattern, lines: readonly (readonly Tone[])[]): MotiveOccurrence[] {
  const result: MotiveOccurrence[] = [];
  for (const line of lines) {
    for (let k = 0; k + pattern.tones.length <= line.length; k++) {
      const found = compareAt(sounding, pattern, line, k);
      if (!found) continue;
      const tones = line.slice(k, k + pattern.tones.length);
      result.push({
        start: fromTicks(sounding, tones[0].start),
        end: fromTicks(sounding, tones[tones.length - 1].end),
        notes: tones.map((t) => t.note.id),
        ...found
      });
      k += pattern.tones.length - 2;
    }
  }
  return result.sort((a, b) => cmp(a.start, b.start));
}

/** The voices of a texture as lines; grace notes left out, of chords the top notes. */
export function voiceLines(sounding: SoundingScore): Tone[][] {
  const lines = new Map<string, Tone[]>();
  for (const t of sounding.tones) {
    if (t.note.grace) continue;
    const key = `${t.note.part}|${t.note.staff}|${t.note.voice}`;
    const line = lines.get(key) ?? [];
    const last = line.at(-1);
    if (last && last.start === t.start) {
      if (t.midi > last.midi) line[line.length - 1] = t;
    } else line.push(t);
    lines.set(key, line);
  }
  return [...lines.values()];
}

/**
 * "Find this": all places that have the pattern of some notes of one line, transposed, inverted, augmented,
 * diminished or moved to another beat. The notes' own place comes along.
 * @returns an empty list when fewer than three notes are given or they do not stand in one line in a row
 */
export function findLike(sounding: SoundingScore, noteIds: readonly string[]): MotiveOccurrence[] {
  const wanted = new Set(noteIds);
  for (const line of voiceLines(sounding)) {
    const from = line.findIndex((t) => wanted.has(t.note.id));
    if (from < 0) continue;
    const tones = line.slice(from).filter((t) => wanted.has(t.note.id));
    if (tones.length < 3) continue;
    return occurrencesOf(sounding, patternOf(tones), voiceLines(sounding));
  }
  return [];
}

/** Fewest and most notes of a motive that is looked for, and how often it must come. */
const SIZE = { least: 4, most: 7, times: 3, motives: 6 };

/** True for a pattern that says something: not a scale, not one repeated note, with some rhythm or some turn of its own. */
function isCharacteristic(p: Pattern): boolean {
  const turns = p.moves.slice(1).filter((m, k) => Math.sign(m) !== Math.sign(p.moves[k])).length;
  const rhythms = new Set(p.gaps).size;
  return new Set(p.moves).size > 1 && (turns > 0 || rhythms > 1) && p.moves.some((m) => m !== 0);
}

/**
 * Motives found, not only looked up: patterns of four to seven notes that begin phrases or bars and come at least
 * three times; the longest and commonest first. `begun early` marks an entry whose place comes before the phrase
 * that it opens elsewhere.
 */
export function findMotives(sounding: SoundingScore, phrases: readonly PhraseFact[]): MotiveFact[] {
  const lines = voiceLines(sounding);
  const starts = new Set(phrases.map((p) => toTicks(sounding, p.start)));
  const table = new Map<string, { pattern: Pattern; count: number; opens: number }>();
  for (const line of lines) {
    for (let size = SIZE.least; size <= SIZE.most; size++) {
      const lastAt = new Map<string, number>();
      for (let k = 0; k + size <= line.length; k++) {
        const tones = line.slice(k, k + size);
        if (tones.some((t, i) => i > 0 && t.start - tones[i - 1].end > sounding.ticksPerQuarter)) continue;
        const opens = starts.has(tones[0].start);
        if (!opens && levelAt(sounding, tones[0].start) < 1) continue;
        const pattern = patternOf(tones);
        if (!isCharacteristic(pattern)) continue;
        const key = `${pattern.moves.join()}|${pattern.gaps.join()}`;
        const before = lastAt.get(key);
        if (before !== undefined && k - before < size - 1) continue;
        lastAt.set(key, k);
        const entry = table.get(key) ?? { pattern, count: 0, opens: 0 };
        entry.count++;
        if (opens) entry.opens++;
        table.set(key, entry);
      }
    }
  }
  const ranked = [...table.values()]
    .filter((e) => e.count >= SIZE.times || (e.opens >= 2 && e.count >= 2))
    .sort((a, b) => b.count * (b.pattern.tones.length - 2) + 3 * b.opens - (a.count * (a.pattern.tones.length - 2) + 3 * a.opens));
  const used = new Set<string>();
  const motives: MotiveFact[] = [];
  for (const { pattern, opens } of ranked) {
    if (motives.length >= SIZE.motives) break;
    // A part of a motive that is already told is no motive of its own.
    const ids = pattern.tones.map((t) => t.note.id);
    if (ids.filter((id) => used.has(id)).length > ids.length / 3) continue;
    const occurrences = occurrencesOf(sounding, pattern, lines);
    if (occurrences.filter((o) => o.notes.some((id) => used.has(id))).length > occurrences.length / 2) continue;
    for (const o of occurrences) {
      for (const id of o.notes) used.add(id);
      const at = toTicks(sounding, o.start);
      const next = [...starts].find((s) => s > at && s - at < 2 * sounding.ticksPerQuarter);
      if (opens && next !== undefined && !starts.has(at)) o.transformations.push('begun early');
    }
    motives.push({
      id: `motive-${ids[0]}`,
      name: `motive ${String.fromCharCode(97 + motives.length)}`,
      notes: ids,
      occurrences,
      evidence: `${pattern.tones.length} notes, ${occurrences.length} times${opens ? `, ${opens} times at the beginning of a phrase` : ''}`
    });
  }
  return motives;
}
