import { capital } from '../../sentences.ts';
import type { Marking } from '../../markings/marking.ts';
import { dynamicPlan, levelName } from '../../reading/dynamic-plan.ts';
import { bullets, heading, paragraph, span, type RichBlock } from '../../reading/rich-text.ts';
import { tempoOfReading } from '../../reading/in-force.ts';
import { cmp, toNumber } from '../../score/fraction.ts';
import { beatOfMeter } from '../../score/meter.ts';
import { barLabel, measureAt } from '../../score/position.ts';
import { clock } from '../../score/tempo.ts';
import { effectByKey } from '../../style/effects.ts';
import { beatName } from './beat-name.ts';
import { inWords } from '../../markings/describe.ts';
import { LIMITS } from '../../style/limits.ts';
import type { Edition } from './edition.ts';

/** Lines that a player can keep in mind; common practice. */

/** Of them, words to the player at most; seconds that a bar must take to be worth a line. Set by hand. */
const MOST_REMARKS = 2;
const WORTH_A_LINE_S = 0.1;

/** What is to be remembered, drafted: words to the player first, then the peak, the broadest bar, the first breath and the ending. */
export function draftCard(edition: Edition): string[] {
  const { score, reading, performance } = edition;
  const bar = (m: Pick<Marking, 'start'>): string => barLabel(score.measures, measureAt(score, m.start));
  const lines: string[] = [];
  const markings = [...reading.markings].sort((a, b) => cmp(a.start, b.start));
  for (const m of markings) if (m.remark && lines.length < MOST_REMARKS) lines.push(`${bar(m)}: ${m.remark}`);
  const { peak } = dynamicPlan(score, edition.facts, reading);
  lines.push(`${barLabel(score.measures, score.measures[peak.measure])} is the peak (${levelName(peak.level)}): keep something for it.`);
  const broad = [...performance.bars].sort((a, b) => b.planned - b.literal - (a.planned - a.literal))[0];
  if (broad && broad.planned - broad.literal > WORTH_A_LINE_S) {
    const most = [...broad.shares].sort((a, b) => b.amount - a.amount)[0];
    lines.push(
      `${barLabel(score.measures, score.measures[broad.measure])} takes most time: ${(broad.planned - broad.literal).toFixed(1)} s${most ? ` (${effectByKey(most.effect)?.name ?? most.effect})` : ''}.`
    );
  }
  const own = markings.filter((m) => m.because.some((b) => !b.rule) && !m.remark);
  for (const m of own)
    if (lines.length < LIMITS.toRemember) lines.push(`${bar(m)}: ${inWords(m)}. ${m.because.find((b) => !b.rule)?.text ?? ''}`.trim());
  const end = markings.findLast((m) => m.kind === 'hairpin' || m.kind === 'tempo' || m.kind === 'dynamic');
  if (end && lines.length < LIMITS.toRemember) lines.push(`At the end, ${bar(end)}: ${inWords(end)}.`);
  return lines.slice(0, LIMITS.toRemember).map(capital);
}

/** One page for the stand: form, tempo, peak, breaths, and what is to be remembered. */
export function cardText(edition: Edition): RichBlock[] {
  const { score, facts, reading, performance } = edition;
  const bar = (t: Marking['start']): string => barLabel(score.measures, measureAt(score, t));
  const first = score.measures[0];
  const { beat } = beatOfMeter(first);
  const tempo = tempoOfReading(score, reading.markings, first.start);
  const { peak, softest } = dynamicPlan(score, facts, reading);
  const breaths = [
    ...new Set(
      reading.markings
        .filter((m) => m.kind === 'breath')
        .sort((a, b) => cmp(a.start, b.start))
        .map((m) => bar(m.start))
    )
  ];
  const form = facts.sections.map((s) => `${s.label} from ${bar(s.start)} (${s.opens}${s.closes === s.opens ? '' : ` to ${s.closes}`})`);
  return [
    heading('Form'),
    bullets(form.length ? form : [`${score.measures.length} bars in one`]),
    heading('Tempo'),
    paragraph(
      `${tempo ? `${beatName(beat)} = ${Math.round(tempo / toNumber(beat))}` : 'none given'}; ${clock(performance.length)} as planned.`
    ),
    heading('Loudness'),
    paragraph([
      span('Peak: ', 'bold'),
      span(`${barLabel(score.measures, score.measures[peak.measure])}, ${levelName(peak.level)}. `),
      span('Softest: ', 'bold'),
      span(`${levelName(softest)}.`)
    ]),
    ...(breaths.length ? [heading('Breaths'), paragraph(`After ${breaths.join(', ')}.`)] : []),
    heading('To remember'),
    { type: 'orderedList', content: (reading.card ?? draftCard(edition)).map((l) => ({ type: 'listItem', content: [paragraph(l)] })) }
  ];
}
