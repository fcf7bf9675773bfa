import { bullets, paragraph, span, type Inline, type RichBlock } from '../../reading/rich-text.ts';
import { barLabel, measureAt } from '../../score/position.ts';
import type { Edition } from './edition.ts';

/** More bars than these are told by their number only. */
const MOST_BARS = 12;

/** The questions on which good musicians differ, with the answer of this edition and the others that could be given. */
export function questionsText({ score, questions }: Edition): RichBlock[] {
  if (!questions.length) return [];
  return questions.flatMap((q): RichBlock[] => {
    const bars = [...new Set(q.places.map((t) => barLabel(score.measures, measureAt(score, t))))];
    const where = bars.length > MOST_BARS ? `${bars.length} bars` : bars.join(', ');
    const by = q.decidedOn ? `decided on ${q.decidedOn}` : q.option ? 'by the custom of the period, not decided' : 'open';
    return [
      paragraph([span(q.school.question, 'bold'), span(` (${where}; ${by})`)]),
      bullets(
        q.school.options.map((o): Inline[] =>
          o.value === q.option ? [span(`${o.label}: `, 'bold'), span(o.reason)] : [span(`Also: ${o.label}. `, 'italic'), span(o.reason)]
        )
      )
    ];
  });
}
