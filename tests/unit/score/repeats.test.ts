import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { format } from '../../../src/core/score/fraction.ts';
import { playedLength, unfold } from '../../../src/core/score/repeats.ts';
import { attributes, note, xml, abc } from '../helpers.ts';

const left = (inner: string) => `<barline location="left">${inner}</barline>`;
const right = (inner: string) => `<barline location="right">${inner}</barline>`;
const bar = note('C4', 16);
const forward = left('<repeat direction="forward"/>');
const backward = (times = '') => right(`<repeat direction="backward"${times}/>`);
const sound = (attribute: string) => `<sound ${attribute}/>`;
const order = (...measures: string[]): string =>
  unfold(xml(attributes() + measures[0], ...measures.slice(1)).measures)
    .map((p) => p.measure + 1)
    .join(' ');

// Reading of the signs: settled in the command line's documentation; otherwise common practice.
test('repeats go back to the opening sign, to the last closing one, or to the beginning', () => {
  assert.equal(order(bar, forward + bar, bar + backward(), bar), '1 2 3 2 3 4');
  assert.equal(order(bar, bar + backward(), bar, bar + backward()), '1 2 1 2 3 4 3 4');
  assert.equal(order(bar + backward(' times="3"'), bar), '1 1 1 2');
});

test('endings are taken in their rounds', () => {
  const ending = (numbers: string, content: string, back: boolean) =>
    left(`<ending number="${numbers}" type="start"/>`) +
    content +
    right(`<ending number="${numbers}" type="stop"/>${back ? '<repeat direction="backward"/>' : ''}`);
  assert.equal(order(forward + bar, ending('1', bar, true), ending('2', bar, false), bar), '1 2 1 3 4');
  assert.equal(
    order(forward + bar, ending('1, 2', bar, true).replace('backward"', 'backward" times="3"'), ending('3', bar, false)),
    '1 2 1 2 1 3'
  );
  assert.equal(order(forward + bar, ending('1-3', bar, true), ending('4', bar, false)), '1 2 1 2 1 2 1 3');
});

test('after da capo or dal segno repeats are not taken again, and fine and coda act', () => {
  assert.equal(order(bar + backward(), bar + sound('fine="yes"'), bar + sound('dacapo="yes"')), '1 1 2 3 1 2');
  assert.equal(
    order(bar, sound('segno="s"') + bar, bar + sound('tocoda="c"'), bar + sound('dalsegno="s"'), sound('coda="c"') + bar),
    '1 2 3 4 2 3 5'
  );
  const words = (t: string) => `<direction><direction-type><words>${t}</words></direction-type></direction>`;
  assert.equal(order(bar, bar + words('Fine'), bar + words('D.C. al Fine')), '1 2 3 1 2');
});

test('after da capo the last ending is played', () => {
  const ending = (n: number, back: boolean) =>
    left(`<ending number="${n}" type="start"/>`) +
    bar +
    right(`<ending number="${n}" type="stop"/>${back ? '<repeat direction="backward"/>' : ''}`);
  assert.equal(order(forward + bar, ending(1, true), ending(2, false), bar + sound('dacapo="yes"')), '1 2 1 3 4 1 3 4');
});

test('signs that run in a circle come to an end', () => {
  assert.ok(unfold(xml(attributes() + forward + bar + backward(' times="99"'), bar + sound('dacapo="yes"')).measures).length < 1000);
});

test('simple repeated strains: every strain is played twice, whatever its length', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 5 }), (strains) => {
      const tune = strains.map((bars) => `|:${'CDEF|'.repeat(bars - 1)}GABc:|`).join('\n');
      const score = abc(`M:4/4\nL:1/4\nK:C\n${tune}\n`);
      const bars = strains.reduce((a, b) => a + b, 0);
      assert.equal(score.measures.length, bars);
      assert.equal(format(playedLength(score.measures)), String(8 * bars));
    }),
    { numRuns: 40 }
  );
});

test('a passage that is to be played a hundred times is capped, with a remark; so are repeats without end', () => {
  const score = xml(attributes() + bar + backward(' times="100"'), bar + backward(' times="3"'));
  assert.deepEqual(
    score.measures.map((m) => m.repeatEnd),
    [16, 3]
  );
  assert.equal(unfold(score.measures).length, 19);
  assert.deepEqual(
    score.remarks.map((r) => r.text),
    ['a passage is to be played 100 times; it is played 16 times here']
  );
});
