import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studyOf } from '../../../src/core/analysis/study.ts';
import { analyse } from '../../../src/core/analysis/analyse.ts';
import { propose } from '../../../src/core/reading/propose.ts';
import { RULES } from '../../../src/core/reading/rules/index.ts';
import { contourGroups } from '../../../src/core/reading/rules/pace.ts';
import type { Score } from '../../../src/core/score/model.ts';
import type { Period } from '../../../src/core/style/profiles.ts';
import type { SchoolAnswers } from '../../../src/core/style/schools.ts';
import { abc, demo } from '../helpers.ts';

/** A rule on a minimal case where it speaks, and on its neighbour where it does not. */
interface Case {
  rule: string;
  period: Period;
  yes: string | (() => Score);
  no: string | (() => Score);
  schools?: SchoolAnswers;
  /** Answers for the second case, where the music stays and only the school differs. */
  otherSchools?: SchoolAnswers;
  /** What is proposed, where it is to be checked. */
  value?: string | RegExp;
}

const HEAD = 'M:4/4\nL:1/8\nV:1 name="Flute"\nK:C\n';
const scoreOf = (text: string | (() => Score)): Score =>
  typeof text === 'function' ? text() : abc(/(^|\n)K:/.test(text) ? text : HEAD + text);
const piano = (treble: string, bass: string) =>
  `M:4/4\nL:1/8\n%%score {S B}\nV:S name="Piano"\nV:B clef=bass\nK:C\nV:S\n${treble}\nV:B\n${bass}`;

const A = 'c2e2 g2e2|f2a2 g4|e2c2 d2B2|c6 z2|';
const B = "g3a b2g2|a3b c'2a2|d'2b2 a2^f2|g6 z2|";
const THEME = 'c2ed c2G2|A2cB A4|G2FE D2EF|';
const OTHER = "E2 z2 c'2 z2|b2 z2 F2 z2|";
const SEQUENCE = 'e2g2 f2e2|d2f2 e2d2|c2e2 d2c2|B8|';

const CASES: Case[] = [
  { rule: 'proclaim-the-return', period: 'classical', yes: `!f!${A}!p!${B}${A}`, no: `!p!${A}!f!${B}${A}`, value: 'f' },
  { rule: 'steal-into-the-return', period: 'romantic', yes: A + B + A, no: A + B, value: 'p' },
  { rule: 'prepare-the-return', period: 'romantic', yes: A + B + A, no: A + B.replace('g6', '"^rit."g6') + A, value: 'poco rit.' },
  { rule: 'sequence-units-as-groups', period: 'baroque', yes: SEQUENCE, no: 'c2e2 g2e2|f2a2 g4|', value: '3 groups of one bar' },
  { rule: 'anchor-notes-of-the-sequence', period: 'baroque', yes: SEQUENCE, no: 'c2e2 g2e2|f2a2 g4|' },
  {
    rule: 'answer-the-question',
    period: 'classical',
    yes: piano(
      '!mf!c2e2 g2e2|f2a2 g2e2|d2f2 e2c2|B4 z4|c2e2 g2e2|f2a2 g2e2|d2f2 e2d2|c4 z4|]',
      '[C,E,G,]8|[F,A,C]4[C,E,G,]4|[G,,B,,D,]8|[G,,B,,D,]4z4|[C,E,G,]8|[F,A,C]4[C,E,G,]4|[G,,B,,D,]8|[C,E,G,]4z4|]'
    ),
    no: piano('c2e2 g2e2|f2a2 g2e2|d2f2 e2c2|c4 z4|]', '[C,E,G,]8|[F,A,C]4[C,E,G,]4|[G,,B,,D,]8|[C,E,G,]4z4|]')
  },
  {
    rule: 'two-bars-as-one',
    period: 'classical',
    yes: piano(
      'c2e2 g2e2|c2e2 g2e2|d2f2 g2f2|d2f2 g2f2|c2e2 g2e2|c2e2 g2e2|',
      '[C,E,G,]8|[C,E,G,]8|[G,,B,,D,]8|[G,,B,,D,]8|[C,E,G,]8|[C,E,G,]8|'
    ),
    no: piano('c2e2 g2e2|d2f2 g2f2|c2e2 g2e2|', '[C,E,G,]8|[G,,B,,D,]8|[C,E,G,]8|')
  },
  {
    rule: 'part-the-sections',
    period: 'modern',
    // Elsewhere the comma or breath at the phrase's end says it already.
    yes: `${HEAD.replace('Flute', 'Violin')}|:${A.replace('c6 z2|', 'c8:|')}|:${B.replace('g6 z2|', 'g8:|')}`,
    no: `${HEAD.replace('Flute', 'Violin')}|:${A.slice(0, -1)}:|:${B.slice(0, -1)}:|`
  },
  { rule: 'go-through-the-join', period: 'romantic', yes: A + B + A, no: A },
  {
    rule: 'opposite-upbeats',
    period: 'classical',
    yes: 'M:3/4\nL:1/4\nK:C\nG|c2 e|d2 z|z2 g|c2 e|c2 z|',
    no: 'M:3/4\nL:1/4\nK:C\nG|c2 e|d2 z|z2 G|c2 e|c2 z|'
  },
  { rule: 'third-time-different', period: 'classical', yes: 'c2ed c2G2|c2ed c2G2|c2ed c2G2|A8|', no: 'c2ed c2G2|c2ed c2G2|A8|' },
  { rule: 'lead-the-chromatic-line', period: 'romantic', yes: 'c2^c2 d2^d2|e8|', no: 'c2d2 e2f2|g8|', value: 'crescendo' },
  {
    rule: 'one-peak',
    period: 'romantic',
    yes: "c2e2 g2e2|d2f2 e2c2|e2g2 a2c'2|b2g2 c4|",
    no: "c'2e2 g2e2|d2f2 e2c2|e2g2 a2g2|e2d2 c4|",
    value: 'peak'
  },
  { rule: 'accompaniment-below', period: 'classical', yes: piano('c8|', 'C,G,E,G, C,G,E,G,|'), no: piano('c8|', 'C,2D,2 E,2F,2|') },
  {
    rule: 'bring-out-the-lower-line',
    period: 'romantic',
    yes: piano('[ce][ce][ce][ce] [ce][ce][ce][ce]|', 'C,2D,2 E,2G,2|'),
    no: piano('c2d2 e2g2|', '[C,E,][C,E,][C,E,][C,E,] [C,E,][C,E,][C,E,][C,E,]|')
  },
  { rule: 'all-the-way-to-the-subito', period: 'classical', yes: '!p!c2!<(!d2 e2!<)!f2|!p!g8|', no: '!p!c2!<(!d2 e2!<)!f2|!f!g8|' },
  { rule: 'sforzando-in-context', period: 'classical', yes: '!p!c2d2 !sf!e2f2|', no: '!f!c2d2 !sf!e2f2|', value: 'within p' },
  { rule: 'let-the-low-register-speak', period: 'classical', yes: '!pp!C4 D4|', no: '!pp!c4 d4|' },
  {
    rule: 'length-of-unmarked-notes',
    period: 'baroque',
    yes: piano('c2d2 e2f2|', 'C,8|'),
    no: piano('(c2d2 e2f2)|', 'C,8|'),
    value: 'non legato'
  },
  { rule: 'breathe-at-phrase-end', period: 'classical', yes: A.replace('c6 z2', 'c8') + A, no: A + A, value: 'breath' },
  { rule: 'length-of-dots', period: 'classical', yes: '.c2.d2 e4|', no: 'c2d2 e4|', value: 'dots: exactly half' },
  { rule: 'lift-the-second-of-a-pair', period: 'classical', yes: '(c2d2) (e2f2)|', no: '(c2d2 e2f2)|' },
  { rule: 'prepare-the-detached-notes', period: 'classical', yes: 'c4 .d2.e2|', no: 'c4 d2e2|' },
  { rule: 'sustain-through-the-tie', period: 'baroque', yes: 'c2 d4 e2-|e2 d2 c4|', no: 'c2 d4 e2|e2 d2 c4|' },
  { rule: 'separate-the-leaps', period: 'baroque', yes: 'C2 c2 e4|', no: 'c2 d2 e4|' },
  { rule: 'two-marks-two-sounds', period: 'romantic', yes: '.c2 !tenuto!d2 e4|', no: '.c2 .d2 e4|' },
  {
    rule: 'light-connecting-notes',
    period: 'french-1900',
    yes: piano('cdef gfed|c8|', '[C,E,G,]8|[C,E,G,]8|'),
    no: piano('c4 e4|c8|', '[C,E,G,]8|[C,E,G,]8|')
  },
  { rule: 'where-the-trill-begins', period: 'baroque', yes: '!trill!c4 d4|', no: 'c4 d4|', value: 'from above' },
  {
    rule: 'the-trill-fits-the-rhythm',
    period: 'classical',
    yes: 'M:4/4\nL:1/8\nQ:1/4=160\nK:C\n!trill!cd e2 f4|',
    no: 'M:4/4\nL:1/8\nQ:1/4=60\nK:C\n!trill!c4 d4|',
    value: 'one flick'
  },
  { rule: 'ending-of-the-trill', period: 'classical', yes: '!trill!B4 c4|', no: '!trill!c4 B4|' },
  { rule: 'length-of-the-appoggiatura', period: 'baroque', yes: '{d}c4 e4|', no: '{/d}c4 e4|', value: 'takes a quarter' },
  { rule: 'short-small-notes', period: 'romantic', yes: '{/d}c4 e4|', no: 'c4 e4|' },
  { rule: 'the-turn-comes-late', period: 'romantic', yes: '!turn!c3 d e4|', no: '!turn!c2 d2 e4|' },
  { rule: 'decorate-the-repeat', period: 'baroque', yes: '|:c2d2 e2f2|c2e2 d4:|', no: 'c2d2 e2f2|c2e2 d4|' },
  { rule: 'keep-the-dot-exact', period: 'classical', yes: 'c3d (3e2f2g2|', no: 'c3d e2f2|' },
  { rule: 'sharpen-the-dots', period: 'baroque', yes: 'c3d e3f|', no: 'c2d2 e2f2|' },
  {
    rule: 'unequal-notes',
    period: 'baroque',
    yes: 'cdef gfed|',
    no: 'cdef gfed|',
    schools: { inegales: 'mild' },
    otherSchools: { inegales: 'none' },
    value: 'unequal, 3 to 2'
  },
  {
    rule: 'swing-the-eighths',
    period: 'swing',
    yes: 'M:4/4\nL:1/8\nQ:1/4=200\nK:C\ncdef gfed|',
    no: 'M:4/4\nL:1/4\nQ:1/4=200\nK:C\ncdef|',
    value: 'swing 2 to 1'
  },
  {
    rule: 'lean-on-the-hemiola',
    period: 'baroque',
    yes: 'M:3/4\nL:1/4\nK:C\nc d e|c2 d-|d e2|c3|',
    no: 'M:3/4\nL:1/4\nK:C\nc2 d|c2 d|c3|'
  },
  { rule: 'count-the-entry', period: 'modern', yes: 'c2 z3 d e2|', no: 'c2 z2 d2 e2|' },
  { rule: 'anchor-the-run', period: 'classical', yes: "c/d/e/f/ g/a/b/c'/ c4|", no: 'c/d/e/f/ g2 c4|' },
  {
    rule: 'mark-the-displaced-theme',
    period: 'classical',
    yes: `${THEME}${OTHER}z4 c2ed|c2G2 A2cB|A4 G2FE|D2EF z4|`,
    no: THEME + OTHER + THEME
  },
  {
    rule: 'metronome-for-the-tempo-word',
    period: 'romantic',
    yes: '"^Andante"c2d2 e2f2|',
    no: 'M:4/4\nL:1/8\nQ:"Andante" 1/4=72\nK:C\nc2d2 e2f2|',
    value: 'quarter = 72'
  },
  {
    rule: 'not-faster-than-it-speaks',
    period: 'classical',
    yes: 'M:4/4\nL:1/16\nQ:1/4=120\nK:C\n.c.d.e.f g4 c8|',
    no: 'M:4/4\nL:1/16\nQ:1/4=96\nK:C\n.c.d.e.f g4 c8|',
    value: 'not above 104'
  },
  { rule: 'say-when-the-tempo-word-changes-nothing', period: 'modern', yes: 'c8|"^Allegro"d8|', no: '"^Allegro"c8|d8|' },
  {
    rule: 'a-word-for-the-section',
    period: 'romantic',
    yes: '[Q:1/4=72]!p!c2d2 e2f2|',
    no: '[Q:1/4=72]!p!"^dolce"c2d2 e2f2|',
    value: 'tranquillo'
  },
  { rule: 'ask-about-the-suspect-note', period: 'classical', yes: `${A}${B}${A.replace('d2B2', 'd2_B2')}`, no: A + B + A },
  {
    rule: 'same-slur-in-the-parallel-place',
    period: 'classical',
    yes: `(c2ed) c2G2|A2cB A4|G2FE D2EF|${OTHER}${THEME}`,
    no: THEME + OTHER + THEME
  },
  { rule: 'remind-of-the-carried-accidental', period: 'modern', yes: '^FGAB cdeF|', no: '^FF AB cdef|', value: 'still F♯' },
  { rule: 'repeated-notes-go-somewhere', period: 'romantic', yes: 'cccc d2z2|', no: 'ccce d2z2|', value: 'crescendo' },
  {
    rule: 'the-upbeat-leads-on',
    period: 'romantic',
    yes: 'M:4/4\nL:1/8\nK:C\nGAB|c4 e4|d2c2 z4|z2 GABc|d4 f4|e8|',
    no: 'M:4/4\nL:1/8\nK:C\nc4 e4|d2c2 z4|d4 f4|e8|'
  },
  { rule: 'stay-on-the-terrace', period: 'baroque', yes: '!f!c2d2 e2f2|!p!g8|', no: '!f!c2d2 !>(!e2f2!>)!|!p!g8|', value: 'at once' },
  {
    rule: 'grow-from-hairpin-to-hairpin',
    period: 'romantic',
    yes: '!<(!c2d2 e2!<)!f2|g8|!<(!e2f2 g2!<)!a2|c8|',
    no: '!<(!c2d2 e2!<)!f2|g8|!>(!e2f2 g2!>)!a2|c8|',
    value: 'keep room'
  },
  { rule: 'die-away-to-nothing', period: 'romantic', yes: 'c8|"^morendo"g2e2 c4|', no: 'c8|"^dolce"g2e2 c4|', value: 'diminuendo' },
  { rule: 'do-not-push-what-carries', period: 'romantic', yes: "!f!a''8|", no: '!f!a8|' },
  { rule: 'accents-are-differences', period: 'romantic', yes: 'c2 !accent!d2 e2f2|', no: '!accent!c2 !accent!d2 !accent!e2f2|' },
  { rule: 'open-up-at-the-solo', period: 'romantic', yes: 'c8|"^Solo"d8|', no: 'c8|"^soli"d8|' },
  { rule: 'equal-notes-equal', period: 'french-1900', yes: '!tenuto!c2!tenuto!d2!tenuto!e2!tenuto!f2|', no: '!tenuto!c2!tenuto!d2e2f2|' },
  {
    rule: 'keep-the-touch-with-a-second-voice',
    period: 'classical',
    yes: piano('.c2.e2 .c2.e2|.c2.e2 .c2.e2|', 'z8|C,4 G,4|'),
    no: piano('.c2.e2 .c2.e2|.c2.e2 .c2.e2|', 'C,8|C,4 G,4|')
  },
  { rule: 'let-the-accent-decay', period: 'romantic', yes: '!accent!c4 d4|', no: '!accent!c2 d2 e4|' },
  { rule: 'join-across-the-leap', period: 'romantic', yes: "(c4 c'4)|", no: "c4 c'4|" },
  { rule: 'swing-the-articulation', period: 'swing', yes: 'c2d2 e2fg|z8|', no: 'c2d2 e2z2|', value: 'strong-accent' },
  { rule: 'the-notes-slow-by-themselves', period: 'romantic', yes: 'cdef (3g2f2e2|d4 c4|c8|', no: 'cdef gfed|c8|', value: 'in time' },
  {
    rule: 'say-where-the-hurry-stops',
    period: 'romantic',
    yes: `c2e2 g4|"^stringendo"f2e2 d4|c4 z4|${A}`,
    no: `c2e2 g4|"^stringendo"f2e2 d4|c4 z4|"^a tempo"${A}`,
    value: 'a tempo'
  },
  { rule: 'die-away-in-both', period: 'romantic', yes: 'c8|"^smorzando"d8|', no: 'c8|"^dolce"d8|' },
  { rule: 'calando-in-loudness-only', period: 'classical', yes: 'c8|"^calando"d8|', no: 'c8|"^morendo"d8|', value: 'softer, in time' },
  { rule: 'how-long-the-fermata', period: 'romantic', yes: 'c4 !fermata!d4|', no: 'c4 d4|', value: 'hold about 3.5 quarters' },
  {
    rule: 'group-the-cadenza',
    period: 'romantic',
    yes: 'c8|[M:none]cdefgabc agfedcBA|[M:4/4]c8|',
    no: 'c8|cdefgabc|c8|',
    value: 'groups 6 · 5 · 5'
  },
  {
    rule: 'read-the-cadenza-as-slowing',
    period: 'romantic',
    yes: 'c8|[M:none]c/d/e/f/ g/a/b/c/ d e2 f4|[M:4/4]c8|',
    no: 'c8|[M:none]f4e2d c/d/e/f/ g/a/b/c/|[M:4/4]c8|'
  },
  {
    rule: 'back-to-the-letter',
    period: 'romantic',
    yes: 'c8|[M:none]cdef gabc|[M:4/4]c8|',
    no: 'c8|cdef gabc|c8|',
    value: 'strictly in time'
  },
  { rule: 'no-hurry-at-the-long-note', period: 'french-1900', yes: 'c6 z2|d8|', no: 'c6 d2|e8|', value: 'full length' },
  {
    rule: 'relate-the-sections',
    period: 'baroque',
    yes: 'M:4/4\nL:1/8\nQ:1/4=60\nK:C\nc8|[Q:1/4=118]d8|',
    no: 'M:4/4\nL:1/8\nQ:1/4=60\nK:C\nc8|[Q:1/4=104]d8|',
    value: '1 old beats = 2 new'
  },
  {
    rule: 'accidental-of-the-turn',
    period: 'classical',
    yes: 'M:4/4\nL:1/8\nK:Am\nA2B2 c2d2|e2^G2 A4|e2d2 c2B2|!turn!A4 ^G4|A8|',
    no: 'c2d2 e2f2|!turn!g4 e4|c8|',
    value: 'with B and G♯'
  },
  { rule: 'the-line-under-the-ornament', period: 'romantic', yes: 'c/d/c/B/ c/d/e2 f2z2|', no: 'c/d/e/f/ g2 f2z2|', value: 'around C' },
  {
    rule: 'weight-on-two',
    period: 'baroque',
    yes: 'M:3/4\nL:1/4\nK:C\nc d2|e f2|g a2|f e2|',
    no: 'M:3/4\nL:1/4\nK:C\nc2 d|e2 f|g2 a|f2 e|',
    value: 'tenuto'
  },
  {
    rule: 'same-on-purpose',
    period: 'classical',
    yes: `.c2ed c2G2|A2cB A4|G2FE D2EF|${OTHER}${THEME}`,
    no: THEME + OTHER + THEME,
    value: /articulation as in bar 1\?/
  },
  {
    rule: 'doubtful-slur',
    period: 'classical',
    yes: piano('c2 (e2 f2) e2|c8|', '[C,E,G,]8|[C,E,G,]8|'),
    no: piano('c2 (e2 f2 e2)|c8|', '[C,E,G,]8|[C,E,G,]8|')
  },
  {
    rule: 'taper-the-ending',
    period: 'classical',
    yes: piano('c2e2 g2e2|f2a2 g2e2|d2f2 e2d2|c2G2 E2z2|]', '[C,E,G,]8|[F,A,C]4[C,E,G,]4|[G,,B,,D,]8|[C,E,G,]6z2|]'),
    no: piano('c2e2 g2e2|f2a2 g2e2|d2f2 e2d2|c4 z4|]', '[C,E,G,]8|[F,A,C]4[C,E,G,]4|[G,,B,,D,]8|[C,E,G,]4z4|]'),
    value: 'diminuendo'
  },
  { rule: 'one-line-to-the-goal', period: 'romantic', yes: 'cdef g2c2|', no: '(cdefg2)c2|' },
  { rule: 'stress-the-syncopation', period: 'classical', yes: 'c2 d4 e2|', no: 'c2d2 e4|', value: 'accent' },
  { rule: 'echo-the-repetition', period: 'baroque', yes: '!f!c2ed c2G2|c2ed c2G2|A8|', no: '!f!c2ed c2G2|A2fe d2B2|c8|', value: 'mp' },
  {
    rule: 'slur-the-appoggiatura',
    period: 'classical',
    yes: piano('e2 c2 f2 e2|c8|', '[C,E,G,]8|[C,E,G,]8|'),
    no: piano('e2 c2 (f2 e2)|c8|', '[C,E,G,]8|[C,E,G,]8|')
  }
];

const DRUM = 'M:2/4\nL:1/8\nK:C clef=perc\n';
const PIPE_TUNE = 'M:6/8\nL:1/8\nK:HP\n';

CASES.push(
  { rule: 'as-the-first-time', period: 'classical', yes: A + B + A, no: A + B, value: 'as in bars 1–4' },
  {
    rule: 'detached-throughout',
    period: 'classical',
    yes: ".c2.d2.e2.f2|g2a2b2c'2|c8|",
    no: ".c2.d2.e2.f2|(g2a2b2c'2)|c8|",
    value: 'sempre staccato'
  },
  { rule: 'quarters-short', period: 'swing', yes: 'cdef gfed|c2ef gfed|', no: 'cdef gfed|(c2ef) gfed|c4 e4|', value: 'quarters short' },
  { rule: 'kick-the-anticipation', period: 'swing', yes: 'cded e2c2|cd2e d2c2|', no: 'cded e2c2|c2e2 d2c2|', value: 'accent' },
  {
    rule: 'hold-the-last-note-of-the-phrase',
    period: 'highland-pipes',
    yes: `${PIPE_TUNE}{g}A2B {g}c2d|{g}ecA {g}B3|{g}A2B {g}c2d|{g}ecB {g}A3|`,
    no: `${PIPE_TUNE}{g}A2B {g}c2d|{g}ecA {g}Bcd|{g}A2B {g}c2d|{g}ecB {g}ABc|`,
    value: 'tenuto'
  },
  {
    rule: 'hold-the-strong-note',
    period: 'highland-pipes',
    yes: `${PIPE_TUNE}{g}A3 {g}c2d|{g}ecA {g}B3|`,
    no: `${PIPE_TUNE}{g}ABA {g}cBd|{g}ecA {g}B3|`,
    value: 'tenuto'
  },
  {
    rule: 'the-fill-leads-on',
    period: 'modern',
    yes: `${DRUM}c2c2|c2c2|c/c/c/c/c/c/c/c/|c4|`,
    no: `${DRUM}c2c2|c2c2|c2c2|c4|`,
    value: 'crescendo'
  },
  {
    rule: 'metronome-for-the-dance',
    period: 'baroque',
    yes: () => ({ ...abc('M:6/8\nL:1/8\nK:C\ncde efg|g3 c3|'), title: 'Gigue for the quay' }),
    no: () => ({ ...abc('M:6/8\nL:1/8\nK:C\ncde efg|g3 c3|'), title: 'Study for the quay' }),
    value: 'quarter. = 112'
  }
);

const found = (score: Score, c: Case, schools: SchoolAnswers = {}) =>
  propose(studyOf(score), { period: c.period, schools, ruleFactors: {} }).filter((p) => p.rule === c.rule);

for (const c of CASES)
  test(`${c.rule}: on a minimal case, and not on its neighbour`, () => {
    const yes = found(scoreOf(c.yes), c, c.schools);
    assert.ok(yes.length > 0, 'it does not speak');
    if (c.value !== undefined)
      assert.match(yes[0].marking.value, c.value instanceof RegExp ? c.value : new RegExp(`^${c.value.replace(/[.?]/g, '\\$&')}$`));
    assert.ok(yes[0].marking.because[0].text.length > 10);
    assert.deepEqual(
      found(scoreOf(c.no), c, c.otherSchools ?? c.schools).map((p) => p.marking.value),
      [],
      'it speaks on the neighbour'
    );
  });

test('every rule has such a case, or speaks in a demo piece', () => {
  const scores = ['corrente.abc', 'andantino.abc', 'etude.abc'].map((f) => demo(f).score);
  const fired = new Set(CASES.map((c) => c.rule));
  for (const score of scores) {
    const facts = analyse(score);
    for (const period of ['baroque', 'classical', 'romantic'] as const)
      for (const p of propose(studyOf(score, [], facts), period)) fired.add(p.rule);
  }
  assert.deepEqual(
    RULES.map((r) => r.id).filter((id) => !fired.has(id)),
    []
  );
});

test('a free run is grouped as its line turns', () => {
  assert.deepEqual(contourGroups([0, 2, 4, 5, 7, 5, 4, 2, 0]), [4, 5]);
  assert.deepEqual(contourGroups([0, 2, 4, 5, 7, 9, 11, 12, 14, 16, 17, 19]), [6, 6]);
  // A turn of a note or two is no group.
  assert.deepEqual(contourGroups([0, 2, 1, 3, 5, 7, 9]), [7]);
  assert.equal(
    contourGroups([0, 4, 7, 4, 0, 4, 7, 4, 0]).reduce((a, b) => a + b, 0),
    9
  );
});

test('a rule can be switched off or made stronger for a reading', () => {
  const score = abc(`${HEAD}${SEQUENCE}`);
  const facts = analyse(score);
  const of = (factor: number) =>
    propose(studyOf(score, [], facts), { period: 'baroque', schools: {}, ruleFactors: { 'sequence-units-as-groups': factor } }).find(
      (p) => p.rule === 'sequence-units-as-groups'
    );
  assert.equal(of(0), undefined);
  assert.ok(of(1.5)!.strength > of(1)!.strength);
});
