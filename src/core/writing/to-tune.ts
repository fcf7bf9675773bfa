import { ACCIDENTAL_NAMES } from '../edition/small-staff.ts';
import { keyAlter } from '../score/accidentals.ts';
import { clefOf } from '../score/abc/elements.ts';
import type { AbcEvent, AbcSound, AbcTune, AbcVoice } from '../score/abc/model.ts';
import { writeAbcTune } from '../score/abc/write.ts';
import { add, cmp, frac, lte, mul, sub, ZERO, type Fraction } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import type { KeySignature, TimeSignature } from '../score/model.ts';
import { atStaffStep, midi, staffStep, type Pitch } from '../score/pitch.ts';
import { barRest, keyAt, lengthOf, meterAt, roomOf, timeOf, type Sound, type Written, type WrittenBar } from './written.ts';

/** Pitches that signs of clefs stand for, each on its line. */
const AT_SIGN: Record<string, Pitch> = {
  G: { step: 4, alter: 0, octave: 4 },
  F: { step: 3, alter: 0, octave: 3 },
  C: { step: 0, alter: 0, octave: 4 }
};

/** What stands on the middle line of five. */
export function middleOf(clef: string): Pitch {
  const { sign, line, octaves } = clefOf(clef);
  return atStaffStep(staffStep(AT_SIGN[sign] ?? AT_SIGN.G) + 2 * (3 - line) + 7 * octaves, 0);
}

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

/**
 * The bars of a lane with slurs that both begin and end, and ties that lead to the same pitch: a corrected rhythm or pitch may
 * leave half of one.
 */
function balanced(bars: readonly Sound[][]): Sound[][] {
  const sounds = bars.flat();
  const begun: number[] = [];
  const rests = (s: Sound): boolean => !s.pitches.length && !s.open;
  const starts = sounds.map((s) => (rests(s) ? 0 : s.slurStarts));
  const stops = sounds.map((s, k) => {
    const ends = rests(s) ? 0 : Math.min(s.slurStops, begun.length);
    begun.splice(begun.length - ends, ends);
    for (let n = 0; n < starts[k]; n++) begun.push(k);
    return ends;
  });
  for (const k of begun) starts[k]--;
  const following: (Sound | undefined)[] = [];
  for (let k = sounds.length - 1, next: Sound | undefined; k >= 0; k--) {
    following[k] = next;
    if (!sounds[k].grace) next = sounds[k];
  }
  let at = 0;
  return bars.map((bar) =>
    bar.map((s) => {
      const k = at++;
      const leads = (pitch: Pitch): boolean => following[k]?.pitches.some((p) => midi(p.pitch) === midi(pitch)) ?? false;
      const pitches = s.pitches.some((p) => p.tie && !leads(p.pitch))
        ? s.pitches.map((p) => ({ ...p, tie: p.tie && leads(p.pitch) }))
        : s.pitches;
      return { ...s, slurStarts: starts[k], slurStops: stops[k], pitches };
    })
  );
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
function toTune(w: Written): AbcTune {
  const { head } = w;
  const voices = w.lanes.map(({ staff, voice }, lane): AbcVoice => {
    const clef = head.clefs[staff - 1];
    const events: AbcEvent[] = [];
    if (w.bars[0].repeatStart) events.push({ kind: 'bar', style: 'heavy-light', repeatStart: true, repeatEnd: 0, ending: null });
    const lanes = balanced(w.bars.map((b) => b.lanes[lane] ?? []));
    w.bars.forEach((bar, k) => {
      if (bar.meter !== undefined && k > 0) events.push({ kind: 'meter', time: timeOf(bar.meter) });
      if (bar.key && k > 0) events.push({ kind: 'key', key: bar.key });
      if (bar.letter && lane === 0) events.push({ kind: 'part', text: bar.letter });
      const time = timeOf(meterAt(w, k));
      const full = time?.quarters ?? null;
      const room = roomOf(w, k);
      const longest = bar.lanes.map(lengthOf).reduce((a, b) => (lte(a, b) ? b : a), ZERO);
      const before = k === 0 && head.upbeat && full ? sub(full, head.upbeat) : ZERO;
      const own = lanes[k];
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
