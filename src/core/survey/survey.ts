import type { Facts } from '../analysis/facts.ts';
import type { Score } from '../score/model.ts';
import type { InstrumentChoices } from '../style/instruments/instrument-of.ts';
import { care } from './care.ts';
import { cautions } from './cautions.ts';
import { identity } from './identity.ts';
import { ledger } from './ledger.ts';
import { GroupBuilder, type SurveyGroup } from './line.ts';
import { loudness } from './loudness.ts';
import { plan } from './plan.ts';
import { printedSigns } from './printed-signs.ts';
import { range } from './range.ts';
import { tempi } from './tempo.ts';
import { unusual } from './unusual.ts';
import { values } from './values.ts';
import { terms } from './words.ts';

export type { SurveyGroup, SurveyLine } from './line.ts';

export interface Survey {
  groups: SurveyGroup[];
}

/** What was repaired, and what was kept but not understood, when the file was read. */
function readingReport(score: Score): SurveyGroup {
  const group = new GroupBuilder('Reading report');
  const kept = score.remarks.filter((r) => r.kind === 'not-understood');
  if (kept.length)
    group.add(
      'Kept but not understood',
      `${kept.length} ${kept.length === 1 ? 'thing was' : 'things were'} kept but not understood: ${kept.map((r) => r.text).join(', ')}`,
      kept.flatMap((r) => (r.measure === undefined ? [] : [r.measure]))
    );
  for (const r of score.remarks)
    if (r.kind === 'repaired')
      group.add('Read all the same', `${r.text}${r.count > 1 ? `, ${r.count}×` : ''}`, r.measure === undefined ? [] : [r.measure]);
  return group.group;
}

/**
 * The first look at a score: everything counted, translated, explained and located.
 * @param instruments the teacher's corrections of what the parts are played on
 */
export function survey(score: Score, facts: Facts, instruments: InstrumentChoices = {}): Survey {
  const groups = [
    identity(score, facts, instruments),
    plan(score),
    tempi(score),
    unusual(score),
    terms(score),
    loudness(score),
    range(score, instruments),
    values(score),
    care(score),
    ...printedSigns(score),
    ledger(score),
    cautions(score, instruments),
    readingReport(score)
  ];
  return { groups: groups.filter((g) => g.lines.length) };
}
