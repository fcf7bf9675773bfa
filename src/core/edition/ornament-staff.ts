import type { AbcVoice } from '../score/abc/model.ts';
import { splitLength, writeAbcTune } from '../score/abc/write.ts';
import { keyAlter } from '../score/accidentals.ts';
import { eq, frac, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { ENGRAVING } from '../style/page-weights.ts';
import { staffStep } from '../score/pitch.ts';
import type { WrittenOrnament } from '../performance/realised.ts';
import { ACCIDENTAL_NAMES, clefOf, sound } from './small-staff.ts';

/** How a length is drawn: as it is, or as a member of a triplet. */
function drawn(length: Fraction): { length: Fraction; triplet: boolean }[] {
  const plain = (d: number): boolean => Number.isInteger(Math.log2(d));
  if (plain(length.d)) return splitLength(length).map((l) => ({ length: l, triplet: false }));
  return length.d % 3 === 0 && plain(length.d / 3) ? [{ length, triplet: true }] : [{ length, triplet: false }];
}

/** For each note: whether it begins or ends its group, and how many notes the group has. Notes of one value are grouped evenly. */
function groupsOf(lengths: readonly Fraction[]): { first: boolean; last: boolean; size: number }[] {
  const result: { first: boolean; last: boolean; size: number }[] = [];
  for (let from = 0; from < lengths.length;) {
    let to = from + 1;
    while (to < lengths.length && eq(lengths[to], lengths[from])) to++;
    const triplets = drawn(lengths[from]).some((p) => p.triplet);
    const most = triplets ? ENGRAVING.beamed.triplets : ENGRAVING.beamed.others;
    for (let at = from; at < to;) {
      const left = to - at;
      // A rest of triplets goes by threes, so that each bracket says what it holds.
      const size = left >= most ? most : triplets && left > 3 ? 3 : left;
      for (let k = 0; k < size; k++) result.push({ first: k === 0, last: k === size - 1, size });
      at += size;
    }
    from = to;
  }
  return result;
}

/** What stands before it where it is a score of its own: title, name of the part, semitones to sounding, quarters a minute. */
export interface OrnamentHead {
  title?: string;
  name?: string;
  transpose?: number;
  tempo?: number;
}

/**
 * Ornaments written out on a small staff, a bar to each, with their places as words: a MusicXML document with exact
 * note values, as written for the player.
 */
export function ornamentStaff(score: Score, ornaments: readonly WrittenOrnament[], head: OrnamentHead = {}): string {
  const { note } = ornaments[0];
  const key = score.measures[note.measure].key;
  const voice: AbcVoice = {
    id: '1',
    name: head.name ?? '',
    clef: clefOf(score, note.part, note.measure, note.staff),
    transpose: head.transpose ?? 0,
    octave: 0,
    events: []
  };
  ornaments.forEach(({ realisation, place }, k) => {
    const { notes, before } = realisation;
    const text = notes.length > ENGRAVING.numbered ? `${place}: ${notes.length} notes` : place;
    voice.events.push({ kind: 'words', text, placement: 'above' });
    const inBar = new Map<number, number>();
    const groups = groupsOf(notes.map((n) => n.length));
    notes.forEach((n, i) => {
      const height = staffStep(n.pitch);
      const accidental =
        n.pitch.alter === (inBar.get(height) ?? keyAlter(key, n.pitch.step)) ? {} : { accidental: ACCIDENTAL_NAMES[String(n.pitch.alter)] };
      inBar.set(height, n.pitch.alter);
      if (before && !n.main) {
        voice.events.push(sound(frac(1, 2), { grace: 'slash', pitches: [{ pitch: n.pitch, tie: false, ...accidental }] }));
        return;
      }
      const pieces = drawn(n.length);
      pieces.forEach((piece, j) => {
        const { first, last, size } = groups[i];
        voice.events.push(
          sound(piece.length, {
            pitches: [{ pitch: n.pitch, tie: j < pieces.length - 1, ...(j ? {} : accidental) }],
            joined: !last && i < notes.length - 1,
            ...(piece.triplet
              ? {
                  tuplet: {
                    ...(size === ENGRAVING.beamed.triplets ? { actual: 6, normal: 4 } : { actual: 3, normal: 2 }),
                    start: first,
                    stop: last
                  }
                }
              : {})
          })
        );
      });
    });
    voice.events.push({
      kind: 'bar',
      style: k === ornaments.length - 1 ? 'light-light' : 'regular',
      repeatStart: false,
      repeatEnd: 0,
      ending: null
    });
  });
  return writeAbcTune({
    title: head.title ?? '',
    composer: '',
    origin: '',
    time: null,
    key,
    tempo: head.tempo ? { kind: 'tempo', text: '', unit: frac(1), perMinute: String(head.tempo) } : null,
    voices: [voice],
    layout: [],
    remarks: []
  });
}
