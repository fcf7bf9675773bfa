import type { AbcVoice } from '../score/abc/model.ts';
import { splitLength, writeAbcTune } from '../score/abc/write.ts';
import { keyAlter } from '../score/accidentals.ts';
import { frac, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { staffStep } from '../score/pitch.ts';
import type { WrittenOrnament } from '../performance/realised.ts';
import { ACCIDENTAL_NAMES, clefOf, sound } from './small-staff.ts';

/** How a length is drawn: as it is, or as a member of a triplet. */
function drawn(length: Fraction): { length: Fraction; triplet: boolean }[] {
  const plain = (d: number): boolean => Number.isInteger(Math.log2(d));
  if (plain(length.d)) return splitLength(length).map((l) => ({ length: l, triplet: false }));
  return length.d % 3 === 0 && plain(length.d / 3) ? [{ length, triplet: true }] : [{ length, triplet: false }];
}

/**
 * Ornaments written out on a small staff, a bar to each, with their places as words: a MusicXML document with exact
 * note values, as written for the player.
 */
export function ornamentStaff(score: Score, ornaments: readonly WrittenOrnament[]): string {
  const { note } = ornaments[0];
  const key = score.measures[note.measure].key;
  const voice: AbcVoice = {
    id: '1',
    name: '',
    clef: clefOf(score, note.part, note.measure, note.staff),
    transpose: 0,
    octave: 0,
    events: []
  };
  ornaments.forEach(({ realisation, place }, k) => {
    voice.events.push({ kind: 'words', text: place, placement: 'above' });
    const inBar = new Map<number, number>();
    const { notes, before } = realisation;
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
        const same = (other: number): boolean => notes[other]?.length.d === n.length.d && notes[other].length.n === n.length.n;
        voice.events.push(
          sound(piece.length, {
            pitches: [{ pitch: n.pitch, tie: j < pieces.length - 1, ...(j ? {} : accidental) }],
            joined: i < notes.length - 1,
            ...(piece.triplet ? { tuplet: { actual: 3, normal: 2, start: !same(i - 1), stop: !same(i + 1) } } : {})
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
  return writeAbcTune({ title: '', composer: '', origin: '', time: null, key, tempo: null, voices: [voice], layout: [], remarks: [] });
}
