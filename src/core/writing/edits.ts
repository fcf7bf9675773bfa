import { nanoid } from 'nanoid';
import { keyAlter } from '../score/accidentals.ts';
import { eq } from '../score/fraction.ts';
import { atStaffStep, midi, staffStep, type Pitch } from '../score/pitch.ts';
import { DECORATIONS } from '../score/abc/decorations.ts';
import { durationOf, writtenOf, type Value } from './values.ts';
import { emptyBar, keyAt, type Sound, type Written, type WrittenBar, type WrittenHead } from './written.ts';

/** A place in a written score: a sound of a lane of a bar. */
export interface Place {
  bar: number;
  lane: number;
  at: number;
}

export const newId = (): string => `w${nanoid(8)}`;

const bare = (id: string): Sound => ({
  kind: 'sound',
  id,
  pitches: [],
  duration: { n: 1, d: 1 },
  decorations: [],
  slurStarts: 0,
  slurStops: 0,
  lyrics: []
});

const withBar = (w: Written, bar: number, change: (b: WrittenBar) => WrittenBar): Written => ({
  ...w,
  bars: w.bars.map((b, k) => (k === bar ? change(b) : b))
});
export const withLane = (w: Written, bar: number, lane: number, sounds: Sound[]): Written =>
  withBar(w, bar, (b) => ({ ...b, lanes: b.lanes.map((l, k) => (k === lane ? sounds : l)) }));
const withSound = (w: Written, { bar, lane, at }: Place, change: (s: Sound) => Sound): Written =>
  withLane(
    w,
    bar,
    lane,
    w.bars[bar].lanes[lane].map((s, k) => (k === at ? change(s) : s))
  );

export const soundAt = (w: Written, { bar, lane, at }: Place): Sound | undefined => w.bars[bar]?.lanes[lane]?.[at];

/** The rhythm of a lane, grace notes left out. */
export const rhythmOf = (sounds: readonly Sound[]): Value[] =>
  sounds
    .filter((s) => !s.grace)
    .map((s) => ({
      written: writtenOf(s.duration, s.tuplet),
      rest: !s.pitches.length && !s.open,
      ...(s.tuplet && { tuplet: s.tuplet })
    }));

/**
 * Puts a rhythm into a lane. What stood there keeps its pitches and signs in order, one for one, as far as the new rhythm
 * has notes for them; sounds beyond are open.
 */
export function withRhythm(w: Written, bar: number, lane: number, rhythm: readonly Value[], id = newId): Written {
  const before = w.bars[bar].lanes[lane];
  const notes = before.filter((s) => !s.grace);
  const sounds = rhythm.flatMap((value, k): Sound[] => {
    const old = notes[k];
    const kept: Sound = { ...(old ?? bare(id())), tuplet: undefined, wholeMeasure: undefined };
    const grace = old ? before.slice(before.indexOf(notes[k - 1]) + 1, before.indexOf(old)).filter((s) => s.grace) : [];
    const sound: Sound = { ...kept, duration: durationOf(value), ...(value.tuplet && { tuplet: value.tuplet }) };
    if (value.rest) return [{ ...sound, pitches: [], open: undefined, lyrics: [], decorations: [], slurStarts: 0 }];
    return [...grace, sound.pitches.length ? sound : { ...sound, open: true }];
  });
  return withLane(w, bar, lane, sounds);
}

/** A sound gets its pitch, or one more for a chord. */
export const withPitch = (w: Written, place: Place, pitch: Pitch, chord = false): Written =>
  withSound(w, place, (s) => {
    const others = chord ? s.pitches.filter((p) => staffStep(p.pitch) !== staffStep(pitch)) : [];
    const pitches = [...others, { pitch, tie: chord ? false : (s.pitches[0]?.tie ?? false) }].sort((a, b) => midi(a.pitch) - midi(b.pitch));
    return { ...s, open: undefined, pitches };
  });

/** Steps up or down within the key, or an octave for seven. */
export const moved = (pitch: Pitch, steps: number, alterAt: (step: number) => number): Pitch => {
  const plain = atStaffStep(staffStep(pitch) + steps, 0);
  return { ...plain, alter: steps % 7 === 0 ? pitch.alter : alterAt(plain.step) };
};

export const movedPitches = (w: Written, place: Place, steps: number): Written =>
  withSound(w, place, (s) => ({
    ...s,
    pitches: s.pitches.map(({ pitch, tie }) => ({ pitch: moved(pitch, steps, (step) => keyAlter(keyAt(w, place.bar), step)), tie }))
  }));

/** Up or down by a semitone on the same line or space. */
export const altered = (w: Written, place: Place, by: number): Written =>
  withSound(w, place, (s) => ({
    ...s,
    pitches: s.pitches.map((p) => ({ pitch: { ...p.pitch, alter: Math.max(-2, Math.min(2, p.pitch.alter + by)) }, tie: p.tie }))
  }));

export const tied = (w: Written, place: Place): Written =>
  withSound(w, place, (s) => ({ ...s, pitches: s.pitches.map((p) => ({ ...p, tie: !p.tie })) }));

/** A sound becomes a rest, or open again. */
export const rested = (w: Written, place: Place): Written =>
  withSound(w, place, ({ open, ...s }) =>
    s.pitches.length || open ? { ...s, pitches: [], decorations: [], slurStarts: 0, lyrics: [] } : { ...s, open: true }
  );

/** Signs that can stand only once on a note: a level, a hairpin's end. */
const isDirection = (name: string): boolean => DECORATIONS[name]?.group === 'direction';

/** A printed sign is put on sounds; where all have it, it is taken away. */
export function withSign(w: Written, places: readonly Place[], name: string): Written {
  const all = places.every((p) => soundAt(w, p)?.decorations.includes(name));
  return places.reduce(
    (next, place) =>
      withSound(next, place, (s) => {
        const others = s.decorations.filter((d) => d !== name);
        // What begins comes before what is on the note, as it is written.
        return { ...s, decorations: all ? others : isDirection(name) ? [name, ...others] : [...others, name] };
      }),
    w
  );
}

/** The sounds from one place to another in their order, both included, of one lane. */
export function stretch(w: Written, from: Place, to: Place): Place[] {
  const [a, b] = from.bar < to.bar || (from.bar === to.bar && from.at <= to.at) ? [from, to] : [to, from];
  const places: Place[] = [];
  for (let bar = a.bar; bar <= b.bar; bar++)
    w.bars[bar].lanes[a.lane].forEach((_, at) => {
      if ((bar > a.bar || at >= a.at) && (bar < b.bar || at <= b.at)) places.push({ bar, lane: a.lane, at });
    });
  return places;
}

/** A slur over a stretch, or none where the same one stands. */
export function slurred(w: Written, from: Place, to: Place): Written {
  const places = stretch(w, from, to);
  if (places.length < 2) return w;
  const [first, last] = [soundAt(w, places[0])!, soundAt(w, places.at(-1)!)!];
  const by = first.slurStarts && last.slurStops ? -1 : 1;
  return withSound(
    withSound(w, places[0], (s) => ({ ...s, slurStarts: s.slurStarts + by })),
    places.at(-1)!,
    (s) => ({ ...s, slurStops: s.slurStops + by })
  );
}

/** A hairpin over a stretch, or none where the same one stands. */
export function withHairpin(w: Written, from: Place, to: Place, up: boolean): Written {
  const places = stretch(w, from, to);
  if (places.length < 2) return w;
  const [open, close] = up ? ['<(', '<)'] : ['>(', '>)'];
  return withSign(withSign(w, [places[0]], open), [places.at(-1)!], close);
}

export const withWords = (w: Written, place: Place, text: string): Written =>
  withSound(w, place, (s) => (text.trim() ? { ...s, words: { text: text.trim(), placement: 'above' } } : { ...s, words: undefined }));

/** A syllable under a note; a hyphen at its end joins it to the next. */
export const withSyllable = (w: Written, place: Place, text: string): Written =>
  withSound(w, place, (s) => ({ ...s, lyrics: text.trim() ? [text.trim()] : [] }));

/**
 * Text under chosen notes, a syllable to each note: words apart, hyphens between syllables, a star passes a note over. What
 * is left over when the notes are used up is not put.
 */
export function withText(w: Written, places: readonly Place[], text: string): Written {
  const syllables = text
    .trim()
    .split(/\s+/)
    .flatMap((word) => word.split(/(?<=-)/))
    .filter((s) => s && s !== '-');
  const notes = places.filter((p) => {
    const sound = soundAt(w, p);
    // A tied note carries no syllable of its own.
    return sound !== undefined && !sound.grace && sound.pitches.length > 0;
  });
  return notes
    .slice(0, syllables.length)
    .reduce((next, place, k) => (syllables[k] === '*' ? next : withSyllable(next, place, syllables[k])), w);
}

/** Grace notes before a sound, beamed, as eighths alone and sixteenths together. */
export function withGraces(w: Written, place: Place, pitches: readonly Pitch[], id = newId): Written {
  const lane = w.bars[place.bar].lanes[place.lane];
  let from = place.at;
  while (lane[from - 1]?.grace) from--;
  const duration = pitches.length > 1 ? { n: 1, d: 4 } : { n: 1, d: 2 };
  const graces = pitches.map((pitch): Sound => ({ ...bare(id()), grace: 'plain', pitches: [{ pitch, tie: false }], duration }));
  return withLane(w, place.bar, place.lane, [...lane.slice(0, from), ...graces, ...lane.slice(place.at)]);
}

/** A bar is put behind another. */
export const withNewBar = (w: Written, after: number, id = newId): Written => ({
  ...w,
  bars: [...w.bars.slice(0, after + 1), emptyBar(id(), w.lanes.length), ...w.bars.slice(after + 1)]
});
export const withoutBar = (w: Written, bar: number): Written =>
  w.bars.length > 1 ? { ...w, bars: w.bars.filter((_, k) => k !== bar) } : { ...w, bars: [emptyBar(w.bars[0].id, w.lanes.length)] };

/** What stands around a bar: its letter, repeats, endings, meter, key. */
export const withBarSigns = (w: Written, bar: number, signs: Partial<Omit<WrittenBar, 'id' | 'lanes'>>): Written =>
  withBar(w, bar, (b) => ({ ...b, ...signs }));

export const withHead = (w: Written, head: Partial<WrittenHead>): Written => ({ ...w, head: { ...w.head, ...head } });

/** A second voice on a staff, empty everywhere; gone again where nothing stands in it. */
export function withVoice(w: Written, staff: number): Written {
  const second = w.lanes.findIndex((l) => l.staff === staff && l.voice === 2);
  if (second < 0) {
    const at = w.lanes.findLastIndex((l) => l.staff === staff) + 1;
    const insert = <T>(list: T[], item: T): T[] => [...list.slice(0, at), item, ...list.slice(at)];
    return { ...w, lanes: insert(w.lanes, { staff, voice: 2 }), bars: w.bars.map((b) => ({ ...b, lanes: insert(b.lanes, []) })) };
  }
  if (w.bars.some((b) => b.lanes[second].length)) return w;
  const without = <T>(list: T[]): T[] => list.filter((_, k) => k !== second);
  return { ...w, lanes: without(w.lanes), bars: w.bars.map((b) => ({ ...b, lanes: without(b.lanes) })) };
}

/** The same pitches and lengths, whatever their ids. */
export const sameNotes = (a: readonly Sound[], b: readonly Sound[]): boolean =>
  a.length === b.length &&
  a.every(
    (s, k) =>
      eq(s.duration, b[k].duration) &&
      s.pitches.length === b[k].pitches.length &&
      s.pitches.every((p, n) => midi(p.pitch) === midi(b[k].pitches[n].pitch))
  );
