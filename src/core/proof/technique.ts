import type { Study } from '../analysis/study.ts';
import type { Reading } from '../reading/reading.ts';
import { ruleContext } from '../reading/context.ts';
import { styleOf } from '../reading/reading.ts';
import type { HowItLies } from '../technique/told/lying.ts';
import { finding, type Finding } from './finding.ts';

/** Findings of one kind that are told, at most: where a whole piece does not lie, once is enough. */
const MOST = 12;

/** What does not lie on the instrument, as findings of the proof. */
export function techniqueFindings(study: Study, reading: Reading, { findings, instrument }: HowItLies): Finding[] {
  const { place } = ruleContext(study, styleOf(reading), reading.part);
  return findings
    .slice(0, MOST)
    .map((f) =>
      finding(
        `how it lies on the ${instrument}`,
        f.what.endsWith('?') ? 'question' : 'risk',
        f.start,
        `${place(f.start, true)}: ${f.what.charAt(0).toLowerCase()}${f.what.slice(1).replace(/\.$/, '')}`,
        'Decide it at the note in Reading, or accept it with a reason.'
      )
    );
}
