import { parseMidi, type MidiData } from 'midi-file';
import { splitLength } from '../score/abc/write.ts';
import { add, cmp, frac, lt, lte, min, mul, sub, toNumber, ZERO, type Fraction } from '../score/fraction.ts';
import type { KeySignature } from '../score/model.ts';
import { ScoreError } from '../score/model.ts';
import { fifthsPc, midi, type Pitch } from '../score/pitch.ts';
import { newId } from './edits.ts';
import { barRest, emptyWritten, timeOf, type Sound, type Written, type WrittenBar } from './written.ts';

/** A MIDI file as a written score, and what was done to it or is not understood, in sentences. */
export interface TakenMidi {
  written: Written;
  remarks: string[];
}

interface Heard {
  key: number;
  /** Quarters from the beginning. */
  from: number;
  to: number;
}

/** Parts of a beat that an onset may stand on: sixteenths, or thirds; thirds must be clearly nearer. */
const PARTS = [
  { parts: 4, weight: 1 },
  { parts: 3, weight: 1.3 }
] as const;
/** Of the time to the next note, what may be silent before it is written as a rest. */
const DETACHED = 0.5;
/** Bars at most. */
const MOST_BARS = 2000;
/** Where a left hand begins to be written in the bass: mean height of a track, MIDI number. */
const BASS = 57;

/** Notes of a track, in order of time. */
function heardIn(track: MidiData['tracks'][number], perQuarter: number): Heard[] {
  const open = new Map<number, number>();
  const heard: Heard[] = [];
  let tick = 0;
  const end = (key: number): void => {
    const from = open.get(key);
    open.delete(key);
    if (from !== undefined && tick > from) heard.push({ key, from: from / perQuarter, to: tick / perQuarter });
  };
  for (const e of track) {
    tick += e.deltaTime;
    // The percussion channel has no pitches. General MIDI level 1.
    if ('channel' in e && e.channel === 9) continue;
    if (e.type === 'noteOn' && e.velocity > 0) {
      end(e.noteNumber);
      open.set(e.noteNumber, tick);
    } else if (e.type === 'noteOff' || e.type === 'noteOn') end(e.noteNumber);
  }
  for (const key of [...open.keys()]) end(key);
  return heard.sort((a, b) => a.from - b.from || a.key - b.key);
}

/** Which parts each beat falls into: those on which its onsets lie nearer. */
function partsOfBeats(heard: readonly Heard[]): Map<number, number> {
  const byBeat = new Map<number, number[]>();
  for (const { from } of heard) {
    const beat = Math.floor(from + 1 / 16);
    byBeat.set(beat, [...(byBeat.get(beat) ?? []), from - beat]);
  }
  const off = (onsets: number[], parts: number): number => onsets.reduce((sum, o) => sum + (o - Math.round(o * parts) / parts) ** 2, 0);
  return new Map(
    [...byBeat].map(([beat, onsets]) => [
      beat,
      PARTS.reduce((best, p) => (off(onsets, p.parts) * p.weight < off(onsets, best.parts) * best.weight - 1e-9 ? p : best)).parts
    ])
  );
}

interface Chord {
  start: Fraction;
  end: Fraction;
  keys: number[];
}

/** Notes on the grid: those that begin together are one chord, and each lasts to the next at most. */
function quantised(heard: readonly Heard[]): { chords: Chord[]; parts: Map<number, number>; cut: number } {
  const parts = partsOfBeats(heard);
  const onGrid = (moment: number): Fraction => {
    const beat = Math.floor(moment + 1 / 16);
    const n = parts.get(beat) ?? 4;
    return add(frac(beat), frac(Math.round((moment - beat) * n), n));
  };
  const chords: Chord[] = [];
  for (const { key, from, to } of heard) {
    const start = onGrid(from);
    const last = chords.at(-1);
    if (last && cmp(last.start, start) === 0) {
      if (!last.keys.includes(key)) last.keys.push(key);
      last.end = lt(last.end, onGrid(to)) ? onGrid(to) : last.end;
    } else chords.push({ start, end: onGrid(to), keys: [key] });
  }
  let cut = 0;
  chords.forEach((c, k) => {
    const next = chords[k + 1]?.start;
    const smallest = frac(1, parts.get(Math.floor(toNumber(c.start))) ?? 4);
    if (lte(c.end, c.start)) c.end = add(c.start, smallest);
    if (!next) return;
    if (lt(next, c.end)) {
      if (toNumber(sub(c.end, next)) > 0.2) cut++;
      c.end = next;
    } else if (toNumber(sub(c.end, c.start)) >= DETACHED * toNumber(sub(next, c.start)) && toNumber(sub(next, c.end)) < 1) c.end = next;
  });
  return { chords, parts, cut };
}

/** A key number spelled as a key has it: near to its tonic on the line of fifths. */
export function spelledIn(key: number, { fifths }: KeySignature): Pitch {
  for (let f = fifths - 3; f <= fifths + 8; f++) {
    if (fifthsPc(f) !== key % 12) continue;
    const step = (((4 * f) % 7) + 7) % 7;
    const alter = Math.floor((f + 1) / 7);
    const natural: Pitch = { step, alter, octave: 0 };
    return { ...natural, octave: Math.round((key - midi(natural)) / 12) };
  }
  throw new Error('twelve fifths in a row have every key');
}

/** Lengths that one written stretch falls into: within beats of thirds, else as few as show it. */
function pieces(from: Fraction, to: Fraction, parts: Map<number, number>): { length: Fraction; thirds: boolean }[] {
  const result: { length: Fraction; thirds: boolean }[] = [];
  let at = from;
  while (lt(at, to)) {
    const beat = Math.floor(toNumber(at) + 1e-9);
    const thirds = (b: number): boolean => parts.get(b) === 3;
    let end = to;
    if (thirds(beat) && !(at.d === 1 && lte(frac(beat + 1), to))) end = min(to, frac(beat + 1));
    else for (let b = beat + 1; lt(frac(b), to); b++) if (thirds(b) && !lte(frac(b + 1), to)) end = min(end, frac(b));
    const length = sub(end, at);
    if (length.d % 3 === 0) result.push({ length, thirds: true });
    else for (const l of splitLength(length)) result.push({ length: l, thirds: false });
    at = end;
  }
  return result;
}

const plain = (): Sound => ({ ...barRest(newId(), ZERO), wholeMeasure: undefined });

/** The sounds of one lane, bar by bar. */
function barsOfLane(chords: readonly Chord[], parts: Map<number, number>, bar: Fraction, count: number, key: KeySignature): Sound[][] {
  const stretches: { start: Fraction; end: Fraction; keys: number[] }[] = [];
  let at = ZERO;
  for (const c of chords) {
    if (lt(at, c.start)) stretches.push({ start: at, end: c.start, keys: [] });
    stretches.push(c);
    at = c.end;
  }
  const whole = mul(bar, frac(count));
  if (lt(at, whole)) stretches.push({ start: at, end: whole, keys: [] });
  const lanes: Sound[][] = Array.from({ length: count }, () => []);
  for (const s of stretches) {
    let from = s.start;
    while (lt(from, s.end)) {
      const index = Math.floor(toNumber(from) / toNumber(bar) + 1e-9);
      const to = min(s.end, mul(bar, frac(index + 1)));
      const cuts = pieces(from, to, parts);
      cuts.forEach(({ length, thirds }, k) => {
        const tie = k < cuts.length - 1 || lt(to, s.end);
        const pitches = s.keys.map((n) => ({ pitch: spelledIn(n, key), tie })).sort((a, b) => midi(a.pitch) - midi(b.pitch));
        lanes[index]?.push({
          ...plain(),
          pitches,
          duration: length,
          ...(thirds && { tuplet: { actual: 3, normal: 2, start: false, stop: false } })
        });
      });
      from = to;
    }
  }
  return lanes.map((sounds) => (sounds.every((s) => !s.pitches.length) && sounds.length ? [barRest(newId(), bar)] : bracketed(sounds)));
}

/** Groups of thirds are marked where they begin and end: a beat each. */
function bracketed(sounds: readonly Sound[]): Sound[] {
  let at = ZERO;
  return sounds.map((s) => {
    const from = at;
    at = add(at, s.duration);
    return s.tuplet ? { ...s, tuplet: { ...s.tuplet, start: from.d === 1, stop: at.d === 1 } } : s;
  });
}

/**
 * Reads a MIDI file: onsets on sixteenths or thirds of the quarter, one voice to a track, two tracks at most.
 * @throws ScoreError with one sentence
 */
export function fromMidi(bytes: Uint8Array, name: string): TakenMidi {
  let data: MidiData;
  try {
    data = parseMidi(bytes);
  } catch {
    throw new ScoreError('This is no MIDI file, or it is damaged.');
  }
  const perQuarter = data.header.ticksPerBeat;
  if (!perQuarter) throw new ScoreError('This MIDI file counts in seconds and not in beats, so that no bars can be found in it.');
  const events = data.tracks.flat();
  const meter = events.find((e) => e.type === 'timeSignature');
  const signature = events.find((e) => e.type === 'keySignature');
  const tempo = events.find((e) => e.type === 'setTempo');
  const tracks = data.tracks.map((track) => ({ track, heard: heardIn(track, perQuarter) })).filter((t) => t.heard.length);
  if (!tracks.length) throw new ScoreError('There are no notes in this MIDI file.');
  if (tracks.length > 2)
    throw new ScoreError(
      `This MIDI file has ${tracks.length} tracks with notes; the writing room holds one instrument on one staff or two.`
    );
  const remarks = [`Onsets were put on the nearest sixteenth or third of a quarter.`];
  const meters = new Set(events.flatMap((e) => (e.type === 'timeSignature' ? [`${e.numerator}/${e.denominator}`] : [])));
  if (meters.size > 1) remarks.push('Only the first of its meters was taken.');
  const text = meter?.type === 'timeSignature' ? `${meter.numerator}/${meter.denominator}` : '4/4';
  if (!meter) remarks.push('It names no meter; 4/4 was taken.');
  const key: KeySignature =
    signature?.type === 'keySignature'
      ? { fifths: signature.key, mode: signature.scale ? 'minor' : 'major' }
      : { fifths: 0, mode: 'major' };
  if (!signature) remarks.push('It names no key; C major was taken.');
  const bar = timeOf(text)!.quarters!;
  const grids = tracks.map((t) => quantised(t.heard));
  const last = grids.flatMap((g) => g.chords.map((c) => toNumber(c.end))).reduce((a, b) => Math.max(a, b), 0);
  const count = Math.max(1, Math.ceil(last / toNumber(bar) - 1e-9));
  if (count > MOST_BARS) throw new ScoreError(`This MIDI file has ${count} bars; ${MOST_BARS} are the most.`);
  const cut = grids.reduce((n, g) => n + g.cut, 0);
  if (cut)
    remarks.push(
      `${cut === 1 ? 'One note that sounded' : `${cut} notes that sounded`} into the next ${cut === 1 ? 'was' : 'were'} shortened to it.`
    );
  const called = events.find((e) => e.type === 'trackName' && e.text.trim());
  const mean = (heard: readonly Heard[]): number => heard.reduce((sum, h) => sum + h.key, 0) / heard.length;
  const base = emptyWritten(
    {
      title: name,
      composer: '',
      instrument: called?.type === 'trackName' ? called.text.trim().slice(0, 120) : '',
      transpose: 0,
      clefs: tracks.map((t) => (mean(t.heard) < BASS ? 'bass' : 'treble')),
      key,
      meter: text,
      tempo:
        tempo?.type === 'setTempo'
          ? { words: '', unit: frac(1), perMinute: String(Math.round(60_000_000 / tempo.microsecondsPerBeat)) }
          : { words: '', unit: null, perMinute: null },
      upbeat: null
    },
    newId()
  );
  const lanes = grids.map((g) => barsOfLane(g.chords, g.parts, bar, count, key));
  const bars = Array.from({ length: count }, (_, k): WrittenBar => ({ id: newId(), lanes: lanes.map((l) => l[k]) }));
  return { written: { ...base, bars }, remarks };
}
