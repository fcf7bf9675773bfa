import { ACCIDENTAL_NAMES } from '../edition/small-staff.ts';
import { keyAlter } from '../score/accidentals.ts';
import type { AbcEvent, AbcSound, AbcTune, AbcVoice } from '../score/abc/model.ts';
import { writeAbcTune } from '../score/abc/write.ts';
import { add, cmp, frac, lte, mul, sub, ZERO, type Fraction } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import type { KeySignature, TimeSignature } from '../score/model.ts';
import { staffStep, type Pitch } from '../score/pitch.ts';
import { barRest, keyAt, lengthOf, meterAt, roomOf, timeOf, type Sound, type Written, type WrittenBar } from './written.ts';

/** Steps of the middle lines of clefs, where open sounds stand. */
const MIDDLE: Record<string, Pitch> = {
  treble: { step: 6, alter: 0, octave: 4 },
  bass: { step: 1, alter: 0, octave: 3 },
  alto: { step: 0, alter: 0, octave: 4 },
  tenor: { step: 5, alter: 0, octave: 3 }
};
export const middleOf = (clef: string): Pitch => MIDDLE[clef.replace(/[+-]8$/, '')] ?? MIDDLE.treble;

/** Ends of beam groups in quarters from the beginning of a full bar. */
function groupEnds(time: TimeSignature | null): Fraction[] {
  if (!time?.quarters) return [];
  const { beat, slots } = beatOfMeter({ time });
  const ends: Fraction[] = [];
  // Where the unit itself is counted the signature's groups hold together: 3/8, 2+3/8.
  if (slots === 1) for (const g of time.groups) ends.push(add(ends.at(-1) ?? ZERO, mul(frac(g), beat)));
  else for (let end = beat; cmp(end, time.quarters) <= 0; end = add(end, beat)) ends.push(end);
  return ends;
}

/** Sounds with what an engraver adds: beams by the meter, accidentals by key and bar. */
function engraved(sounds: readonly Sound[], key: KeySignature, time: TimeSignature | null, before: Fraction, clef: string): AbcSound[] {
  const ends = groupEnds(time);
  const inForce = new Map<number, number>();
  let at = before;
  return sounds.map((s) => {
    const from = at;
    if (!s.grace) at = add(at, s.duration);
    const end = ends.find((e) => cmp(e, from) > 0);
    const joined = s.grace !== undefined || (end !== undefined && cmp(at, end) < 0);
    const pitches = s.open ? [{ pitch: middleOf(clef), tie: false }] : s.pitches;
    return {
      ...s,
      joined,
      pitches: pitches.map((p) => {
        const place = staffStep(p.pitch);
        const expected = inForce.get(place) ?? keyAlter(key, p.pitch.step);
        inForce.set(place, p.pitch.alter);
        return p.accidental || p.pitch.alter === expected ? p : { ...p, accidental: ACCIDENTAL_NAMES[p.pitch.alter] };
      })
    };
  });
}

const barEvent = (bar: WrittenBar, next: WrittenBar | undefined): AbcEvent => ({
  kind: 'bar',
  style: bar.repeatEnd || !next ? 'light-heavy' : bar.doubleBar ? 'light-light' : 'regular',
  repeatStart: next?.repeatStart ?? false,
  repeatEnd: bar.repeatEnd ?? 0,
  ending: next?.ending ?? null
});

/** The tune that a written score says; a lane that is empty in a bar rests. */
export function toTune(w: Written): AbcTune {
  const { head } = w;
  const voices = w.lanes.map(({ staff, voice }, lane): AbcVoice => {
    const clef = head.clefs[staff - 1];
    const events: AbcEvent[] = [];
    if (w.bars[0].repeatStart) events.push({ kind: 'bar', style: 'heavy-light', repeatStart: true, repeatEnd: 0, ending: null });
    w.bars.forEach((bar, k) => {
      if (bar.meter !== undefined && k > 0) events.push({ kind: 'meter', time: timeOf(bar.meter) });
      if (bar.key && k > 0) events.push({ kind: 'key', key: bar.key });
      if (bar.letter && lane === 0) events.push({ kind: 'part', text: bar.letter });
      const time = timeOf(meterAt(w, k));
      const full = time?.quarters ?? null;
      const room = roomOf(w, k);
      const longest = bar.lanes.map(lengthOf).reduce((a, b) => (lte(a, b) ? b : a), ZERO);
      const before = k === 0 && head.upbeat && full ? sub(full, head.upbeat) : ZERO;
      const own = bar.lanes[lane] ?? [];
      const length = longest.n ? longest : (room ?? frac(4));
      const rest: Sound[] = own.length ? [] : [{ ...barRest(`${bar.id}-rest-${lane}`, length), hidden: voice > 1 || undefined }];
      for (const s of engraved(own.length ? own : rest, keyAt(w, k), time, before, clef)) {
        const words = (s as Sound).words;
        if (words) events.push({ kind: 'words', ...words });
        events.push(s);
      }
      events.push(barEvent(bar, w.bars[k + 1]));
    });
    return {
      id: String(lane + 1),
      name: lane === 0 ? head.instrument : '',
      clef,
      transpose: head.transpose,
      octave: 0,
      events
    };
  });
  const staves = Math.max(...w.lanes.map((l) => l.staff));
  const { words, unit, perMinute } = head.tempo;
  return {
    title: head.title,
    composer: head.composer,
    origin: '',
    time: timeOf(head.meter),
    key: head.key,
    tempo: words || unit ? { kind: 'tempo', text: words, unit, perMinute } : null,
    voices,
    layout: [Array.from({ length: staves }, (_, s) => w.lanes.flatMap((l, k) => (l.staff === s + 1 ? [String(k + 1)] : [])))],
    remarks: []
  };
}

/** The MusicXML document of a written score. */
export const documentOf = (w: Written): string => writeAbcTune(toTune(w));

/** How high a pitch stands, for choosing the nearest octave. */
export const nearest = (step: number, alter: number, to: Pitch): Pitch => {
  const octaves = [to.octave - 1, to.octave, to.octave + 1].map((octave): Pitch => ({ step, alter, octave }));
  return octaves.reduce((best, p) => (Math.abs(staffStep(p) - staffStep(to)) < Math.abs(staffStep(best) - staffStep(to)) ? p : best));
};
