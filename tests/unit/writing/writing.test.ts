import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { parseAbc } from '../../../src/core/score/abc/parse.ts';
import { readAbc } from '../../../src/core/score/abc/read.ts';
import { cmp, frac, toNumber } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { parsePitch, pitchName } from '../../../src/core/score/pitch.ts';
import {
  altered,
  movedPitches,
  rested,
  slurred,
  tied,
  withGraces,
  withLane,
  withoutBar,
  withVoice,
  withHairpin,
  withNewBar,
  withPitch,
  withRhythm,
  withSign,
  withSyllable,
  withText
} from '../../../src/core/writing/edits.ts';
import { fromTune } from '../../../src/core/writing/from-tune.ts';
import { proposeBar } from '../../../src/core/writing/proposals.ts';
import { changeBetween, changed } from '../../../src/core/writing/change.ts';
import { typedBar } from '../../../src/core/writing/typed-bar.ts';
import { documentOf, middleOf, nearest } from '../../../src/core/writing/to-tune.ts';
import {
  inWords,
  lengthWords,
  spelled,
  tapped,
  typed,
  NOTHING_TYPED,
  VALUES,
  type Typing,
  type Value
} from '../../../src/core/writing/values.ts';
import {
  EMPTY_HEAD,
  barFaults,
  barNumber,
  emptyWritten,
  isComplete,
  type Written,
  type WrittenHead
} from '../../../src/core/writing/written.ts';
import { demoPath } from '../helpers.ts';

const HEAD: WrittenHead = {
  ...EMPTY_HEAD,
  title: 'Tide study',
  composer: 'Ottoline Vrake',
  instrument: 'Violin',
  key: { fifths: 1, mode: 'major' },
  meter: '3/4',
  tempo: { words: 'Andante', unit: frac(1), perMinute: '72' }
};

const typing = (keys: string): Typing => [...keys].reduce<Typing>((t, k) => typed(t, k) ?? assert.fail(`${k} in ${keys}`), NOTHING_TYPED);
const rhythm = (keys: string): Value[] => [...typing(keys).values];
const bars = (...contents: [string, string][]): Written =>
  contents.reduce(
    (w, [keys, pitches], bar) => {
      let next = withRhythm(bar ? withNewBar(w, bar - 1) : w, bar, 0, rhythm(keys));
      pitches.split(' ').forEach((name, at) => {
        if (name !== '-') next = withPitch(next, { bar, lane: 0, at }, parsePitch(name)!);
      });
      return next;
    },
    emptyWritten(HEAD, 'first')
  );
const read = (w: Written): Score => readMusicXml(documentOf(w));
const told = (s: Score): string[] => s.notes.map((n) => `${n.pitch ? pitchName(n.pitch) : n.rest ? 'rest' : '?'} ${toNumber(n.duration)}`);

test('a rhythm is typed by the first letters of its values, with dots, rests and groups', () => {
  assert.equal(spelled(rhythm('hq./e')), 'h q. /e');
  assert.equal(inWords(rhythm('q.(eee)/q')), 'dotted quarter, 3 in the time of 2: eighth, eighth, eighth, quarter rest');
  assert.equal(spelled(rhythm('(qe)q')), '(q e) q', 'a quarter and an eighth are three eighths in the time of two');
  assert.equal(typed(typing('(e'), ')'), null, 'one value is no group');
  const opened = typed(typing('(eee)'), 'Backspace')!;
  assert.deepEqual([spelled(opened.values), opened.group], ['e e e', 0], 'a group is opened before its values go');
  assert.equal(typed(NOTHING_TYPED, '.'), null);
  assert.equal(spelled(typed(typing('q..'), '.')!.values), 'q', 'after two dots there are none');
  for (const [length, words] of [
    [frac(1, 2), 'an eighth'],
    [frac(3, 2), 'a dotted quarter'],
    [frac(5, 4), 'a quarter and a sixteenth'],
    [frac(1, 3), '0.33 quarters']
  ] as const)
    assert.equal(lengthWords(length), words);
});

test('taps become values against the beat', () => {
  assert.equal(spelled(tapped([0.98, 0.52, 0.49, 1.55, 0.47], 1)), 'q e e q. e');
});

test('a bar that does not add up says by how much', () => {
  assert.deepEqual(barFaults(bars(['qqe', 'G4 A4 B4']), 0), ['Bar 1 is an eighth too short.']);
  assert.deepEqual(barFaults(bars(['hqq', 'G4 A4 B4 C5']), 0), ['Bar 1 is a quarter too long.']);
  assert.deepEqual(barFaults(bars(['h.', 'G4']), 0), []);
  assert.ok(!isComplete(bars(['hq', 'G4 -']), 0), 'a pitch is open');
  assert.ok(isComplete(bars(['hq', 'G4 A4']), 0));
  const upbeat = { ...bars(['q', 'D4'], ['h.', 'G4'], ['h', 'G4']), head: { ...HEAD, upbeat: frac(1) } };
  assert.deepEqual(
    [0, 1, 2].flatMap((k) => barFaults(upbeat, k)),
    [],
    'the last bar is short by the upbeat'
  );
  for (const name of ['corrente.abc', 'etude.abc', 'andantino.abc']) {
    const { written } = fromTune(parseAbc(readFileSync(demoPath(name), 'utf8')))!;
    assert.deepEqual(
      written.bars.flatMap((_, k) => barFaults(written, k)),
      [],
      `${name}: bars that a repeat cuts are one`
    );
  }
});

test('bars are named as they are counted: the upbeat apart, two halves across a repeat as one', () => {
  const { written } = fromTune(parseAbc(readFileSync(demoPath('corrente.abc'), 'utf8')))!;
  assert.deepEqual(
    [0, 1, 12, 13, 14, 29].map((k) => barNumber(written, k)),
    ['Upbeat', 'Bar 1', 'Bar 12', 'Bar 12 from its repeat', 'Bar 13', 'Bar 28']
  );
});

test('what is written stands in the document: pitches, accidentals, chords, slurs, hairpins, signs, graces, words', () => {
  let w = bars(['hq', 'G4 A4'], ['qqq', 'B4 F#4 F#4']);
  w = altered(w, { bar: 1, lane: 0, at: 1 }, -1);
  w = withPitch(w, { bar: 0, lane: 0, at: 0 }, parsePitch('D4')!, true);
  w = slurred(w, { bar: 0, lane: 0, at: 0 }, { bar: 1, lane: 0, at: 0 });
  w = withHairpin(w, { bar: 1, lane: 0, at: 0 }, { bar: 1, lane: 0, at: 2 }, true);
  w = withSign(w, [{ bar: 1, lane: 0, at: 2 }], 'staccato');
  w = withSyllable(w, { bar: 0, lane: 0, at: 0 }, 'tide-');
  w = withGraces(w, { bar: 1, lane: 0, at: 0 }, [parsePitch('C5')!]);
  const score = read(w);
  assert.deepEqual(told(score), ['D4 2', 'G4 2', 'A4 1', 'C5 0', 'B4 1', 'F4 1', 'F#4 1']);
  assert.deepEqual(
    score.notes.filter((n) => n.accidental).map((n) => `${pitchName(n.pitch!)} ${n.accidental}`),
    ['F4 natural', 'F#4 sharp']
  );
  assert.equal(score.slurs.length, 1);
  assert.equal(score.hairpins.length, 1);
  assert.deepEqual(
    score.notes.flatMap((n) => n.marks?.map((m) => m.name) ?? []),
    ['staccato']
  );
  assert.deepEqual(score.notes[0].lyrics?.[0], { number: '1', text: 'tide', syllabic: 'begin' });
  assert.equal(
    slurred(w, { bar: 0, lane: 0, at: 0 }, { bar: 1, lane: 0, at: 1 }).bars[0].lanes[0][0].slurStarts,
    0,
    'the same slur once more takes it away'
  );
});

test('a sign goes on all chosen notes, and away where all have it', () => {
  const w = bars(['qqq', 'G4 A4 B4']);
  const all = [0, 1, 2].map((at) => ({ bar: 0, lane: 0, at }));
  const some = withSign(w, [all[1]], 'tenuto');
  const signs = (x: Written): number[] => x.bars[0].lanes[0].map((s) => s.decorations.length);
  assert.deepEqual(signs(withSign(some, all, 'tenuto')), [1, 1, 1]);
  assert.deepEqual(signs(withSign(withSign(some, all, 'tenuto'), all, 'tenuto')), [0, 0, 0]);
});

test('open sounds stand on the middle line of their clef', () => {
  // Middle lines of the clefs in common use: any primer of notation.
  for (const [clef, name] of Object.entries({ treble: 'B4', bass: 'D3', alto: 'C4', tenor: 'A3', 'treble-8': 'B3', 'bass+8': 'D4' }))
    assert.equal(pitchName(middleOf(clef)), name, clef);
});

test('half a slur or tie that a correction leaves is not written', () => {
  let w = bars(['qqq', 'G4 A4 B4'], ['h.', 'B4']);
  w = slurred(w, { bar: 0, lane: 0, at: 0 }, { bar: 0, lane: 0, at: 1 });
  w = tied(w, { bar: 0, lane: 0, at: 2 });
  assert.deepEqual([read(w).slurs.length, read(w).notes.filter((n) => n.tie?.start).length], [1, 1]);
  w = movedPitches(rested(w, { bar: 0, lane: 0, at: 0 }), { bar: 1, lane: 0, at: 0 }, 1);
  assert.deepEqual([read(w).slurs.length, read(w).notes.filter((n) => n.tie?.start).length], [0, 0]);
  assert.doesNotMatch(documentOf(w), /<slur|<tie/);
});

test('text goes under the chosen notes, a syllable to each; a star passes one over', () => {
  const w = withText(
    bars(['qqq', 'G4 A4 B4'], ['hq', 'C5 D5']),
    [0, 1, 2].map((at) => ({ bar: 0, lane: 0, at })).concat([0, 1].map((at) => ({ bar: 1, lane: 0, at }))),
    'slow wa-ter * tide'
  );
  assert.deepEqual(
    read(w).notes.map((n) => n.lyrics?.map((l) => `${l.text} ${l.syllabic}`).join() ?? ''),
    ['slow single', 'wa begin', 'ter single', '', 'tide single']
  );
});

test('ids of notes stay through every correction of others', () => {
  const w = bars(['qqq', 'G4 A4 B4'], ['hq', 'C5 D5']);
  const ids = read(w).notes.map((n) => n.id);
  const changed = movedPitches(withRhythm(w, 0, 0, rhythm('q.eq')), { bar: 1, lane: 0, at: 0 }, -1);
  assert.deepEqual(
    read(changed).notes.map((n) => n.id),
    ids
  );
  assert.deepEqual(told(read(changed)), ['G4 1.5', 'A4 0.5', 'B4 1', 'B4 2', 'D5 1']);
  assert.ok(rested(w, { bar: 0, lane: 0, at: 1 }).bars[0].lanes[0][1].pitches.length === 0);
});

test('a letter means the nearest octave', () => {
  assert.equal(pitchName(nearest(0, 0, parsePitch('B4')!)), 'C5');
  assert.equal(pitchName(nearest(6, -1, parsePitch('C4')!)), 'Bb3');
});

test('the next bar is proposed from what came before: a sequence goes on, what followed follows, rhythms by use', () => {
  const sequence = bars(['qqq', 'D5 C5 B4'], ['qqq', 'C5 B4 A4'], ['hq', '- -']);
  const [first] = proposeBar(sequence, 2, 0);
  assert.equal(first.says, 'as bar 2, a step lower');
  assert.deepEqual(first.kind === 'notes' && first.sounds.map((s) => pitchName(s.pitches[0].pitch)), ['B4', 'A4', 'G4']);
  const again = withNewBar(bars(['qqq', 'D5 C5 B4'], ['hq', 'A4 G4'], ['qqq', 'D5 C5 B4']), 2);
  assert.equal(proposeBar(again, 3, 0)[0].says, 'as bar 2');
  const rhythms = proposeBar(withNewBar(bars(['qqq', 'D5 C5 B4'], ['h.', 'A4']), 1), 2, 0).filter((p) => p.kind === 'rhythm');
  assert.deepEqual(
    rhythms.map((p) => p.says),
    ['the rhythm of bar 2', 'the rhythm of bar 1']
  );
  assert.ok(proposeBar(again, 3, 0).every((p) => p.kind === 'rhythm' || new Set(p.sounds.map((s) => s.id)).size === p.sounds.length));
});

/** What matters of a score: all of its notes, signs and bar lines. */
const content = (s: Score): unknown => ({
  notes: s.notes.map((n) => [
    n.staff,
    n.start,
    n.duration,
    n.pitch && pitchName(n.pitch),
    n.grace,
    n.accidental,
    n.tie,
    n.marks,
    n.lyrics,
    n.timeModification
  ]),
  slurs: s.slurs.length,
  hairpins: s.hairpins.map((h) => [h.kind, h.start, h.end]),
  words: s.directions.map((d) => [d.kind, d.start, d.staff, 'text' in d && d.text, 'value' in d && d.value]),
  measures: s.measures.map((m) => [m.number, m.start, m.time?.text, m.repeatStart, m.repeatEnd, m.barline])
});

test('typed tunes go through the writing room and come out the same', () => {
  const pipes =
    'X:1\nT:The Mole Light\nM:2/4\nL:1/8\nQ:1/4=72\nV:1 name="Highland bagpipe"\nK:HP\n{Gdc}d>e {g}f>e|{Gde}d2 {gAGAG}A2|{gcd}c>B {GdGe}A>B|{gef}e4|]\n';
  const song =
    'X:1\nT:Slow tide\nM:3/4\nL:1/4\nV:1 name="Voice"\nK:Eb\nE2 F|G2-G|(3A/B/c/ B G|F3|]\nw:slow the wa-ter ri-ses on the stone, slow\n';
  const voices = 'X:1\nT:Two voices\nM:2/4\nL:1/8\n%%score {(A B)}\nV:A name="Piano"\nV:B\nK:G\nV:A\nG2 A2|B4|]\nV:B\nD2 D2|G,2 G2|]\n';
  for (const name of ['etude.abc', 'andantino.abc', 'corrente.abc', pipes, song, voices]) {
    const text = name.includes('\n') ? name : readFileSync(demoPath(name), 'utf8');
    const tune = parseAbc(text);
    const taken = fromTune(tune)!;
    assert.deepEqual(taken.lost, [], name);
    const before = readMusicXml(readAbc(text));
    assert.deepEqual(content(read(taken.written)), content(before), name);
  }
});

test('whatever is written, every bar of the document is as long as its sounds, and written again it is the same', () => {
  const value = fc.constantFrom(...VALUES.slice(1, 5)).map((v): Value => ({ written: v.quarters, rest: false }));
  const pitch = fc.constantFrom('C4', 'D4', 'F#4', 'Bb4', 'A5', 'Eb5').map((n) => parsePitch(n)!);
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.tuple(value, fc.option(pitch)), { minLength: 1, maxLength: 8 }), { minLength: 1, maxLength: 4 }),
      (content) => {
        let w = emptyWritten({ ...HEAD, meter: '' }, 'first');
        content.forEach((bar, k) => {
          if (k) w = withNewBar(w, k - 1);
          w = withRhythm(
            w,
            k,
            0,
            bar.map(([v, p]) => ({ ...v, rest: p === null }))
          );
          bar.forEach(([, p], at) => {
            if (p) w = withPitch(w, { bar: k, lane: 0, at }, p);
          });
        });
        const score = read(w);
        content.forEach((bar, k) => {
          const length = bar.reduce((sum, [v]) => sum + toNumber(v.written), 0);
          assert.equal(toNumber(score.measures[k].length), length);
        });
        assert.deepEqual(
          score.notes.map((n) => (n.pitch ? pitchName(n.pitch) : '')),
          content.flat().map(([, p]) => (p ? pitchName(p) : ''))
        );
        assert.equal(documentOf(structuredClone(w)), documentOf(w));
        assert.ok(score.notes.every((n, k) => k === 0 || cmp(score.notes[k - 1].start, n.start) <= 0));
      }
    ),
    { numRuns: 60 }
  );
});

/** Anything that one may do to a score. */
const edit = fc.record({
  what: fc.nat(13),
  bar: fc.nat(9),
  at: fc.nat(6),
  to: fc.nat(9),
  rhythm: fc.constantFrom('qqq', 'h.', 'hq', '(eee)qq', 'q./eq', 'hh'),
  pitch: fc.constantFrom('C4', 'F#4', 'Bb4', 'B4').map((n) => parsePitch(n)!)
});
type Edit = typeof edit extends fc.Arbitrary<infer T> ? T : never;
function edited(w: Written, { what, bar: b, at: a, to, rhythm: keys, pitch }: Edit): Written {
  const bar = b % w.bars.length;
  const lane = to % w.lanes.length;
  const place = { bar, lane, at: a % Math.max(1, w.bars[bar].lanes[lane].length) };
  const other = { bar: to % w.bars.length, lane, at: 0 };
  const acts: (() => Written)[] = [
    () => withRhythm(w, bar, lane, rhythm(keys)),
    () => withPitch(w, place, pitch),
    () => withPitch(w, place, pitch, true),
    () => rested(w, place),
    () => tied(w, place),
    () => slurred(w, place, other),
    () => withHairpin(w, place, other, a % 2 === 0),
    () => withSign(w, [place], 'accent'),
    () => withGraces(w, place, [pitch, pitch]),
    () => withNewBar(w, bar),
    () => withoutBar(w, bar),
    () => withVoice(w, 1),
    () => altered(w, place, to % 2 ? 1 : -1),
    () => withLane(w, bar, lane, [])
  ];
  // Where nothing stands nothing can be put.
  return w.bars[bar].lanes[lane].length || [0, 9, 10, 11].includes(what) ? acts[what]() : w;
}

test('whatever is done in whatever order, the document can be read, slurs and ties are whole, and changes carry it over', () => {
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 40 }), (edits) => {
      let w = bars(['qqq', 'G4 A4 B4'], ['h.', 'B4']);
      let elsewhere = structuredClone(w);
      for (const e of edits) {
        const next = edited(w, e);
        elsewhere = changed(elsewhere, JSON.parse(JSON.stringify(changeBetween(w, next))) as ReturnType<typeof changeBetween>)!;
        w = next;
      }
      assert.equal(JSON.stringify(elsewhere), JSON.stringify(w), 'what is sent change by change is what stands here');
      const text = documentOf(w);
      const score = readMusicXml(text);
      assert.equal(score.measures.length, w.bars.length);
      const count = (type: string): number => [...text.matchAll(new RegExp(`<slur [^>]*type="${type}"`, 'g'))].length;
      assert.equal(count('start'), count('stop'));
      assert.equal(new Set(score.notes.map((n) => n.id)).size, score.notes.length, 'each note has an id of its own');
    }),
    { numRuns: 150 }
  );
});

test('a change that names a bar that is not there is none; a key costs one bar', () => {
  const w = bars(['qqq', 'G4 A4 B4'], ['h.', 'B4']);
  const change = changeBetween(w, altered(w, { bar: 1, lane: 0, at: 0 }, -1));
  assert.deepEqual(Object.keys(change), ['bars']);
  assert.equal(change.bars.length, 1);
  assert.equal(changed(bars(['h.', 'G4']), change), null);
  assert.equal(changed(w, { bars: [], order: [w.bars[0].id, 'nowhere'] }), null);
});

test('a bar is typed as ABC in the key and meter in force; a fault names its character, a tune its bar', () => {
  const w = { ...bars(['qqq', 'G4 A4 B4']), head: { ...HEAD, key: { fifths: -3, mode: 'minor' } } };
  const taken = typedBar(w, 0, 'E2 =B>A (3Bcd |');
  assert.ok('sounds' in taken);
  const lane = withLane(w, 0, 0, taken.sounds);
  assert.deepEqual(told(read(lane)).slice(0, 3), ['Eb4 1', 'B4 0.75', 'Ab4 0.25']);
  assert.deepEqual(barFaults(lane, 0), []);
  assert.deepEqual(typedBar(w, 0, 'E2 ? F2'), { fault: '"?" has no meaning here (character 4).', at: 3 });
  assert.match((typedBar(w, 0, 'E2 | F2') as { fault: string }).fault, /one bar/);
  assert.match((typedBar(w, 0, '"Am"E2') as { fault: string }).fault, /chord symbol/);
  assert.throws(() => parseAbc('X:1\nM:3/4\nL:1/4\nK:G\nD|G2 A|B2 ?|\n'), /measure 2, line 5, character 11/);
});
