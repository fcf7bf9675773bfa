import { beatOfMeter } from '../score/meter.ts';
import { add, cmp, eq, frac, lt, sub, toNumber, ZERO, type Fraction } from '../score/fraction.ts';
import type { KeySignature, Measure, Note, Score, TimeSignature } from '../score/model.ts';
import { midi, type Pitch } from '../score/pitch.ts';

/** A note, chord or rest of a drill; real lengths in quarters. */
export interface DrillSound {
  /** From the beginning of its bar. */
  at: Fraction;
  duration: Fraction;
  /** From low to high; empty for a rest. */
  heads: { pitch: Pitch; tie: boolean }[];
  /** The written notes that it came from. */
  notes: Note[];
  /** Small notes before it. */
  graces: Pitch[][];
  /** Signs on it, as the writer of ABC names them. */
  signs: string[];
  slurStarts: number;
  slurStops: number;
}

export interface DrillBar {
  time: TimeSignature | null;
  key: KeySignature;
  length: Fraction;
  beat: Fraction;
  sounds: DrillSound[];
  /** Words over its beginning. */
  words?: string;
  clef?: string;
}

const SIGNS: Record<string, string> = {
  staccato: 'staccato',
  tenuto: 'tenuto',
  accent: 'accent',
  'strong-accent': 'marcato',
  staccatissimo: 'wedge',
  'trill-mark': 'trill',
  turn: 'turn',
  'inverted-turn': 'invertedturn',
  mordent: 'mordent',
  'inverted-mordent': 'uppermordent',
  'up-bow': 'upbow',
  'down-bow': 'downbow',
  fermata: 'fermata'
};
export const ORNAMENT_SIGNS: ReadonlySet<string> = new Set(['trill', 'turn', 'invertedturn', 'mordent', 'uppermordent']);

export const isRest = (s: DrillSound): boolean => s.heads.length === 0;

/** Silence in a bar. */
export const rest = (at: Fraction, duration: Fraction): DrillSound => ({
  at,
  duration,
  ...{ heads: [], notes: [], graces: [], signs: [], slurStarts: 0, slurStops: 0 }
});

/** The line of one staff in some bars, both included: of several voices the first. A short bar is filled with rest before it. */
export function materialOf(score: Score, part: number, staff: number, from: number, to: number): DrillBar[] {
  const starts = new Map<string, number>();
  const stops = new Map<string, number>();
  const inside = (id: string): boolean => ids.has(id);
  const own = score.notes.filter((n) => n.part === part && n.staff === staff && n.measure >= from && n.measure <= to && !n.cue);
  const ids = new Set(own.map((n) => n.id));
  for (const s of score.slurs)
    if (s.kind === 'slur' && inside(s.from) && inside(s.to)) {
      starts.set(s.from, (starts.get(s.from) ?? 0) + 1);
      stops.set(s.to, (stops.get(s.to) ?? 0) + 1);
    }
  const count = (of: Map<string, number>, notes: readonly Note[]): number => notes.reduce((n, x) => n + (of.get(x.id) ?? 0), 0);
  return score.measures.slice(from, to + 1).map((measure): DrillBar => {
    const here = own.filter((n) => n.measure === measure.index);
    const voice = here.find((n) => !n.rest)?.voice ?? here[0]?.voice;
    const sounds: DrillSound[] = [];
    let graces: Pitch[][] = [];
    for (const n of here.filter((x) => x.voice === voice)) {
      if (n.grace) {
        if (n.pitch && n.chord) graces.at(-1)?.push(n.pitch);
        else if (n.pitch) graces.push([n.pitch]);
        continue;
      }
      const last = sounds.at(-1);
      if (n.chord && last && eq(last.at, n.onset)) {
        if (n.pitch) last.heads.push({ pitch: n.pitch, tie: n.tie?.start ?? false });
        last.notes.push(n);
      } else {
        const signs = (n.marks ?? []).flatMap((m) => SIGNS[m.name] ?? []);
        sounds.push({
          ...rest(n.onset, n.duration),
          heads: n.pitch && !n.rest ? [{ pitch: n.pitch, tie: n.tie?.start ?? false }] : [],
          ...{ notes: [n], graces, signs }
        });
        graces = [];
      }
    }
    for (const s of sounds) fromLowToHigh(s);
    for (const s of sounds) [s.slurStarts, s.slurStops] = [count(starts, s.notes), count(stops, s.notes)];
    return padded(measure, filled(sounds, measure.length));
  });
}

/** Heads, and the notes that they are of, as they lie. */
function fromLowToHigh(s: DrillSound): void {
  if (s.heads.length < 2 || s.heads.length !== s.notes.length) return;
  const order = s.heads.map((_, k) => k).sort((a, b) => midi(s.heads[a].pitch) - midi(s.heads[b].pitch));
  [s.heads, s.notes] = [order.map((k) => s.heads[k]), order.map((k) => s.notes[k])];
}

/** Gaps become rests, so that the bar adds up. */
export function filled(sounds: readonly DrillSound[], length: Fraction): DrillSound[] {
  const result: DrillSound[] = [];
  let at = ZERO;
  for (const s of [...sounds].sort((a, b) => cmp(a.at, b.at))) {
    if (lt(at, s.at)) result.push(rest(at, sub(s.at, at)));
    if (lt(s.at, at) || s.duration.n === 0) continue;
    result.push(s);
    at = add(s.at, s.duration);
  }
  if (lt(at, length)) result.push(rest(at, sub(length, at)));
  return result;
}

const beatIn = (measure: Measure): Fraction => {
  const { beat } = beatOfMeter(measure);
  return toNumber(beat) > 0 ? beat : frac(1);
};

function padded(measure: Measure, sounds: DrillSound[]): DrillBar {
  const { time, key, length } = measure;
  const full = time?.quarters;
  const base = { time, key, beat: beatIn(measure) };
  if (!full || !lt(length, full)) return { ...base, length, sounds };
  const silence = sub(full, length);
  return { ...base, length: full, sounds: [rest(ZERO, silence), ...sounds.map((s) => ({ ...s, at: add(s.at, silence) }))] };
}

/** Bars so many times; words stand the first time only. */
export const again = (bars: readonly DrillBar[], times: number): DrillBar[] =>
  Array.from({ length: times }, (_, k) => (k ? bars.map((b) => ({ ...b, words: undefined })) : bars)).flat();

/** The sounds that are struck, in order. */
export const struck = (bars: readonly DrillBar[]): DrillSound[] => bars.flatMap((b) => b.sounds.filter((s) => !isRest(s)));

/** A head that goes on from the one before. */
export const isTiedTo = (s: DrillSound, before: DrillSound | undefined): boolean =>
  before !== undefined && s.notes.some((n) => n.tie?.stop) && before.heads.some((h) => h.tie);

/** Without ties, small notes, signs and slurs. */
export const bare = (s: DrillSound): DrillSound => ({
  ...s,
  heads: s.heads.map((h) => ({ ...h, tie: false })),
  ...{ graces: [], signs: [], slurStarts: 0, slurStops: 0 }
});

/** The same bar with other sounds, gaps filled. */
export const withSounds = (bar: DrillBar, sounds: readonly DrillSound[]): DrillBar => ({ ...bar, sounds: filled(sounds, bar.length) });

/** A bar of a length of its own. */
export const barOf = (like: DrillBar, length: Fraction, sounds: readonly DrillSound[], words?: string): DrillBar => ({
  ...like,
  time: like.time?.quarters && eq(like.time.quarters, length) ? like.time : timeOf(length),
  length,
  sounds: filled(sounds, length),
  words
});

/** The signature that a length fills. */
export function timeOf(length: Fraction): TimeSignature {
  const unit = Math.max(4, 4 * length.d);
  const count = (length.n * unit) / (4 * length.d);
  return { text: `${count}/${unit}`, groups: [count], unit, quarters: length };
}

/** Sounds one after the other from the beginning of a bar. */
export function inARow(sounds: readonly (Omit<DrillSound, 'at'> & { at?: Fraction })[]): DrillSound[] {
  let at = ZERO;
  return sounds.map((s) => {
    const placed = { ...s, at };
    at = add(at, s.duration);
    return placed;
  });
}
