import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  clash,
  inWords,
  isOnNote,
  isSpan,
  kindOf,
  markingFault,
  markingName,
  ownWords,
  soundOf,
  valueFault,
  valuesOf
} from '../../../src/core/markings/describe.ts';
import { MARKING_KINDS, type MarkingKind } from '../../../src/core/markings/marking-kind.ts';
import type { Marking } from '../../../src/core/markings/marking.ts';
import { legend } from '../../../src/core/edition/text/legend.ts';
import { replay } from '../../../src/core/reading/log.ts';
import { accepts } from '../reading/accepts.ts';

const at = (n: number, d = 1) => ({ n, d });

const PLACE = {
  identity: 'I',
  again: 'I2',
  common: 'C',
  stamp: 'S',
  anchor: 'A',
  beforeTheEnd: 'B',
  until: 'U',
  side: (usual: string) => `place="${usual}"`,
  curve: ''
};

/** Values of kinds that take words of one's own, where not any words will do. */
const OWN: Partial<Record<MarkingKind, string>> = { metronome: 'quarter = 60', emendation: 'F#4' };

/** A marking of a kind that hangs where its kind hangs. */
function sound(kind: MarkingKind, value = valuesOf(kind)?.[0] ?? OWN[kind] ?? '1'): Marking {
  const marking: Marking = { id: `mark-${kind}`, kind, value, part: 0, staff: 1, start: at(4), because: [] };
  if (isOnNote(kind)) marking.note = 'n1';
  if (isSpan(kind)) marking.end = at(6);
  if (kindOf(kind).hangs === 'notes') marking.endNote = 'n2';
  return marking;
}

const refused = (marking: object): string => accepts({ type: 'add-marking', marking }) ?? 'taken';

for (const kind of MARKING_KINDS) {
  test(`${kind}: every value is taken, named, explained and drawn; others are refused`, () => {
    for (const value of valuesOf(kind) ?? [OWN[kind] ?? 'quarter = 60']) {
      const m = sound(kind, value);
      assert.equal(refused(m), 'taken', value);
      assert.equal(markingFault(m), null);
      assert.ok(inWords(m).length >= value.length && markingName(m).length > 2);
      const drawn = kindOf(kind).mei(m, PLACE);
      // Advice stands in the commentary only.
      if (kind === 'advice') assert.equal(drawn, null);
      else if (kind === 'emendation') assert.deepEqual(drawn, { instead: { pname: 'f', oct: 4, accid: 's' } });
      else assert.match(Object.values(drawn!)[0] as string, /^(?:<\w+ [\s\S]*>|[\w.]+="[^"]*" [\s\S]*)$/);
      assert.ok(Object.keys(kindOf(kind).musicXml(m)).length);
      assert.ok(clash(m, m), 'two of the same at one place');
    }
    assert.match(refused({ ...sound(kind), value: '' }), /value|empty/);
    if (!ownWords(kind)) assert.match(refused({ ...sound(kind), value: 'marcato' }), /cannot be “marcato”/);
  });
  if (isOnNote(kind))
    test(`${kind}: is refused without the note that it hangs on`, () => {
      const { note, ...without } = sound(kind);
      assert.ok(note);
      assert.match(refused(without), /needs a note to hang on/);
    });
  if (isSpan(kind))
    test(`${kind}: is refused without an end, and when it ends before it begins`, () => {
      const { end, ...without } = sound(kind);
      assert.ok(end);
      assert.match(refused(without), /end after it begins/);
      assert.match(refused({ ...sound(kind), end: at(4) }), /end after it begins/);
    });
}

test('a metronome mark is a number; words are anything', () => {
  assert.match(valueFault('metronome', 'brisk')!, /number of quarters a minute/);
  assert.equal(valueFault('metronome', '96'), null);
  assert.equal(valueFault('text', 'as in the café scene'), null);
  assert.match(valueFault('fingering', '1'.repeat(21))!, /at most 20/);
});

test('a metronome mark without an equals sign sounds as it is printed', () => {
  assert.equal(soundOf({ kind: 'metronome', value: '96' }).tempo, 96);
  assert.equal(soundOf({ kind: 'metronome', value: 'dotted quarter = 60' }).tempo, 90);
  const drawn = kindOf('metronome').mei(sound('metronome', '96'), PLACE) as { beside: string };
  assert.match(drawn.beside, /\[quarter = 96\]/);
});

test('a word to the player can be emptied; a change that could not be drawn changes nothing', () => {
  const marking = { ...sound('hairpin', 'crescendo'), remark: 'From nothing.' };
  const after = (change: object) => {
    const command = { type: 'change-marking', id: marking.id, change } as never;
    assert.equal(accepts(command), null);
    return replay([{ type: 'add-marking', marking }, command]).markings[0];
  };
  assert.equal(after({ remark: 'More.' }).remark, 'More.');
  assert.ok(!('remark' in after({ remark: null })));
  assert.deepEqual(after({ end: at(3) }), marking, 'it would end before it begins');
  assert.deepEqual(after({ kind: 'slur', value: 'slur' }), marking, 'a hairpin stays a hairpin');
  assert.match(accepts({ type: 'change-marking', id: 'm', change: { value: 'mf' } })!, /kind/, 'a value comes with its kind');
  assert.match(accepts({ type: 'change-marking', id: 'm', change: { kind: 'hairpin', value: 'wide' } })!, /cannot be “wide”/);
});

test('the legend explains each sign once', () => {
  const lines = legend(MARKING_KINDS.map((kind) => ({ kind })));
  assert.equal(new Set(lines.map((l) => l.meaning)).size, lines.length);
  assert.equal(legend([{ kind: 'accent' }, { kind: 'fermata' }]).length, 2, 'signs that look printed share a line');
});

test('a value has at most 200 letters, whatever the kind', () => {
  const value = (letters: number, proposed = 1): boolean =>
    accepts({
      type: 'add-marking',
      marking: {
        id: 'm',
        kind: 'text',
        value: 'x'.repeat(letters),
        part: 0,
        staff: 1,
        start: { n: 0, d: 1 },
        because: [],
        proposed: 'x'.repeat(proposed)
      }
    }) === null;
  assert.deepEqual([value(0), value(1), value(200), value(201)], [false, true, true, false]);
  assert.deepEqual([value(1, 200), value(1, 201)], [true, false]);
});

/** Logs that are stored hold these values at these places: what is here may be added to, never changed. */
const STORED: Record<MarkingKind, [hangs: string, values: readonly string[] | null]> = {
  dynamic: ['moment', ['mf', 'ppp', 'pp', 'p', 'mp', 'f', 'ff', 'fff', 'sf', 'sfz', 'fp']],
  hairpin: ['stretch', ['crescendo', 'diminuendo']],
  slur: ['notes', ['slur']],
  articulation: ['note', ['staccato', 'tenuto', 'staccatissimo', 'detached-legato']],
  accent: ['note', ['accent', 'strong-accent']],
  breath: ['note', ['breath']],
  comma: ['note', ['comma']],
  tempo: ['moment', null],
  metronome: ['moment', null],
  fermata: ['note', ['fermata']],
  text: ['moment', null],
  advice: ['moment', null],
  fingering: ['note', null],
  bowing: ['note', ['down-bow', 'up-bow']],
  ornament: ['note', ['trill', 'short trill', 'mordent', 'turn', 'inverted turn', 'none']],
  string: ['note', ['I', 'II', 'III', 'IV', 'V', 'VI']],
  harmonic: ['note', ['natural', 'artificial']],
  sticking: ['note', ['R', 'L', '1', '2', '3', '4']],
  hand: ['note', ['r.h.', 'l.h.']],
  pedal: ['stretch', ['pedal']],
  octave: ['stretch', ['8va', '8vb']],
  manner: ['moment', null],
  cue: ['moment', null],
  emendation: ['note', null],
  inflection: ['note', ['fall', 'long-fall', 'doit', 'scoop', 'plop', 'bend', 'quick-bend', 'smear', 'ghost']]
};

test('what stored logs hold is still what each kind takes, and where', () => {
  for (const kind of MARKING_KINDS) {
    const [hangs, values] = STORED[kind];
    assert.equal(kindOf(kind).hangs, hangs, kind);
    for (const value of values ?? []) assert.ok(valuesOf(kind)!.includes(value), `${kind} ${value}`);
    assert.equal(valuesOf(kind) === null, values === null, kind);
  }
});
