import { ECHO } from '../style/likeness.ts';
import { fifthsPc } from '../score/pitch.ts';
import type { Beat } from './grid.ts';
import { sharedPlaces, type TwoPlaces } from './overlap.ts';
import { levelAt, type SoundingScore, type Tone } from './sounding-score.ts';

/** Two places with the same notes: in another voice, or displaced by less than a beat. */
export interface Echo extends TwoPlaces {
  /** Staff steps from a to b. */
  steps: number;
  /** Share of the notes of both places that belong together. */
  likeness: number;
  notes: number;
  /** Lines in which the two stand. */
  lineA: EchoLine;
  lineB: EchoLine;
}

/** A line that is followed by itself: a voice as written, or the bass of a texture. */
export interface EchoLine {
  name: string;
  tones: Tone[];
}

/** The voices as written, and the bass where it is no voice of its own. */
export function echoLines(sounding: SoundingScore): EchoLine[] {
  const voices = new Map<string, Tone[]>();
  for (const t of sounding.tones) {
    if (t.note.grace) continue;
    const key = `${t.note.part}|${t.note.staff}|${t.note.voice}`;
    const line = voices.get(key);
    if (!line) voices.set(key, [t]);
    else if (line[line.length - 1].start < t.start) line.push(t);
    else if (line[line.length - 1].midi < t.midi) line[line.length - 1] = t;
  }
  const lines = [...voices].map(([name, tones]) => ({ name, tones }));
  if (!sounding.singleLine) lines.push({ name: 'bass', tones: lowest(sounding) });
  return lines.filter((l) => l.tones.length > ECHO.notes);
}

/** What is struck lowest on each beat, below all that goes on sounding. */
function lowest(sounding: SoundingScore): Tone[] {
  const bass: Tone[] = [];
  let held: Tone | null = null;
  for (const t of sounding.tones) {
    if (t.note.grace) continue;
    const before: Tone | undefined = bass[bass.length - 1];
    if (before?.start === t.start) {
      if (t.midi < before.midi) bass[bass.length - 1] = held = t;
    } else if (levelAt(sounding, t.start) >= 1 && (!held || held.end <= t.start || t.midi <= held.midi)) bass.push((held = t));
  }
  return bass;
}

/** A short run of notes by its steps and distances, as a number. */
function signature(tones: readonly Tone[], from: number): number {
  let hash = 17;
  for (let k = from; k < from + ECHO.run; k++) {
    hash = Math.imul(hash ^ (tones[k + 1].height - tones[k].height + 64), 0x01000193);
    hash = Math.imul(hash ^ (tones[k + 1].start - tones[k].start), 0x01000193);
  }
  return hash;
}

interface Hit {
  line: number;
  index: number;
}

/** True for a run that any music has: one note, a scale, a broken chord to and fro. */
function isCommon(tones: readonly Tone[]): boolean {
  const moves = tones.slice(1).map((t, k) => t.height - tones[k].height);
  const kinds = new Set(moves);
  const rhythms = new Set(tones.slice(1).map((t, k) => t.start - tones[k].start));
  const heights = new Set(tones.map((t) => t.height));
  const pcs = new Set(tones.map((t) => fifthsPc(t.fifths)));
  return kinds.size < 3 || heights.size < 4 || pcs.size < 4 || (rhythms.size < 2 && kinds.size < 4);
}

/** A place of a lower voice in equal values is a figure of accompaniment, told only where it goes on for long. */
function isFigure({ lineA, lineB, fromA, toA }: Echo): boolean {
  if (lineA !== lineB) return false;
  const own = lineA.tones.filter((t) => t.start >= fromA && t.end <= toA);
  return new Set(own.slice(1).map((t, k) => t.start - own[k].start)).size < 2;
}

/**
 * Places that are the same note for note in another voice, in the bass under other figures, or in the same voice but displaced
 * by less than a beat. What stands in one voice and on the same beats is found by `findPairs`.
 * @param beats the grid, for the length of beat and bar
 */
export function findEchoes(sounding: SoundingScore, beats: readonly Beat[], bar: number): Echo[] {
  if (beats.length < 4) return [];
  const lines = echoLines(sounding);
  const buckets = new Map<number, Hit[]>();
  lines.forEach(({ tones }, line) => {
    for (let index = 0; index + ECHO.run < tones.length; index++) {
      const key = signature(tones, index);
      const hits = buckets.get(key);
      if (hits) hits.push({ line, index });
      else buckets.set(key, [{ line, index }]);
    }
  });
  const middle = beats[Math.min(beats.length - 1, bar)];
  const beat = middle.end - middle.start;
  const barTicks = bar * beat;
  /** Hits by lines, distance in time and interval: what belongs together lies in one of them. */
  const runs = new Map<string, { a: Hit; b: Hit }[]>();
  for (const hits of buckets.values()) {
    if (hits.length < 2 || hits.length > ECHO.mostHits) continue;
    const ordered = [...hits].sort((p, q) => lines[p.line].tones[p.index].start - lines[q.line].tones[q.index].start);
    for (let x = 0; x < ordered.length; x++)
      for (let y = x + 1; y < ordered.length; y++) {
        const [a, b] = [ordered[x], ordered[y]];
        const [s, t] = [lines[a.line].tones[a.index], lines[b.line].tones[b.index]];
        const lag = t.start - s.start;
        if (lag < ECHO.shortestLag * barTicks) continue;
        const isBass = lines[a.line].name === 'bass' || a.line > 0;
        if (a.line === b.line && !isBass && lag % beat === 0) continue;
        const key = `${a.line}|${b.line}|${lag}|${t.height - s.height}`;
        const run = runs.get(key);
        if (run) run.push({ a, b });
        else runs.set(key, [{ a, b }]);
      }
  }
  const found: Echo[] = [];
  for (const [key, hits] of runs) {
    const [, , lag, steps] = key.split('|').map(Number);
    const ordered = hits.sort((p, q) => p.a.index - q.a.index);
    for (let from = 0; from < ordered.length;) {
      let to = from + 1;
      const toneOf = (h: { a: Hit }): Tone => lines[h.a.line].tones[h.a.index];
      while (to < ordered.length && toneOf(ordered[to]).start - toneOf(ordered[to - 1]).start <= ECHO.gap * barTicks) to++;
      const echo = echoOf(lines, ordered[from], ordered[to - 1], lag, steps, new Set(ordered.slice(from, to).map((h) => h.a.index)));
      if (echo && echo.toA - echo.fromA >= (isFigure(echo) ? ECHO.shortestFigure : ECHO.shortest) * barTicks) found.push(echo);
      from = to;
    }
  }
  return thin(found, Math.max(ECHO.fewest, Math.ceil(beats.length / bar / ECHO.barsEach)));
}

function echoOf(
  lines: readonly EchoLine[],
  first: { a: Hit; b: Hit },
  last: { a: Hit; b: Hit },
  lag: number,
  steps: number,
  starts: ReadonlySet<number>
): Echo | null {
  const [lineA, lineB] = [lines[first.a.line], lines[first.b.line]];
  const a = lineA.tones.slice(first.a.index, last.a.index + ECHO.run + 1);
  const b = lineB.tones.slice(first.b.index, last.b.index + ECHO.run + 1);
  let matched = 0;
  let reach = -1;
  for (let k = first.a.index; k <= last.a.index + ECHO.run; k++) {
    if (starts.has(k)) reach = k + ECHO.run;
    if (k <= reach) matched++;
  }
  const likeness = (2 * matched) / (a.length + b.length);
  if (matched < ECHO.notes || likeness < ECHO.likeness || isCommon(a)) return null;
  const [fromA, toA] = [a[0].start, a[a.length - 1].end];
  return { fromA, toA, fromB: fromA + lag, toB: toA + lag, steps, likeness, notes: matched, lineA, lineB };
}

/** The strongest first, each place told once. */
function thin(echoes: Echo[], most: number): Echo[] {
  const kept: Echo[] = [];
  for (const e of echoes.sort((x, y) => y.notes * y.likeness - x.notes * x.likeness)) {
    const told = kept.some((k) => sharedPlaces(k, e) > ECHO.overlap);
    if (!told) kept.push(e);
    if (kept.length >= most) break;
  }
  return kept.sort((x, y) => x.fromA - y.fromA || x.fromB - y.fromB);
}
