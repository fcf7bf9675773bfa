import assert from 'node:assert/strict';
import { test } from 'node:test';
import tonejs from '@tonejs/midi';
import createVerovioModule from 'verovio/wasm';
import { parseMidi } from 'midi-file';
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm';
import { chunkWriter } from '../../../src/core/edition/chunk.ts';
import { Engraving } from '../../../src/core/edition/engraving.ts';
import { planSystems } from '../../../src/core/edition/systems.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { heightIn, turnsOf } from '../../../src/core/performance/inflections.ts';
import { midiFile } from '../../../src/core/performance/midi.ts';
import { perform, type PlayedNote } from '../../../src/core/performance/perform.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { INFLECTIONS, MOST_INFLECTED, type InflectionName } from '../../../src/core/style/inflections.ts';
import { readAbc } from '../../../src/core/score/abc/read.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { abc } from '../helpers.ts';
import { playableOf, literal, readingOf } from './play.ts';

const NAMES = Object.keys(INFLECTIONS) as InflectionName[];
const TUNE = 'M:4/4\nL:1/4\nQ:1/4=60\nV:1 nm="Alto Saxophone"\nK:C\nGABc|';

const inflected = (score: Score, value: string, at: number): Marking => {
  const note = score.notes[at];
  return { id: `m-${value}`, kind: 'inflection', value, part: 0, staff: 1, start: note.start, note: note.id, because: [] };
};
const playedWith = (value: string, at = 1, text = TUNE): { note: PlayedNote; midi: Uint8Array } => {
  const score = abc(text);
  const p = perform(playableOf(score), readingOf('swing', {}, { markings: [inflected(score, value, at)] }));
  return { note: p.notes[at], midi: midiFile(score, p) };
};

test('falls and doits leave at the end of the note, scoops and smears come in, bends come back: handbook 19.4', () => {
  const height = (name: InflectionName, at: number): number => heightIn(turnsOf(name, 1), at);
  for (const name of ['fall', 'long-fall', 'doit'] as const) assert.equal(height(name, 0.3), 0, name);
  assert.ok(height('fall', 1) < 0 && height('long-fall', 1) < height('fall', 1) && height('doit', 1) > 0);
  for (const name of ['scoop', 'smear'] as const) assert.ok(height(name, 0) < 0 && height(name, 0.9) === 0, name);
  assert.ok(height('plop', 0) > 0 && height('plop', 0.9) === 0);
  for (const name of ['bend', 'quick-bend'] as const) {
    const all = turnsOf(name, 1);
    assert.ok(Math.min(...all.map((t) => t.semitones)) < 0 && all.at(-1)!.semitones === 0, name);
  }
});

test('a fall runs through the half steps, a doit slides', () => {
  const still = (name: InflectionName): number =>
    new Set(Array.from({ length: 200 }, (_, k) => heightIn(turnsOf(name, 1), 0.8 + k / 1000)).filter(Number.isInteger)).size;
  assert.equal(still('fall'), 5, 'its own height and four below');
  assert.ok(still('doit') < 3);
});

test('in a note of any length an inflection keeps its order and leaves the rest of the note alone', () => {
  for (const name of NAMES)
    for (const seconds of [0.05, 0.1, 0.3, 1, 5]) {
      const turns = turnsOf(name, seconds);
      turns.forEach((t, k) =>
        assert.ok(t.at >= -1e-9 && t.at <= seconds + 1e-9 && (!k || t.at >= turns[k - 1].at - 1e-9), `${name} ${seconds}`)
      );
      const bent = turns.filter((t, k) => t.semitones !== 0 || turns[k + 1]?.semitones || turns[k - 1]?.semitones);
      if (bent.length) assert.ok(bent.at(-1)!.at - bent[0].at <= MOST_INFLECTED * seconds + 1e-9, `${name} ${seconds}`);
    }
});

test('it is heard: in the performance, and on the wheel of the MIDI file, which is back in its middle at the next note', () => {
  const { note, midi } = playedWith('fall');
  assert.ok(note.turns!.at(-1)!.semitones < -3);
  const events = parseMidi(midi).tracks.flat();
  const wheel = events.flatMap((e) => (e.type === 'pitchBend' ? [e.value] : []));
  assert.ok(Math.min(...wheel) < 0 && wheel.at(-1) === 0);
  const range = events.flatMap((e) => (e.type === 'controller' && e.controllerType === 6 ? [e.value] : []));
  assert.deepEqual(range, [12], 'the file asks for a wheel that reaches an octave');
  const { notes } = new tonejs.Midi(midi).tracks.find((t) => t.notes.length)!;
  assert.equal(notes.length, 4, 'the notes themselves stay');
  const plain = parseMidi(midiFile(abc(TUNE), literal(playableOf(abc(TUNE))))).tracks.flat();
  assert.ok(!plain.some((e) => e.type === 'pitchBend'));
});

test('a ghost note is softer and keeps its pitch', () => {
  const ghost = playedWith('ghost').note;
  const plain = perform(playableOf(abc(TUNE)), readingOf('swing')).notes[1];
  assert.ok(ghost.db < plain.db - 6 && !ghost.turns && ghost.dbEnd < plain.dbEnd - 6);
});

test('in swing a hat accent is short and a plain one is held; elsewhere neither is cut: handbook 19.4', () => {
  const share = (period: 'swing' | 'romantic', value: string): number => {
    const score = abc(TUNE);
    const mark = { ...inflected(score, value, 1), kind: 'accent' as const };
    const note = perform(playableOf(score), readingOf(period, {}, { markings: [mark] })).notes[1];
    return note.end - note.onset;
  };
  assert.ok(share('swing', 'strong-accent') < 0.7 * share('swing', 'accent'));
  assert.ok(share('romantic', 'strong-accent') > 0.9 * share('romantic', 'accent'));
});

test('what is printed is heard and drawn like what the editor adds', async () => {
  const written = readAbc(`X:1\n${TUNE}`);
  const document = written.replace(
    /(<type>quarter<\/type>(?:<stem>\w+<\/stem>)?)/,
    '$1<notations><articulations><falloff/></articulations></notations>'
  );
  const score = readMusicXml(document);
  assert.ok(literal(playableOf(score)).notes[0].turns!.length, 'a printed fall sounds on the bare page');
  const module = await createVerovioModule();
  enableLog(LOG_OFF, module);
  const engraving = new Engraving(new VerovioToolkit(module) as never);
  const [chunk] = planSystems(score, 60);
  const mei = engraving.mei(chunkWriter(document, score)(chunk));
  const frame = { measures: score.measures, parts: score.parts.map(({ index, staves }) => ({ index, staves })) };
  const look = { pageWidth: 2000, scale: 100, margin: 50, lastFills: 0 };
  for (const value of NAMES) {
    const svg = engraving.chunk(mei, frame, chunk, [inflected(score, value, 1)], [], look, true)(1);
    const at = svg.indexOf(`<g id="m-${value}"`);
    assert.ok(at > 0 && /^<g [^>]*editorial/.test(svg.slice(at)), `${value} is drawn, named and known as the editor's`);
    assert.equal((svg.match(/class="artic inflection"/g) ?? []).length, 1, 'the printed one too');
  }
});
