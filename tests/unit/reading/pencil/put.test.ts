import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { isSpan, kindOf, markingFault } from '../../../../src/core/markings/describe.ts';
import type { Marking } from '../../../../src/core/markings/marking.ts';
import { movedBy, turnedOver } from '../../../../src/core/reading/pencil/placing.ts';
import { onEach, valuesIn } from '../../../../src/core/reading/pencil/many.ts';
import { endOn, isRefused, noteAtEnd, put } from '../../../../src/core/reading/pencil/put.ts';
import { pitchSpoken, spoken } from '../../../../src/core/reading/pencil/spoken.ts';
import { choicesOf, verbOfKey, verbsFor } from '../../../../src/core/reading/pencil/verbs.ts';
import { Walk } from '../../../../src/core/reading/pencil/walk.ts';
import { replay } from '../../../../src/core/reading/log.ts';
import { cmp, frac, toNumber } from '../../../../src/core/score/fraction.ts';
import { INSTRUMENTS } from '../../../../src/core/style/instruments/index.ts';
import { FARTHEST } from '../../../../src/core/markings/schema.ts';
import { abc, demo, markingAt, sample, open } from '../../helpers.ts';
import { accepts } from '../accepts.ts';

const HEAD = 'M:4/4\nL:1/4\nK:C\n';
const instrument = (key: string) => INSTRUMENTS.find((i) => i.key === key)!;
const violin = instrument('violin');
let counter = 0;
const name = (): string => `m${counter++}`;

const puts = (text: string, verb: string, from: number, to = from, value?: string, existing: Marking[] = []) => {
  const score = abc(HEAD + text);
  const found = verbOfKey(verb, violin)!;
  return put(score, new Walk(score, 0), existing, found, value ?? found.value!, score.notes[from], score.notes[to], name);
};
const made = (result: ReturnType<typeof puts>): Marking[] => {
  assert.ok(!isRefused(result), JSON.stringify(result));
  return result.commands.map((c) => (c.type === 'add-marking' ? c.marking : assert.fail(c.type)));
};

test('every key means one thing for each instrument, and its letter stands in its word', () => {
  for (const i of INSTRUMENTS) {
    const verbs = verbsFor(i);
    assert.equal(new Set(verbs.map((v) => v.key)).size, verbs.length, i.key);
    for (const v of verbs) {
      assert.ok(v.kind === 'fingering' || v.word.toLowerCase().includes(v.key), v.word);
      assert.equal(verbOfKey(v.key, i)?.kind, v.kind);
      assert.notEqual(v.key, 'h', 'H is hearing');
    }
  }
  assert.equal(verbOfKey('u', instrument('flute')), null, 'who has no bow has no up bow');
  assert.deepEqual([verbOfKey('b', violin)?.kind, verbOfKey('b', instrument('flute'))?.kind], ['comma', 'breath']);
  assert.deepEqual(verbOfKey('3', violin)?.value, '3');
});

test('a hairpin on one note reaches to the end of its bar, on several from the first to the end of the last', () => {
  const [one] = made(puts('C D E F|G A B c|', 'g', 1));
  assert.deepEqual([toNumber(one.start), toNumber(one.end!), one.value], [1, 4, 'crescendo']);
  const [three] = made(puts('C D E F|G A B c|', 'f', 2, 5));
  assert.deepEqual([toNumber(three.start), toNumber(three.end!), three.value], [2, 6, 'diminuendo']);
  const [last] = made(puts('C D E F|G A B c|', 'g', 3));
  assert.equal(toNumber(last.end!), 8, 'from the last note of a bar through the next');
  const [before] = made(puts('C D z F|', 'g', 0));
  assert.equal(toNumber(before.end!), 2, 'never over a rest');
});

test('a slur needs a later note, a sign on a note a note', () => {
  assert.match((puts('C z C2|', 'j', 0) as { refused: string }).refused, /later note/);
  assert.match((puts('z C C2|', 'u', 0) as { refused: string }).refused, /a rest is chosen/);
  const [slur] = made(puts('C D E F|', 'j', 0, 2));
  assert.deepEqual([slur.note, slur.endNote], [abc(`${HEAD}C D E F|`).notes[0].id, abc(`${HEAD}C D E F|`).notes[2].id]);
});

test('of several notes articulation takes each, a bow the first, a break the last', () => {
  assert.deepEqual(
    made(puts('C D z F|', 't', 0, 3, 'tenuto')).map((m) => toNumber(m.start)),
    [0, 1, 3]
  );
  assert.deepEqual(
    made(puts('C D E F|', 'u', 1, 3)).map((m) => toNumber(m.start)),
    [1]
  );
  assert.deepEqual(
    made(puts('C D E F|', 'b', 1, 3)).map((m) => toNumber(m.start)),
    [3]
  );
});

test('what stands there already is changed and not doubled', () => {
  const score = abc(`${HEAD}C D E F|`);
  const there = markingAt('dynamic', 'p', 1);
  const result = puts('C D E F|', 'l', 1, 1, 'f', [there]);
  assert.ok(!isRefused(result));
  assert.deepEqual(
    result.commands.map((c) => c.type),
    ['change-marking']
  );
  const after = replay([{ type: 'add-marking', marking: there }, ...result.commands]);
  assert.deepEqual(
    after.markings.map((m) => [m.id, m.value]),
    [[there.id, 'f']]
  );
  const finger = markingAt('fingering', '1', 1, { note: score.notes[1].id });
  const other = puts('C D E F|', '3', 1, 1, '3', [finger]);
  assert.ok(!isRefused(other) && other.commands[0].type === 'change-marking');
});

test('what only overlaps is left as it is, and other words stand beside the first', () => {
  const crescendo = markingAt('hairpin', 'crescendo', 0, { end: frac(4) });
  const [fade] = made(puts('C D E F|G A B c|', 'f', 2, 5, 'diminuendo', [crescendo]));
  assert.deepEqual([toNumber(fade.start), fade.value], [2, 'diminuendo']);
  const turned = puts('C D E F|G A B c|', 'f', 0, 1, 'diminuendo', [crescendo]);
  assert.ok(!isRefused(turned) && turned.commands[0].type === 'change-marking', 'at the same beginning it is changed');
  const [words] = made(puts('C D E F|', 's', 0, 0, 'sing', [markingAt('text', 'dolce', 0)]));
  assert.equal(words.value, 'sing');
});

test('an end is found by time, whatever voice comes last in the source', () => {
  const score = abc(`M:4/4\nL:1/4\nK:C\nC D E F & c4|G4 & c4|`);
  const walk = new Walk(score, 0);
  const hairpin = markingAt('hairpin', 'crescendo', 1, { end: frac(4) });
  assert.equal(toNumber(noteAtEnd(walk, score, hairpin, 'end')!.start), 3);
  assert.equal(toNumber(noteAtEnd(walk, score, hairpin, 'start')!.start), 1);
});

test('print that says otherwise is named', () => {
  const result = puts('!p!C D E F|', 'l', 0, 0, 'ff');
  assert.ok(!isRefused(result));
  assert.equal(result.against, 'p is printed there');
  const emended = puts('C D E F|', 'e', 1, 1, 'D#4');
  assert.ok(!isRefused(emended));
  assert.equal(emended.against, 'another note is printed');
});

test('whatever is put on whichever notes can be drawn, is taken by the server, and stands where it was put', () => {
  const scores = [demo('andantino.abc').score, open(sample('MozartPianoSonata.xml')).score, abc(`${HEAD}{c}C [CEG] z (3DEF|z4|C3 D|`)];
  fc.assert(
    fc.property(
      fc.nat(scores.length - 1),
      fc.nat(),
      fc.nat(30),
      fc.nat(40),
      fc.constantFrom(...INSTRUMENTS),
      (which, at, length, k, player) => {
        const score = scores[which];
        const notes = score.notes.filter((n) => n.part === 0 && !n.cue && !n.hidden);
        const from = notes[at % notes.length];
        const walk = new Walk(score, 0);
        const to = walk.along(from.id, length) ?? from;
        const verbs = verbsFor(player);
        const verb = verbs[k % verbs.length];
        const value =
          verb.value ?? choicesOf(verb, player)?.[0] ?? (verb.kind === 'emendation' ? 'F#4' : verb.kind === 'metronome' ? '60' : 'x');
        const result = put(score, walk, [], verb, value, from, to, name);
        if (isRefused(result)) return;
        for (const c of result.commands) {
          assert.ok(c.type === 'add-marking');
          assert.equal(markingFault(c.marking), null);
          assert.equal(accepts(c), null);
          assert.ok(cmp(c.marking.start, from.start) >= 0 && cmp(c.marking.start, to.start) <= 0);
          if (isSpan(c.marking.kind)) assert.ok(cmp(c.marking.end!, c.marking.start) > 0);
          if (kindOf(c.marking.kind).hangs === 'note') assert.ok(!notes.find((n) => n.id === c.marking.note)!.rest);
        }
      }
    ),
    { numRuns: 600 }
  );
});

test('an end that is moved stands on its note; one that would end before it begins is refused', () => {
  const score = abc(`${HEAD}C D E F|G A B c|`);
  const walk = new Walk(score, 0);
  const [hairpin] = made(puts('C D E F|G A B c|', 'g', 1, 3));
  assert.equal(noteAtEnd(walk, score, hairpin, 'end')!.id, score.notes[3].id);
  const later = endOn(hairpin, 'end', score.notes[5]);
  assert.ok(!isRefused(later));
  assert.equal(toNumber(later.change.end!), 6);
  assert.equal(noteAtEnd(walk, score, { ...hairpin, ...later.change }, 'end')!.id, score.notes[5].id);
  assert.ok(isRefused(endOn(hairpin, 'end', score.notes[0])));
  assert.ok(isRefused(endOn(hairpin, 'start', score.notes[4])));
  const [slur] = made(puts('C D E F|G A B c|', 'j', 1, 3));
  const moved = endOn(slur, 'start', score.notes[0]);
  assert.deepEqual(!isRefused(moved) && moved.change.note, score.notes[0].id);
  assert.ok(isRefused(endOn(slur, 'end', score.notes[1])));
});

test('a marking is moved by half spaces, never farther than it may stand, and back to its own place', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.double({ min: -20, max: 20, noNaN: true }), fc.double({ min: -20, max: 20, noNaN: true })), { maxLength: 6 }),
      (steps) => {
        let m: Pick<Marking, 'placing'> = {};
        for (const [right, up] of steps) m = { placing: movedBy(m, right, up) ?? undefined };
        for (const v of [m.placing?.right ?? 0, m.placing?.up ?? 0]) assert.ok(Math.abs(v) <= FARTHEST && Number.isInteger(v * 2));
      }
    )
  );
  assert.equal(movedBy({ placing: { up: 1.5 } }, 0, -1.5), null);
  assert.deepEqual(turnedOver('above'), { side: 'above' });
  const marking = markingAt('dynamic', 'p', 1);
  const put = { type: 'add-marking' as const, marking };
  const moved = (placing: Marking['placing'] | null) => ({
    type: 'change-marking' as const,
    id: marking.id,
    change: { placing: placing ?? null }
  });
  assert.deepEqual(replay([put, moved({ up: 2 })]).markings[0].placing, { up: 2 });
  assert.equal('placing' in replay([put, moved({ up: 2 }), moved(null)]).markings[0], false);
  assert.equal(replay([put, moved({ up: 2 }), { type: 'undo' }]).markings[0].placing, undefined);
  assert.match(accepts(moved({ up: 99 }))!, /up/);
});

test('one walks along a voice, across chords, voices and staves, and back', () => {
  const score = open(sample('MozartPianoSonata.xml')).score;
  const walk = new Walk(score, 0);
  for (let n = walk.edge(false), k = 0; n && k < 200; k++) {
    const next = walk.along(n.id, 1);
    if (!next) break;
    assert.ok(cmp(next.start, n.start) >= 0 && next.voice === n.voice && next.staff === n.staff);
    assert.equal(walk.along(next.id, -1)!.id, n.id);
    n = next;
  }
  const chord = abc(`${HEAD}[CEG]2 z2|`);
  const inChord = new Walk(chord, 0);
  const top = inChord.edge(false)!;
  assert.equal(pitchSpoken(top.pitch!), 'G 4');
  assert.equal(pitchSpoken(inChord.across(top.id, false)!.pitch!), 'E 4');
  assert.equal(inChord.along(top.id, 1)!.rest, true);
  const lower = walk.across(walk.edge(false)!.id, false);
  assert.ok(lower && lower.staff >= 1);
});

test('a note is read aloud with its place, its printed signs and what is editorial', () => {
  const score = abc(`${HEAD}C D .^C E|!p!(F G) A2|`);
  const walk = new Walk(score, 0);
  const third = score.notes[2];
  const hairpin = markingAt('hairpin', 'crescendo', 2, { end: { n: 4, d: 1 } });
  assert.equal(
    spoken(score, third, walk.moment(third.id), [hairpin]),
    'bar 1, beat 3, C sharp 4, quarter, staccato, editorial hairpin crescendo begins'
  );
  assert.match(spoken(score, score.notes[4], walk.moment(score.notes[4].id), []), /^bar 2, beat 1, F 4, quarter, slur begins, p$/);
});

test('all quarters of some bars get one mark; what has one keeps it', () => {
  const score = abc(`${HEAD}C D/D/ .E F-|F G A2|c4|`);
  assert.deepEqual(valuesIn(score, 0, 0, 1), ['quarter', 'eighth', 'half']);
  const at = (value: string | null) =>
    onEach(
      score,
      [markingAt('articulation', 'tenuto', 0, { note: score.notes[0].id })],
      'articulation',
      'staccato',
      0,
      0,
      1,
      value,
      name
    ).map((c) => (c.type === 'add-marking' ? toNumber(c.marking.start) : -1));
  assert.deepEqual(at('quarter'), [3, 5]);
  assert.deepEqual(at('eighth'), [1, 1.5]);
  assert.deepEqual(at(null), [1, 1.5, 3, 5, 6]);
});

test('strings and fingers are offered to who has them', () => {
  const values = (key: string, word: string) => {
    const verb = verbsFor(instrument(key)).find((v) => v.word === word);
    return verb && choicesOf(verb, instrument(key));
  };
  assert.deepEqual(values('violin', 'String'), ['I', 'II', 'III', 'IV']);
  assert.equal(values('guitar', 'String')?.length, 6);
  assert.equal(values('lute', 'String')?.length, 6, 'whose strings are not known has all');
  for (const none of ['harp', 'flute', 'piano', 'soprano']) assert.equal(values(none, 'String'), undefined, none);
  assert.deepEqual(values('piano', 'Finger'), ['1', '2', '3', '4', '5']);
  assert.deepEqual(values('cello', 'Finger'), ['1', '2', '3', '4', '0']);
  for (const none of ['soprano', 'drums', 'timpani']) assert.equal(values(none, 'Finger'), undefined, none);
  assert.equal(verbOfKey('2', instrument('alto')), null, 'a figure is nothing to a singer');
});
