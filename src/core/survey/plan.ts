import { add, toNumber, ZERO } from '../score/fraction.ts';
import { barLabel } from '../score/position.ts';

import { groupingOf, isAdditive } from '../score/meter.ts';
import type { Measure, Score } from '../score/model.ts';
import { playedLength, unfold } from '../score/repeats.ts';
import { tempoInForce } from '../score/tempo.ts';
import { countingOf } from './counting.ts';
import { GroupBuilder, plural, tally, type SurveyGroup } from './line.ts';

const jump = (m: Measure): string[] => [
  ...(m.repeatStart ? ['repeat begins'] : []),
  ...(m.repeatEnd ? [m.repeatEnd > 2 ? `repeat, ${m.repeatEnd} times` : 'repeat ends'] : []),
  ...(m.endingStart ? [`ending ${m.endingStart.join(', ')}`] : []),
  ...(m.segno ? ['segno'] : []),
  ...(m.daCapo ? ['da capo'] : []),
  ...(m.dalSegno ? ['dal segno'] : []),
  ...(m.toCoda ? ['to coda'] : []),
  ...(m.coda ? ['coda'] : []),
  ...(m.fine ? ['fine'] : [])
];

/** Bars, length, meters and how they are counted, repeats and jumps, letters. */
export function plan(score: Score): SurveyGroup {
  const group = new GroupBuilder('Plan');
  const played = unfold(score.measures).length;
  group.add('Bars', `${score.measures.length} as written, ${played} as played`);
  const total = score.measures.reduce((sum, m) => add(sum, m.length), ZERO);
  group.add('Length', `${toNumber(total)} quarters as written, ${toNumber(playedLength(score.measures))} as played`);
  meters(score, group);
  const signs = score.measures.flatMap((m) => jump(m).map((text) => ({ text, bar: m.index })));
  for (const t of tally(
    signs,
    (s) => s.text,
    (s) => s.bar
  ))
    group.add('Repeats and jumps', t.count > 1 ? `${t.name}, ${t.count}×` : t.name, t.bars);
  for (const m of score.measures) if (m.rehearsal) group.add(`Letter ${m.rehearsal}`, `at bar ${m.number}`, [m.index]);
  return group.group;
}

function meters(score: Score, group: GroupBuilder): void {
  const starts = score.measures.filter((m, k) => k === 0 || m.time?.text !== score.measures[k - 1].time?.text);
  for (const t of tally(
    starts,
    (m) => m.time?.text ?? 'free meter',
    (m) => m.index
  )) {
    const measure = score.measures[t.bars[0]];
    const counting = countingOf(score, measure, tempoInForce(score, measure.start));
    group.add('Meter', counting ? `${t.name}: ${counting.text}` : t.name, t.bars);
    if (!isAdditive(measure)) continue;
    const groups = score.measures
      .filter((m) => m.time?.text === measure.time?.text)
      .map((m) => ({
        bar: m.index,
        groups: groupingOf(
          m,
          score.notes.filter((n) => n.measure === m.index)
        )
      }));
    for (const g of tally(
      groups,
      (x) => x.groups?.join('+') ?? null,
      (x) => x.bar
    ))
      group.add(`${t.name} grouped`, `${g.name}, in ${plural(g.count, 'bar')}`, g.bars);
  }
  const short = score.measures.filter((m) => m.time?.quarters && toNumber(m.length) < toNumber(m.time.quarters));
  if (short.length)
    group.add(
      'Short bars',
      short.map((m) => `${barLabel(score.measures, m)}: ${plural(toNumber(m.length), 'quarter')}`).join('; '),
      short.map((m) => m.index)
    );
}
