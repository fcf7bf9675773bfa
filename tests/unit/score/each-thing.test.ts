import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { editionMusicXml } from '../../../src/core/edition/musicxml.ts';
import { frac, format, type Fraction } from '../../../src/core/score/fraction.ts';
import { groupingOf, metricLevel } from '../../../src/core/score/meter.ts';
import type { Direction, Score } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { tempoMarks } from '../../../src/core/score/tempo.ts';
import { attributes, documentOf, note } from '../helpers.ts';

/** Small files, one for each thing that enters the model. The elements are those of the MusicXML 4.0 reference. */
interface Thing {
  name: string;
  measures: string[];
  check(score: Score): void;
}

const direction = (type: string, rest = '') => `<direction><direction-type>${type}</direction-type>${rest}</direction>`;
const time = (inner: string) => attributes(`<key><fifths>0</fifths></key><time>${inner}</time>`);
const lengths = (score: Score) => score.notes.map((n) => format(n.duration));
const bars = (score: Score) => score.measures.map((m) => format(m.length));
const only = <K extends Direction['kind']>(score: Score, kind: K) =>
  score.directions.filter((d): d is Extract<Direction, { kind: K }> => d.kind === kind);
const full = note('C4', 16);

const THINGS: Thing[] = [
  {
    name: 'nested tuplets',
    measures: [
      attributes(undefined, 18) +
        note('C4', 24, '<time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification>') +
        ['D4', 'E4', 'F4']
          .map((n) => note(n, 8, '<time-modification><actual-notes>9</actual-notes><normal-notes>4</normal-notes></time-modification>'))
          .join('') +
        note('G4', 24)
    ],
    check: (s) => assert.deepEqual(lengths(s), ['4/3', '4/9', '4/9', '4/9', '4/3'])
  },
  {
    name: 'double dots',
    measures: [attributes() + note('C4', 7, '<type>quarter</type><dot/><dot/>') + note('D4', 1) + note('E4', 8)],
    check: (s) => {
      assert.equal(s.notes[0].dots, 2);
      assert.deepEqual(lengths(s), ['7/4', '1/4', '2']);
    }
  },
  {
    name: 'runs of many grace notes before one note',
    measures: [
      attributes() +
        ['C4', 'D4', 'E4', 'F4', 'G4'].map((n) => note(n, 0, '', '<grace/>').replace('<duration>0</duration>', '')).join('') +
        full
    ],
    check: (s) => {
      assert.equal(s.notes.filter((n) => n.grace).length, 5);
      assert.deepEqual(bars(s), ['4']);
    }
  },
  {
    name: 'cue notes neither sound nor count as rests',
    measures: [attributes() + note('C4', 8, '', '<cue/>') + note('D4', 8)],
    check: (s) =>
      assert.deepEqual(
        s.notes.map((n) => Boolean(n.cue)),
        [true, false]
      )
  },
  {
    name: 'unpitched percussion',
    measures: [
      attributes() +
        '<note><unpitched><display-step>E</display-step><display-octave>4</display-octave></unpitched><duration>16</duration></note>'
    ],
    check: (s) => assert.ok(s.notes[0].unpitched && !s.notes[0].pitch)
  },
  {
    name: 'a voice that crosses the staves',
    measures: [
      attributes('<staves>2</staves>') +
        note('C4', 8, '<voice>1</voice><staff>1</staff>') +
        note('C3', 8, '<voice>1</voice><staff>2</staff>')
    ],
    check: (s) => {
      assert.deepEqual(
        s.notes.map((n) => n.staff),
        [1, 2]
      );
      assert.equal(s.parts[0].staves, 2);
    }
  },
  {
    name: 'clef changes inside a bar',
    measures: [
      attributes('<clef><sign>G</sign><line>2</line></clef>') +
        note('C4', 8) +
        '<attributes><clef><sign>F</sign><line>4</line></clef></attributes>' +
        note('C3', 8)
    ],
    check: (s) =>
      assert.deepEqual(
        s.parts[0].changes.flatMap((c) => (c.clefs ?? []).map((x) => [x.clef.sign, format(c.onset)])),
        [
          ['G', '0'],
          ['F', '2']
        ]
      )
  },
  {
    name: 'a key signature outside the circle of fifths',
    measures: [
      attributes('<key><key-step>B</key-step><key-alter>-1</key-alter><key-step>F</key-step><key-alter>1</key-alter></key>') + full
    ],
    check: (s) => assert.deepEqual(s.measures[0].key.steps, { 6: -1, 3: 1 })
  },
  {
    name: 'a key change in the middle of the piece',
    measures: [attributes() + full, '<attributes><key><fifths>-3</fifths><mode>minor</mode></key></attributes>' + full],
    check: (s) =>
      assert.deepEqual(
        s.measures.map((m) => m.key.fifths),
        [0, -3]
      )
  },
  {
    name: 'an interchangeable meter: the first governs',
    measures: [
      time(
        '<beats>3</beats><beat-type>4</beat-type><interchangeable><time-relation>equals</time-relation><beats>6</beats><beat-type>8</beat-type></interchangeable>'
      ) + note('C4', 12)
    ],
    check: (s) => assert.equal(s.measures[0].time!.text, '3/4')
  },
  {
    name: 'a cut meter',
    measures: [attributes('<time symbol="cut"><beats>2</beats><beat-type>2</beat-type></time>') + full],
    check: (s) => assert.deepEqual([s.measures[0].time!.symbol, s.measures[0].time!.text], ['cut', '2/2'])
  },
  {
    name: 'a bar split in two by a repeat',
    measures: [
      attributes() + full,
      '<measure number="2">' + note('C4', 8) + '</measure>',
      '<measure number="X1" implicit="yes">' + note('D4', 8) + '</measure>'
    ],
    check: (s) => assert.deepEqual([bars(s), s.measures[2].implicit], [['4', '2', '2'], true])
  },
  {
    name: 'rests of several bars',
    measures: [
      attributes('<time><beats>4</beats><beat-type>4</beat-type></time><measure-style><multiple-rest>2</multiple-rest></measure-style>') +
        '<note><rest measure="yes"/><duration>16</duration></note>',
      '<note><rest measure="yes"/><duration>16</duration></note>'
    ],
    check: (s) => assert.equal(s.parts[0].changes[0].multipleRest, 2)
  },
  {
    name: 'sf, fp, rfz and other dynamics',
    measures: [
      attributes() +
        direction('<dynamics><sf/></dynamics>') +
        direction('<dynamics><fp/></dynamics>') +
        direction('<dynamics><rfz/></dynamics>') +
        direction('<dynamics><other-dynamics>più f</other-dynamics></dynamics>') +
        full
    ],
    check: (s) =>
      assert.deepEqual(
        only(s, 'dynamic').map((d) => d.value),
        ['sf', 'fp', 'rfz', 'più f']
      )
  },
  {
    name: 'a metronome mark with a dotted unit',
    measures: [
      attributes() + direction('<metronome><beat-unit>quarter</beat-unit><beat-unit-dot/><per-minute>80</per-minute></metronome>') + full
    ],
    check: (s) =>
      assert.deepEqual(
        tempoMarks(s).map((m) => m.low),
        [120]
      )
  },
  {
    name: 'a metronome range in words',
    measures: [attributes() + direction('<words>♩ = 60–66</words>') + full],
    check: (s) =>
      assert.deepEqual(
        tempoMarks(s).map((m) => [m.low, m.high]),
        [[60, 66]]
      )
  },
  {
    name: 'a metric modulation',
    measures: [
      attributes() + direction('<metronome><beat-unit>quarter</beat-unit><per-minute>60</per-minute></metronome>') + full,
      direction('<metronome><beat-unit>quarter</beat-unit><beat-unit>eighth</beat-unit></metronome>') + full
    ],
    // The old quarter lasts as long as the new eighth, so quarters are half as fast.
    check: (s) =>
      assert.deepEqual(
        tempoMarks(s).map((m) => m.low),
        [60, 30]
      )
  },
  {
    name: 'rehearsal letters',
    measures: [attributes() + direction('<rehearsal>B</rehearsal>') + full],
    check: (s) => assert.equal(s.measures[0].rehearsal, 'B')
  },
  {
    name: 'trill lines, tremolo, arpeggio, glissando',
    measures: [
      attributes() +
        note('C4', 4, '<notations><ornaments><trill-mark/><wavy-line type="start" number="1"/></ornaments></notations>') +
        note(
          'D4',
          4,
          '<notations><ornaments><wavy-line type="stop" number="1"/><tremolo type="single">3</tremolo></ornaments></notations>'
        ) +
        note('E4', 4, '<notations><arpeggiate/><glissando type="start" number="1"/></notations>') +
        note('F4', 4, '<notations><glissando type="stop" number="1"/></notations>')
    ],
    check: (s) => {
      assert.deepEqual(s.slurs.map((x) => x.kind).sort(), ['glissando', 'wavy-line']);
      assert.deepEqual(
        s.notes.flatMap((n) => n.marks ?? []).map((m) => m.name),
        ['trill-mark', 'tremolo', 'arpeggiate']
      );
    }
  },
  {
    name: 'breath marks, a caesura and a fermata over the bar line',
    measures: [
      attributes() +
        note('C4', 8, '<notations><articulations><breath-mark/></articulations></notations>') +
        note('D4', 8, '<notations><articulations><caesura/></articulations></notations>') +
        '<barline location="right"><fermata/></barline>'
    ],
    check: (s) => {
      assert.deepEqual(
        s.notes.map((n) => n.marks![0].name),
        ['breath-mark', 'caesura']
      );
      assert.ok(s.measures[0].barFermata);
    }
  },
  {
    name: 'octave shifts and pedal',
    measures: [
      attributes() +
        direction('<octave-shift type="down" size="8" number="1"/>') +
        direction('<pedal type="start"/>') +
        full +
        direction('<octave-shift type="stop" size="8" number="1"/>') +
        direction('<pedal type="stop"/>')
    ],
    check: (s) =>
      assert.deepEqual(
        only(s, 'span').map((d) => `${d.name} ${d.type}`),
        ['octave-shift down', 'pedal start', 'octave-shift stop', 'pedal stop']
      )
  },
  {
    name: 'swing',
    measures: [attributes() + '<sound><swing><first>2</first><second>1</second></swing></sound>' + full],
    check: (s) => assert.equal(only(s, 'sound')[0].attributes.swing, '2:1')
  },
  {
    name: 'lyrics and chord symbols and figured bass',
    measures: [
      attributes() +
        '<harmony><root><root-step>D</root-step></root><kind>minor-seventh</kind></harmony>' +
        '<figured-bass><figure><figure-number>6</figure-number></figure></figured-bass>' +
        note('C4', 16, '<lyric number="1"><syllabic>single</syllabic><text>sea</text></lyric>')
    ],
    check: (s) => {
      assert.equal(s.harmonies[0].text, 'Dm7');
      assert.equal(s.notes[0].lyrics![0].text, 'sea');
      assert.ok(only(s, 'other').some((d) => d.name === 'figured-bass' && d.text === '6'));
    }
  },
  {
    name: 'footnotes and levels are kept without a remark',
    measures: [
      attributes() +
        direction('<dynamics><p/></dynamics>', '<footnote>not in the print</footnote><level bracket="yes">editorial</level>') +
        full
    ],
    check: (s) => assert.deepEqual(s.remarks, [])
  },
  {
    name: 'an additive meter written as a sum',
    measures: [time('<beats>2+3</beats><beat-type>8</beat-type>') + note('C4', 4) + note('D4', 6)],
    check: (s) => {
      assert.deepEqual(groupingOf(s.measures[0], s.notes), [2, 3]);
      assert.deepEqual(bars(s), ['5/2']);
    }
  },
  {
    name: 'a sloppy file: missing types and an overfull bar come in with a remark',
    measures: [attributes() + note('C4', 20)],
    check: (s) => {
      assert.deepEqual(bars(s), ['5']);
      assert.ok(s.remarks.some((r) => r.kind === 'repaired' && r.measure === 0));
    }
  }
];

for (const thing of THINGS)
  test(thing.name, () => {
    const text = documentOf(...thing.measures);
    thing.check(readMusicXml(text));
    assert.equal(editionMusicXml(text, readMusicXml(text), []), text, 'the same document out as in');
  });

test('any rhythm written as divisions is read as the same fractions', () => {
  const length = fc.record({ n: fc.integer({ min: 1, max: 12 }), d: fc.constantFrom(1, 2, 3, 4, 5, 6, 7, 8, 12, 16) });
  fc.assert(
    fc.property(fc.array(length, { minLength: 1, maxLength: 12 }), (list) => {
      const divisions = 1680;
      const wanted: Fraction[] = list.map((f) => frac(f.n, f.d));
      const score = readMusicXml(
        documentOf(
          attributes('<time><beats>4</beats><beat-type>4</beat-type></time>', divisions) +
            wanted.map((f) => note('C4', (f.n * divisions) / f.d)).join('')
        )
      );
      assert.deepEqual(
        score.notes.map((n) => n.duration),
        wanted
      );
    })
  );
});

// Lerdahl & Jackendoff 1983, metrical grids, as quoted in the handbook 1.3: 4/4 has its strong beats on one and three.
test('metrical levels of common meters', () => {
  const level = (meter: string, at: Fraction) => {
    const [beats, unit] = meter.split('/');
    const score = readMusicXml(documentOf(time(`<beats>${beats}</beats><beat-type>${unit}</beat-type>`) + full));
    return metricLevel(score.measures[0], at);
  };
  assert.deepEqual(
    [0, 1, 2, 3].map((b) => level('4/4', frac(b))),
    [3, 1, 2, 1]
  );
  assert.deepEqual(
    [0, 1, 2].map((b) => level('3/4', frac(b))),
    [3, 1, 1]
  );
  assert.deepEqual([level('6/8', frac(3, 2)), level('6/8', frac(1, 2)), level('4/4', frac(1, 2)), level('4/4', frac(1, 4))], [1, 0, 0, -1]);
});
