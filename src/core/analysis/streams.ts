import { VOICE_LEAP, VOICE_MEMORY_BEATS } from '../style/analysis-weights.ts';
import { heightOf } from './grid.ts';
import type { VoiceName } from './roles.ts';
import { levelAt, type SoundingScore, type Tone } from './sounding-score.ts';

/** A voice that a single line holds, by register and continuity (handbook 3.5). */
export interface Stream {
  name: VoiceName;
  notes: string[];
}

export interface StreamFact {
  start: number;
  end: number;
  streams: Stream[];
  evidence: string;
}

/** A step line hidden in a larger one, or a chromatic one. */
export interface LineFact {
  kind: 'scale' | 'chromatic';
  direction: 'up' | 'down';
  /** Ticks. */
  start: number;
  end: number;
  notes: string[];
  /** Upper, lower or the line itself. */
  where: 'line' | 'top notes' | 'bottom notes' | 'bass';
}

/**
 * Splits a leaping line into two or three voices: each note goes to the voice that it continues with the smaller
 * step, a leap opens another voice if it is left by leap too. Stretches without such leaps have one voice and are
 * left out.
 */
export function findStreams(sounding: SoundingScore, pins: ReadonlyMap<string, VoiceName> = new Map()): StreamFact[] {
  const { melody, ticksPerQuarter } = sounding;
  const result: StreamFact[] = [];
  for (const [from, to] of leapingStretches(melody, ticksPerQuarter)) {
    const voices: { last: Tone; notes: Tone[] }[] = [];
    for (const tone of melody.slice(from, to)) {
      const near = voices
        .filter((v) => tone.start - v.last.start <= VOICE_MEMORY_BEATS * ticksPerQuarter)
        .sort((a, b) => Math.abs(a.last.midi - tone.midi) - Math.abs(b.last.midi - tone.midi))[0];
      if (near && (Math.abs(near.last.midi - tone.midi) <= VOICE_LEAP - 1 || voices.length >= 3)) {
        near.last = tone;
        near.notes.push(tone);
      } else voices.push({ last: tone, notes: [tone] });
    }
    const real = voices.filter((v) => v.notes.length >= 3).sort((a, b) => mean(b.notes) - mean(a.notes));
    if (real.length < 2) continue;
    const names: VoiceName[] = real.length === 2 ? ['upper', 'lower'] : ['upper', 'middle', 'lower'];
    result.push({
      start: melody[from].start,
      end: melody[to - 1].end,
      streams: withPins(
        real.slice(0, 3).map((v, k) => ({ name: names[k], notes: v.notes.map((t) => t.note.id) })),
        pins
      ),
      evidence: `the line leaps between ${real.length === 2 ? 'two' : 'three'} registers; what is written short sounds on in the mind`
    });
  }
  return result;
}

/** Notes that the instructor has given to another voice go there. */
function withPins(streams: Stream[], pins: ReadonlyMap<string, VoiceName>): Stream[] {
  const all = streams.flatMap((s) => s.notes.map((note) => ({ note, voice: pins.get(note) ?? s.name })));
  return streams.map((s) => ({ name: s.name, notes: all.filter((n) => n.voice === s.name).map((n) => n.note) }));
}

const mean = (tones: readonly Tone[]): number => tones.reduce((sum, t) => sum + t.midi, 0) / tones.length;

/** Ranges of a line in which it keeps leaping to and fro: at least four leaps in eight notes. */
function leapingStretches(melody: readonly Tone[], beat: number): [number, number][] {
  const leaps = melody.map((t, k) =>
    k > 0 && Math.abs(t.midi - melody[k - 1].midi) >= VOICE_LEAP && t.start - melody[k - 1].start <= 2 * beat ? 1 : 0
  );
  const result: [number, number][] = [];
  let open = -1;
  for (let k = 0; k < melody.length; k++) {
    const window = leaps.slice(Math.max(0, k - 3), k + 5);
    // Leaps both ways, not an arpeggio that goes on one way.
    const both = (dir: number): boolean =>
      melody
        .slice(Math.max(1, k - 3), k + 5)
        .some(
          (t, i) =>
            Math.sign(t.midi - melody[Math.max(1, k - 3) + i - 1].midi) === dir &&
            Math.abs(t.midi - melody[Math.max(1, k - 3) + i - 1].midi) >= VOICE_LEAP
        );
    const leaping = window.reduce<number>((a, b) => a + b, 0) >= 3 && both(1) && both(-1);
    if (leaping && open < 0) open = k;
    if (!leaping && open >= 0) {
      if (k - open >= 4) result.push([Math.max(0, open - 3), Math.min(melody.length, k + 4)]);
      open = -1;
    }
  }
  if (open >= 0) result.push([Math.max(0, open - 3), melody.length]);
  const merged: [number, number][] = [];
  for (const r of result) {
    const last = merged.at(-1);
    if (last && r[0] <= last[1]) last[1] = r[1];
    else merged.push(r);
  }
  return merged;
}

/** Runs of single steps one way among a row of notes. */
function stepRuns(tones: readonly Tone[], least: number, where: LineFact['where'], gap: number): LineFact[] {
  const result: LineFact[] = [];
  let from = 0;
  for (let k = 1; k <= tones.length; k++) {
    const move = k < tones.length ? heightOf(tones[k]) - heightOf(tones[k - 1]) : 0;
    const before = k - 1 > from ? heightOf(tones[k - 1]) - heightOf(tones[k - 2]) : move;
    const goesOn = k < tones.length && Math.abs(move) === 1 && move === before && tones[k].start - tones[k - 1].start <= gap;
    if (goesOn) continue;
    if (k - from >= least)
      result.push({
        kind: 'scale',
        direction: heightOf(tones[k - 1]) > heightOf(tones[from]) ? 'up' : 'down',
        start: tones[from].start,
        end: tones[k - 1].end,
        notes: tones.slice(from, k).map((t) => t.note.id),
        where
      });
    from = Math.abs(move) === 1 && k < tones.length && tones[k].start - tones[k - 1].start <= gap ? k - 1 : k;
  }
  return result;
}

/** Runs of semitones one way. */
function chromaticRuns(tones: readonly Tone[], where: LineFact['where'], gap: number): LineFact[] {
  const result: LineFact[] = [];
  let from = 0;
  for (let k = 1; k <= tones.length; k++) {
    const move = k < tones.length ? tones[k].midi - tones[k - 1].midi : 0;
    const before = k - 1 > from ? tones[k - 1].midi - tones[k - 2].midi : move;
    if (k < tones.length && Math.abs(move) === 1 && move === before && tones[k].start - tones[k - 1].start <= gap) continue;
    if (k - from >= 4)
      result.push({
        kind: 'chromatic',
        direction: tones[k - 1].midi > tones[from].midi ? 'up' : 'down',
        start: tones[from].start,
        end: tones[k - 1].end,
        notes: tones.slice(from, k).map((t) => t.note.id),
        where
      });
    from = Math.abs(move) === 1 && k < tones.length ? k - 1 : k;
  }
  return result;
}

/**
 * Scale lines that are hidden in the beats' highest or lowest notes (five steps or more), in the bass, and
 * chromatic lines of four semitones or more anywhere.
 */
export function findLines(sounding: SoundingScore, bass: readonly Tone[]): LineFact[] {
  const beat = sounding.ticksPerQuarter;
  const tops: Tone[] = [];
  const bottoms: Tone[] = [];
  let group: Tone[] = [];
  const close = () => {
    if (group.length >= 2) {
      tops.push(group.reduce((a, b) => (b.midi > a.midi ? b : a)));
      bottoms.push(group.reduce((a, b) => (b.midi < a.midi ? b : a)));
    } else group.forEach((t) => (tops.push(t), bottoms.push(t)));
    group = [];
  };
  for (const t of sounding.melody) {
    if (levelAt(sounding, t.start) >= 1) close();
    group.push(t);
  }
  close();
  const lines = [
    ...stepRuns(tops, 5, 'top notes', 2 * beat),
    ...stepRuns(bottoms, 5, 'bottom notes', 2 * beat),
    ...stepRuns(bass, 5, 'bass', 4 * beat),
    ...chromaticRuns(sounding.melody, 'line', 2 * beat),
    ...chromaticRuns(tops, 'top notes', 2 * beat),
    ...chromaticRuns(bottoms, 'bottom notes', 2 * beat),
    ...chromaticRuns(bass, 'bass', 4 * beat)
  ];
  // A plain scale of the line itself is not hidden; the same notes are told once.
  const told = new Set<string>();
  return lines
    .filter((l) => l.kind === 'chromatic' || l.where === 'bass' || !isPlain(sounding.melody, l))
    .filter((l) => {
      const key = `${l.kind}|${l.notes.join()}`;
      return told.has(key) ? false : told.add(key) !== undefined;
    })
    .sort((a, b) => a.start - b.start);
}

/** True when the notes of a run follow each other directly in the line. */
function isPlain(melody: readonly Tone[], line: LineFact): boolean {
  const from = melody.findIndex((t) => t.note.id === line.notes[0]);
  return line.notes.every((id, k) => melody[from + k]?.note.id === id);
}
