import assert from 'node:assert/strict';
import { test } from 'node:test';
import { format } from '../../../src/core/score/fraction.ts';
import { pitchName } from '../../../src/core/score/pitch.ts';
import { ScoreError } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import { attributes, note, xml } from '../helpers.ts';

const starts = (score: ReturnType<typeof xml>) => score.notes.map((n) => format(n.start));

test('divisions may change in the middle of a bar', () => {
  const score = xml(
    attributes() +
      note('C4', 4) +
      '<attributes><divisions>6</divisions></attributes>' +
      note('D4', 2) +
      note('E4', 2) +
      note('F4', 2) +
      note('G4', 12)
  );
  assert.deepEqual(starts(score), ['0', '1', '4/3', '5/3', '2']);
  assert.equal(format(score.measures[0].length), '4');
});

test('chords, voices, backup and forward find their places', () => {
  const score = xml(
    attributes() +
      note('C4', 8) +
      note('E4', 8, '', '<chord/>') +
      note('G4', 8) +
      '<backup><duration>16</duration></backup><forward><duration>4</duration></forward>' +
      note('C3', 12, '<voice>2</voice><staff>2</staff>')
  );
  assert.deepEqual(starts(score), ['0', '0', '2', '1']);
  assert.equal(score.parts[0].staves, 2);
});

test('grace notes take no written time, with slash and stolen time', () => {
  const score = xml(
    attributes() +
      '<note><grace slash="yes" steal-time-following="33"/><pitch><step>D</step><octave>5</octave></pitch></note>' +
      note('C5', 16)
  );
  assert.deepEqual(starts(score), ['0', '0']);
  assert.deepEqual(score.notes[0].grace, { slash: true, stealFollowing: 33 });
  assert.equal(format(score.notes[0].duration), '0');
});

test('transposing parts know written and sounding pitch, octaves included', () => {
  const score = xml(
    attributes('<transpose><diatonic>-1</diatonic><chromatic>-2</chromatic><octave-change>-1</octave-change></transpose>') + note('D5', 16)
  );
  assert.equal(pitchName(score.notes[0].pitch!), 'D5');
  assert.equal(pitchName(score.notes[0].sounding!), 'C4');
  assert.deepEqual(score.parts[0].transpose, { diatonic: -8, chromatic: -14 });
});

test('meters: compound, composite, common, senza misura', () => {
  const time = (inner: string, length: number) => xml(attributes(inner) + note('C4', length)).measures[0].time;
  assert.deepEqual(time('<time><beats>2+3</beats><beat-type>8</beat-type></time>', 10), {
    text: '2+3/8',
    groups: [2, 3],
    unit: 8,
    quarters: { n: 5, d: 2 }
  });
  assert.equal(time('<time><beats>2</beats><beat-type>4</beat-type><beats>3</beats><beat-type>8</beat-type></time>', 14)!.text, '2/4+3/8');
  assert.equal(time('<time symbol="cut"><beats>2</beats><beat-type>2</beat-type></time>', 16)!.symbol, 'cut');
  assert.equal(time('<time><senza-misura/></time>', 16), null);
});

test('pickup, incomplete and overfull bars last what they hold', () => {
  const score = xml(
    '<measure number="0" implicit="yes">' + attributes() + note('G4', 4) + '</measure>',
    note('C4', 16),
    note('C4', 20),
    note('C4', 8)
  );
  assert.deepEqual(
    score.measures.map((m) => format(m.length)),
    ['1', '4', '5', '2']
  );
  assert.deepEqual(
    score.remarks.map((r) => r.text),
    ['a bar longer than its meter']
  );
});

test('a whole-bar rest fills its bar and no more', () => {
  const rest = '<note><rest measure="yes"/><duration>16</duration></note>';
  const score = xml(attributes('<time><beats>3</beats><beat-type>4</beat-type></time>') + rest, note('C4', 12));
  assert.deepEqual(
    score.measures.map((m) => format(m.length)),
    ['3', '3']
  );
});

test('dynamics, wedges with niente, words, metronome and sounds come in with their moment', () => {
  const direction = (type: string, rest = '') => `<direction><direction-type>${type}</direction-type>${rest}</direction>`;
  const score = xml(
    attributes() +
      direction('<dynamics><sf/><other-dynamics>z</other-dynamics></dynamics>') +
      direction('<wedge type="crescendo" niente="yes"/>') +
      note('C4', 8) +
      direction('<wedge type="stop"/>', '<offset>2</offset>') +
      direction(
        '<metronome><beat-unit>quarter</beat-unit><beat-unit-dot/><per-minute>ca. 60</per-minute></metronome>',
        '<sound tempo="90"/>'
      ) +
      note('D4', 8)
  );
  assert.deepEqual(
    score.directions.map((d) => d.kind),
    ['dynamic', 'wedge', 'wedge', 'metronome', 'sound']
  );
  assert.equal(score.directions[0].kind === 'dynamic' && score.directions[0].value, 'sfz');
  const [pin] = score.hairpins;
  assert.deepEqual([pin.kind, format(pin.start), format(pin.end), pin.niente], ['crescendo', '0', '5/2', true]);
  const mark = score.directions[3];
  assert.ok(mark.kind === 'metronome' && mark.dots === 1 && mark.perMinute === 'ca. 60');
});

test('articulations, ornaments with accidentals, technical marks and fermatas hang on their note', () => {
  const marks =
    '<notations><ornaments><turn/><accidental-mark placement="below">sharp</accidental-mark></ornaments><technical><up-bow/><fingering>3</fingering></technical><articulations><staccato/></articulations><fermata type="inverted"/></notations>';
  const [n] = xml(attributes() + note('C4', 16, marks)).notes;
  assert.deepEqual(
    n.marks!.map((m) => [m.group, m.name]),
    [
      ['ornament', 'turn'],
      ['technical', 'up-bow'],
      ['technical', 'fingering'],
      ['articulation', 'staccato'],
      ['fermata', 'fermata']
    ]
  );
  assert.deepEqual(n.marks![0].accidentals, [{ value: 'sharp', placement: 'below' }]);
});

test('slurs are joined within their voice although their numbers are used twice', () => {
  const slur = (type: string, voice: number) => `<voice>${voice}</voice><notations><slur type="${type}" number="1"/></notations>`;
  const score = xml(
    attributes() +
      note('C5', 8, slur('start', 1)) +
      note('D5', 8, '<voice>1</voice>') +
      '<backup><duration>16</duration></backup>' +
      note('C4', 8, slur('start', 2)) +
      note('D4', 8, slur('stop', 2)),
    note('E5', 16, slur('stop', 1))
  );
  const name = (id: string) => pitchName(score.notes.find((n) => n.id === id)!.pitch!);
  assert.deepEqual(score.slurs.map((s) => [name(s.from), name(s.to)]).sort(), [
    ['C4', 'D4'],
    ['C5', 'E5']
  ]);
  assert.deepEqual(score.remarks, []);
});

test('unmatched ends are remarks, not errors', () => {
  const score = xml(attributes() + note('C4', 16, '<notations><slur type="stop" number="1"/></notations>'));
  assert.deepEqual(score.remarks, [{ kind: 'repaired', text: 'a slur without a beginning', count: 1, measure: 0 }]);
});

test('what is not understood is reported with its count', () => {
  const score = xml(
    attributes() + '<note><mystery/><rest/><duration>16</duration></note>',
    '<note><mystery/><rest/><duration>16</duration></note>'
  );
  assert.deepEqual(score.remarks, [{ kind: 'not-understood', text: '<mystery>', count: 2, measure: 0 }]);
});

test('timewise documents give the same score as partwise ones', () => {
  const one = attributes() + note('C4', 16);
  const two = note('D4', 8) + note('E4', 8);
  const list = '<part-list><score-part id="P1"><part-name>A</part-name></score-part></part-list>';
  const timewise = readMusicXml(
    `<score-timewise>${list}<measure number="1"><part id="P1">${one}</part></measure><measure number="2"><part id="P1">${two}</part></measure></score-timewise>`
  );
  const partwise = readMusicXml(
    `<score-partwise>${list}<part id="P1"><measure number="1">${one}</measure><measure number="2">${two}</measure></part></score-partwise>`
  );
  const bare = (s: typeof timewise) => s.notes.map((n) => ({ ...n, span: null, notationsAt: null }));
  assert.deepEqual(bare(timewise), bare(partwise));
});

test('text spans lead back to the notes in the source', () => {
  const text = `<score-partwise>\r\n<part-list><score-part id="P1"><part-name>é</part-name></score-part></part-list>\r\n<part id="P1"><measure number="1">\r\n${attributes()}${note('C4', 8)}\r\n${note('E4', 8)}</measure></part></score-partwise>`;
  for (const n of readMusicXml(text).notes) {
    assert.match(text.slice(n.span.from, n.span.to), /^<note>.*<\/note>$/s);
    assert.equal(text.slice(n.notationsAt, n.notationsAt + 7), '</note>');
  }
});

test('values that no music has are refused with their bar', () => {
  const refused = (pattern: RegExp, ...measures: string[]) =>
    assert.throws(
      () => xml(...measures),
      (e) => e instanceof ScoreError && pattern.test(e.message),
      String(pattern)
    );
  const good = attributes() + note('C4', 16);
  const with_ = (from: string, to: string) => good.replace(from, to);
  refused(/0 divisions .*\(measure 1/, attributes(undefined, 0) + note('C4', 16));
  refused(/3\/0 has no beat/, with_('<beats>4</beats><beat-type>4</beat-type>', '<beats>3</beats><beat-type>0</beat-type>'));
  refused(/octave "11".*\(measure 2/, good, with_('<octave>4', '<octave>11'));
  refused(/octave "-2"/, with_('<octave>4', '<octave>-2'));
  refused(/octave "four"/, with_('<octave>4', '<octave>four'));
  refused(/less than nothing \(measure 2/, good, note('C4', -4));
  refused(/"long" is no duration/, with_('<duration>16', '<duration>long'));
  refused(/backup goes past .*\(measure 2/, good, note('C4', 4) + '<backup><duration>5</duration></backup>' + note('E4', 4));
  assert.equal(xml(with_('<octave>4', '<octave>-1'), with_('<octave>4', '<octave>10')).notes.length, 2, 'the ends of the range are music');
});
