import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { tempoMarks } from '../../../src/core/score/tempo.ts';
import { attributes, xml } from '../helpers.ts';
import {
  findMetronome,
  metronomeTempo,
  parseMetronome,
  printMetronome,
  readMetronome,
  unitLength
} from '../../../src/core/score/metronome.ts';

const tempo = (text: string) => {
  const mark = parseMetronome(text);
  return mark && metronomeTempo(mark);
};

test('metronome marks as teachers and scores write them; a bare number counts quarters', () => {
  const marks: [string, number | null][] = [
    ['quarter = 96', 96],
    ['96', 96],
    ['dotted quarter = 60', 90],
    ['quarter. = 60', 90],
    ['♩. = 60–66', 94.5],
    ['♪ = 84', 42],
    ['half = c. 50', 100],
    ['crotchet = 72', 72],
    ['M.M. 92', 92],
    ['(quarter = 100 to 104)', 102],
    ['quarter = 0', null],
    ['quarter = fast', null],
    ['brisk', null],
    ['', null]
  ];
  for (const [text, expected] of marks) assert.equal(tempo(text), expected, text);
});

test('a mark within words is found; numbers that are none are left alone', () => {
  assert.equal(metronomeTempo(findMetronome('Allegro (♩ = 120)')!), 120);
  assert.equal(metronomeTempo(findMetronome('Larghetto, M.M. 54')!), 54);
  for (const text of ['Violin 92', 'bar 60', 'first quarter of 1860', '96']) assert.equal(findMetronome(text), null, text);
});

test('what is printed is parsed again as the same mark', () => {
  const unit = fc.constantFrom('whole', 'half', 'quarter', 'eighth', '16th');
  fc.assert(
    fc.property(
      unit,
      fc.integer({ min: 0, max: 2 }),
      fc.integer({ min: 20, max: 400 }),
      fc.integer({ min: 0, max: 40 }),
      (u, dots, low, more) => {
        const mark = readMetronome({ unit: u, dots, perMinute: more ? `${low}-${low + more}` : `${low}` })!;
        assert.deepEqual(parseMetronome(printMetronome(mark)), mark);
      }
    )
  );
});

// A dot adds half, a second one a quarter.
test('lengths of units with dots', () => {
  assert.deepEqual(unitLength('quarter', 1), { n: 3, d: 2 });
  assert.deepEqual(unitLength('half', 2), { n: 7, d: 2 });
  assert.deepEqual(unitLength('64th', 0), { n: 1, d: 16 });
});

test('a tempo of the file’s playback data yields to the mark that is printed at its moment, and to that alone', () => {
  const sound = (tempo: number): string => `<direction><sound tempo="${tempo}"/></direction>`;
  const printed = `<direction><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>72</per-minute></metronome></direction-type></direction>`;
  const rest = '<note><rest/><duration>4</duration></note>';
  const head = attributes();
  const tempi = (...measures: string[]): unknown[] =>
    tempoMarks(xml(...measures)).map(({ low, printed, measure }) => [measure, low, printed]);
  assert.deepEqual(tempi(head + sound(120) + printed + rest, sound(90) + rest), [
    [0, 72, true],
    [1, 90, false]
  ]);
  assert.deepEqual(tempi(head + printed + sound(120) + rest), [[0, 72, true]]);
});
