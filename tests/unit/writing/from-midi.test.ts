import assert from 'node:assert/strict';
import { test } from 'node:test';
import { writeMidi, type MidiEvent } from 'midi-file';
import fc from 'fast-check';
import { toNumber } from '../../../src/core/score/fraction.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { midi, pitchName } from '../../../src/core/score/pitch.ts';
import { fromMidi } from '../../../src/core/writing/from-midi.ts';
import { documentOf } from '../../../src/core/writing/to-tune.ts';
import { barFaults } from '../../../src/core/writing/written.ts';

const PER_QUARTER = 480;

/** A MIDI file of tracks of notes: key, begin and end in quarters. Format 1. Source: Standard MIDI Files 1.0. */
function file(tracks: [number, number, number][][], head: MidiEvent[] = []): Uint8Array {
  const timed = (notes: [number, number, number][]): MidiEvent[] => {
    const events = notes
      .flatMap(([noteNumber, from, to]) => [
        { at: Math.round(from * PER_QUARTER), on: true, noteNumber },
        { at: Math.round(to * PER_QUARTER), on: false, noteNumber }
      ])
      .sort((a, b) => a.at - b.at || Number(a.on) - Number(b.on));
    let last = 0;
    return events.map(({ at, on, noteNumber }) => {
      const deltaTime = at - last;
      last = at;
      return { deltaTime, type: on ? 'noteOn' : 'noteOff', channel: 0, noteNumber, velocity: 64 } as MidiEvent;
    });
  };
  const end: MidiEvent = { deltaTime: 0, meta: true, type: 'endOfTrack' };
  return Uint8Array.from(
    writeMidi({
      header: { format: 1, numTracks: tracks.length, ticksPerBeat: PER_QUARTER },
      tracks: tracks.map((notes, k) => [...(k ? [] : head), ...timed(notes), end])
    })
  );
}
const METER = (numerator: number, denominator: number): MidiEvent => ({
  deltaTime: 0,
  meta: true,
  type: 'timeSignature',
  numerator,
  denominator,
  metronome: 24,
  thirtyseconds: 8
});
const KEY = (key: number): MidiEvent => ({ deltaTime: 0, meta: true, type: 'keySignature', key, scale: 0 });
const told = (bytes: Uint8Array): string[] =>
  readMusicXml(documentOf(fromMidi(bytes, 'Tide').written)).notes.map(
    (n) => `${n.pitch ? pitchName(n.pitch) : 'rest'} ${Number(toNumber(n.duration).toFixed(3))}`
  );

test('a played line comes to the beat: late and early onsets, shortened notes, a real rest, a tie over the bar line', () => {
  const played = file(
    [
      [
        [62, 0.03, 0.9],
        [64, 1.02, 1.45],
        [66, 1.49, 1.95],
        [67, 1.98, 2.4],
        [69, 2.52, 3.97],
        [71, 5.01, 5.9]
      ]
    ],
    [METER(3, 4), KEY(2)]
  );
  assert.deepEqual(told(played), ['D4 1', 'E4 0.5', 'F#4 0.5', 'G4 0.5', 'A4 0.5', 'A4 1', 'rest 1', 'B4 1']);
});

test('triplets are triplets, chords are chords, a low second track is a lower staff', () => {
  const bytes = file(
    [
      [
        [72, 0, 0.33],
        [74, 0.34, 0.66],
        [76, 0.67, 0.99],
        [72, 1, 2],
        [76, 1.01, 2]
      ],
      [[48, 0, 2]]
    ],
    [METER(2, 4)]
  );
  const { written } = fromMidi(bytes, 'Tide');
  assert.deepEqual(written.head.clefs, ['treble', 'bass']);
  const score = readMusicXml(documentOf(written));
  assert.deepEqual(
    score.notes.map((n) => `${n.staff} ${n.pitch && pitchName(n.pitch)} ${n.duration.n}/${n.duration.d}${n.chord ? ' chord' : ''}`),
    ['1 C5 1/3', '1 D5 1/3', '1 E5 1/3', '1 C5 1/1', '1 E5 1/1 chord', '2 C3 2/1']
  );
  assert.deepEqual(score.notes[0].timeModification, { actual: 3, normal: 2 });
});

test('pitches are spelled as the key has them', () => {
  const scale = (fifths: number): string[] =>
    told(
      file(
        [
          [
            [61, 0, 1],
            [63, 1, 2],
            [66, 2, 3],
            [70, 3, 4]
          ]
        ],
        [METER(4, 4), KEY(fifths)]
      )
    ).map((t) => t.split(' ')[0]);
  assert.deepEqual(scale(4), ['C#4', 'D#4', 'F#4', 'A#4']);
  assert.deepEqual(scale(-4), ['Db4', 'Eb4', 'Gb4', 'Bb4']);
});

test('what cannot come in says so in one sentence', () => {
  assert.throws(
    () => fromMidi(new TextEncoder().encode('no music'), 'x'),
    /^ScoreError: This is no MIDI file, or it is damaged\.$|This is no MIDI file/
  );
  assert.throws(() => fromMidi(file([[]]), 'x'), /There are no notes in this MIDI file\./);
  assert.throws(() => fromMidi(file([1, 2, 3].map(() => [[60, 0, 1]])), 'x'), /3 tracks with notes/);
});

test('whatever is played, bars add up, and what stands on the grid comes out as it was played', () => {
  const step = fc.tuple(fc.integer({ min: 55, max: 84 }), fc.integer({ min: 1, max: 6 }));
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 40 }), fc.integer({ min: -5, max: 5 }), (steps, fifths) => {
      let at = 0;
      const notes = steps.map(([key, length]): [number, number, number] => {
        const from = at;
        at += length / 4;
        return [key, from, at];
      });
      const { written } = fromMidi(file([notes], [METER(3, 4), KEY(fifths)]), 'x');
      assert.deepEqual(
        written.bars.flatMap((_, k) => barFaults(written, k)),
        []
      );
      const score = readMusicXml(documentOf(written));
      const heads = score.notes.filter((n) => n.pitch && !n.tie?.stop);
      assert.deepEqual(
        heads.map((n) => [midi(n.pitch!), toNumber(n.start)]),
        notes.map(([key, from]) => [key, from])
      );
    }),
    { numRuns: 80 }
  );
});
