import { keyAlter } from '../score/accidentals.ts';
import type { AbcVoice } from '../score/abc/model.ts';
import { splitLength, writeAbcTune } from '../score/abc/write.ts';
import { cmp, min, sub, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { staffStep } from '../score/pitch.ts';
import type { Tone } from '../analysis/sounding-score.ts';
import { ACCIDENTAL_NAMES, clefOf, sound } from './small-staff.ts';

/** One note of a skeleton with how long it lasts until the next one. */
interface Stretch {
  tone: Tone;
  start: Fraction;
  end: Fraction;
}

/**
 * The MusicXML document of a skeleton: some tones of a line, each held to the next, in the bars `from` to `to`
 * (measure indices, both included), as written for the player.
 */
export function skeletonDocument(score: Score, tones: readonly Tone[], from: number, to: number): string {
  const first = score.measures[from];
  const last = score.measures[to];
  const part = score.parts[tones[0]?.note.part ?? 0];
  const stretches: Stretch[] = tones.map((tone, k) => {
    const next = tones[k + 1];
    const end = next
      ? next.note.start
      : { n: last.start.n * last.length.d + last.length.n * last.start.d, d: last.start.d * last.length.d };
    return { tone, start: tone.note.start, end };
  });
  const voice: AbcVoice = {
    id: '1',
    name: '',
    clef: clefOf(score, part.index, from, tones[0]?.note.staff ?? 1),
    transpose: 0,
    octave: 0,
    events: []
  };
  for (let k = from; k <= to; k++) {
    const measure = score.measures[k];
    const before = score.measures[k - 1];
    if (k > from && measure.time?.text !== before?.time?.text) voice.events.push({ kind: 'meter', time: measure.time });
    if (k > from && measure.key.fifths !== before?.key.fifths) voice.events.push({ kind: 'key', key: measure.key });
    const end = { n: measure.start.n * measure.length.d + measure.length.n * measure.start.d, d: measure.start.d * measure.length.d };
    let at = measure.start;
    const inBar = new Map<number, number>();
    for (const s of stretches) {
      if (cmp(s.end, measure.start) <= 0 || cmp(s.start, end) >= 0) continue;
      if (cmp(s.start, at) > 0) {
        voice.events.push(sound(sub(s.start, at)));
        at = s.start;
      }
      const until = min(s.end, end);
      const pitch = s.tone.note.pitch!;
      const height = staffStep(pitch);
      const expected = inBar.get(height) ?? keyAlter(measure.key, pitch.step);
      const pieces = splitLength(sub(until, at));
      pieces.forEach((length, i) => {
        const tie = i < pieces.length - 1 || cmp(s.end, end) > 0;
        const shown = i === 0 && cmp(s.start, measure.start) >= 0 && pitch.alter !== expected;
        voice.events.push(
          sound(length, { pitches: [{ pitch, tie, ...(shown ? { accidental: ACCIDENTAL_NAMES[String(pitch.alter)] } : {}) }] })
        );
      });
      inBar.set(height, pitch.alter);
      at = until;
    }
    if (cmp(at, end) < 0) voice.events.push(sound(sub(end, at), at === measure.start && !measure.implicit ? { wholeMeasure: true } : {}));
    voice.events.push({ kind: 'bar', style: k === to ? 'light-light' : 'regular', repeatStart: false, repeatEnd: 0, ending: null });
  }
  return writeAbcTune({
    title: '',
    composer: '',
    origin: '',
    time: first.time,
    key: first.key,
    tempo: null,
    voices: [voice],
    layout: [],
    remarks: []
  });
}
