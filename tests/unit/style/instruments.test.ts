import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Part, Score } from '../../../src/core/score/model.ts';
import { midi } from '../../../src/core/score/pitch.ts';
import { instrumentByKey, INSTRUMENTS, UNKNOWN_INSTRUMENT } from '../../../src/core/style/instruments/index.ts';
import { instrumentOf } from '../../../src/core/style/instruments/instrument-of.ts';
import { can, SAMPLE_SETS } from '../../../src/core/style/instruments/instrument.ts';
import { abc } from '../helpers.ts';

/** A part under a name: music in a clef, with or without words, and the sound that the file asks for. */
function part(name: string, music = 'K:C\nCDEF|', extra: Partial<Part> = {}): [Score, Part] {
  const score = abc(`M:4/4\nL:1/4\n${music}`);
  return [score, { ...score.parts[0], name, ...extra }];
}
const key = (name: string, music?: string, extra?: Partial<Part>): string => instrumentOf(...part(name, music, extra)).key;

test('names in the languages of scores, with numbers, keys and abbreviations', () => {
  const names: Record<string, string[]> = {
    violin: ['Violin', 'Violino I', 'Violine 2', 'Geige', 'Vln. 1', 'Fiddle'],
    viola: ['Viola', 'Bratsche', 'Vla.'],
    cello: ['Violoncello', 'Violoncelle', 'Vc.'],
    'double-bass': ['Contrabass', 'Kontrabass', 'Contrebasse', 'Violone'],
    flute: ['Flöte', 'Flauto traverso', 'Flutes'],
    oboe: ['Hautbois', 'Oboe 1'],
    'oboe-damore': ['Oboe d’amore'],
    'english-horn': ['English Horn', 'Cor anglais', 'Corno inglese'],
    clarinet: ['Clarinet in B flat', 'Klarinette in A'],
    'bass-clarinet': ['Bass Clarinet', 'Bassklarinette'],
    'basset-horn': ['Basset horn', 'Corno di bassetto', 'Bassetthorn'],
    bassoon: ['Fagott', 'Bassoon', 'Basson'],
    contrabassoon: ['Contrabassoon', 'Kontrafagott'],
    'bass-recorder': ['Bass recorder'],
    recorder: ['Recorder', 'Blockflöte', 'Flauto dolce'],
    horn: ['Horn in F', 'Corno', '2 Hörner in Es'],
    trumpet: ['Trompete', 'Tromba in C'],
    flugelhorn: ['Flugelhorn', 'Flügelhorn'],
    trombone: ['Posaune', 'Trombone 2'],
    'bass-trombone': ['Bass Trombone'],
    tuba: ['Tuba', 'Bass tuba'],
    euphonium: ['Euphonium', 'Baritone horn'],
    piano: ['Piano', 'Klavier', 'Fortepiano'],
    harpsichord: ['Cembalo', 'Basso continuo'],
    organ: ['Organ', 'Orgue', 'Pipe organ'],
    alto: ['Contralto'],
    soprano: ['Soprano', 'Sopran'],
    voice: ['Gesang', 'Voice'],
    drums: ['Bass Drum', 'Percussion'],
    timpani: ['Timpani', 'Pauken'],
    marimba: ['Marimba'],
    pipes: ['Great Highland Bagpipe', 'Practice chanter']
  };
  for (const [expected, list] of Object.entries(names)) for (const name of list) assert.equal(key(name), expected, name);
});

test('a name that several instruments share is settled by clef, words, range and transposition', () => {
  assert.equal(key('Bass', 'K:C clef=bass\nC,,D,,E,,F,,|'), 'double-bass');
  assert.equal(key('Bass', 'K:C clef=bass\nC,D,E,F,|\nw: one two three four'), 'bass');
  assert.equal(key('Alto', 'K:C clef=alto\nCDEF|'), 'viola');
  assert.equal(key('Alto', 'K:C\nCDEF|\nw: one two three four'), 'alto');
  assert.equal(key('Saxophone', 'K:C\nCDEF|', { transpose: { diatonic: -8, chromatic: -14 } }), 'tenor-sax');
  assert.equal(key('Saxophone', 'K:C\nCDEF|', { transpose: { diatonic: -5, chromatic: -9 } }), 'alto-sax');
});

test('where the name tells nothing the sound of the file does, then what the part looks like', () => {
  assert.equal(key('Solo', undefined, { instrument: 'wind.flutes.flute' }), 'flute');
  assert.equal(key('', undefined, { instrument: 'brass.trombone.bass' }), 'bass-trombone');
  assert.equal(key('', undefined, { staves: 2 }), 'piano');
  assert.equal(key('', 'K:C\nCDEF|\nw: one two three four'), 'voice');
  assert.equal(instrumentOf(...part('Part 3')), UNKNOWN_INSTRUMENT);
});

test('the teacher’s correction outweighs everything', () => {
  assert.equal(instrumentOf(...part('Violin'), { 0: 'basset-horn' }).key, 'basset-horn');
  assert.equal(instrumentOf(...part('Violin'), { 1: 'basset-horn' }).key, 'violin');
});

test('every instrument is described whole and by itself', () => {
  assert.equal(new Set(INSTRUMENTS.map((i) => i.key)).size, INSTRUMENTS.length);
  for (const i of INSTRUMENTS) {
    assert.ok(i.names.length && i.sounds.length && i.can.length && SAMPLE_SETS.includes(i.samples), i.key);
    assert.equal(instrumentByKey(i.key), i);
    for (const name of i.names) assert.match(name, /^[a-z’ ]+$/, `${i.key}: ${name} is in lower case and without accents`);
    if (i.range) assert.ok(midi(i.range.low) < midi(i.range.high) && midi(i.range.highFrom) <= midi(i.range.high), i.key);
    assert.ok(i.program >= 0 && i.program < 128);
  }
  // Open strings are the lowest notes: handbook 9.1.
  const low = (k: string) => midi(instrumentByKey(k)!.range!.low);
  assert.deepEqual([low('violin'), low('viola'), low('cello'), low('double-bass')], [55, 48, 36, 28]);
});

test('what an instrument can do', () => {
  const able = (k: string, ...what: Parameters<typeof can>[1][]) => can(instrumentByKey(k)!, ...what);
  assert.ok(able('guitar', 'plucks') && !able('guitar', 'bows') && !able('guitar', 'holds'));
  assert.ok(able('violin', 'bows') && able('oboe', 'breathes') && able('organ', 'holds') && !able('piano', 'holds'));
  assert.ok(!able('pipes', 'breathes'), 'the bag breathes for the piper');
});
