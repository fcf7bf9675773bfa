import { keyAlter } from '../score/accidentals.ts';
import type { AbcEvent, AbcSound } from '../score/abc/model.ts';
import { writeAbcTune } from '../score/abc/write.ts';
import { add, frac, mul, toNumber, ZERO, type Fraction } from '../score/fraction.ts';
import { staffStep } from '../score/pitch.ts';
import { ACCIDENTAL_NAMES, sound } from '../edition/small-staff.ts';
import { isRest, type DrillBar, type DrillSound } from './material.ts';

/** A length that cannot be written. */
export class Unwritable extends Error {}

export interface DrillPage {
  title: string;
  /** Name of the part, so that its instrument is known. */
  name: string;
  clef: string;
  /** Semitones from written to sounding. */
  transpose: number;
  /** Quarters a minute. */
  tempo: number;
  bars: readonly DrillBar[];
}

const oddPart = (d: number): number => {
  let n = d;
  while (n % 2 === 0) n /= 2;
  return n;
};

/** Groups of notes that stand against the beat: 3 in the time of 2, 5 and 7 in that of 4. */
function tupletsOf(sounds: readonly DrillSound[]): (AbcSound['tuplet'] | undefined)[] {
  const found: (AbcSound['tuplet'] | undefined)[] = sounds.map(() => undefined);
  for (let from = 0; from < sounds.length; from++) {
    const actual = oddPart(sounds[from].duration.d);
    if (actual === 1) continue;
    let sum = ZERO;
    let to = from;
    do {
      if (to >= sounds.length || to - from > 24) throw new Unwritable();
      sum = add(sum, sounds[to++].duration);
    } while (oddPart(sum.d) !== 1);
    if (actual > 7) throw new Unwritable();
    for (let k = from; k < to; k++) found[k] = { actual, normal: actual === 3 ? 2 : 4, start: k === from, stop: k === to - 1 };
    from = to - 1;
  }
  return found;
}

/** Whether the next note is beamed with this one: both short, within a beat. */
const joins = (s: DrillSound, next: DrillSound | undefined, beat: Fraction): boolean => {
  if (!next || isRest(s) || isRest(next) || toNumber(s.duration) >= 1 || toNumber(next.duration) >= 1) return false;
  return Math.floor(toNumber(s.at) / toNumber(beat) + 1e-9) === Math.floor(toNumber(next.at) / toNumber(beat) + 1e-9);
};

/** A drill as a MusicXML document. @throws Unwritable where a length cannot be written */
export function drillDocument({ title, name, clef, transpose, tempo, bars }: DrillPage): string {
  const events: AbcEvent[] = [];
  let [time, key] = [bars[0].time?.text, JSON.stringify(bars[0].key)];
  let nowClef = clef;
  bars.forEach((bar, k) => {
    if (bar.clef && bar.clef !== nowClef) events.push({ kind: 'clef', clef: (nowClef = bar.clef) });
    if (JSON.stringify(bar.key) !== key) events.push({ kind: 'key', key: bar.key });
    if (bar.time?.text !== time) events.push({ kind: 'meter', time: bar.time });
    [time, key] = [bar.time?.text, JSON.stringify(bar.key)];
    if (bar.words) events.push({ kind: 'words', text: bar.words, placement: 'above' });
    events.push(...soundsOf(bar));
    const style = k === bars.length - 1 ? 'light-heavy' : 'regular';
    events.push({ kind: 'bar', style, repeatStart: false, repeatEnd: 0, ending: null });
  });
  return writeAbcTune({
    title,
    composer: '',
    origin: '',
    time: bars[0].time,
    key: bars[0].key,
    tempo: { kind: 'tempo', text: '', unit: frac(1), perMinute: String(tempo) },
    voices: [{ id: '1', name, clef, transpose, octave: 0, events }],
    layout: [],
    remarks: []
  });
}

function soundsOf(bar: DrillBar): AbcSound[] {
  const { sounds } = bar;
  if (sounds.length === 1 && isRest(sounds[0])) return [sound(sounds[0].duration, { wholeMeasure: true })];
  const tuplets = tupletsOf(sounds);
  const inBar = new Map<number, number>();
  const written = (heads: DrillSound['heads']): AbcSound['pitches'] =>
    heads.map(({ pitch, tie }) => {
      const height = staffStep(pitch);
      const shown = pitch.alter !== (inBar.get(height) ?? keyAlter(bar.key, pitch.step));
      inBar.set(height, pitch.alter);
      return { pitch, tie, ...(shown ? { accidental: ACCIDENTAL_NAMES[String(pitch.alter)] } : {}) };
    });
  return sounds.flatMap((s, k): AbcSound[] => {
    const tuplet = tuplets[k];
    const shown = tuplet ? mul(s.duration, frac(tuplet.actual, tuplet.normal)) : s.duration;
    if (oddPart(shown.d) !== 1 || shown.d > 64) throw new Unwritable();
    const graces = s.graces.map((pitches) =>
      sound(frac(1, 4), { grace: 'plain', pitches: written(pitches.map((pitch) => ({ pitch, tie: false }))) })
    );
    const own = sound(s.duration, {
      pitches: written(s.heads),
      decorations: s.signs,
      slurStarts: s.slurStarts,
      slurStops: s.slurStops,
      joined: joins(s, sounds[k + 1], bar.beat),
      ...(tuplet ? { tuplet } : {})
    });
    return [...graces, own];
  });
}
