import { capital, listed } from '../../sentences.ts';
import { tempoOfReading } from '../../reading/in-force.ts';
import { bullets, heading, paragraph, span, type Inline, type RichBlock, type RichText } from '../../reading/rich-text.ts';
import { toNumber } from '../../score/fraction.ts';
import { beatOfMeter } from '../../score/meter.ts';
import { barLabel, measureAt } from '../../score/position.ts';
import { keyAsRead } from '../../analysis/key-words.ts';
import { clock } from '../../score/tempo.ts';
import { shortNames, type SourceKey } from '../../style/bibliography.ts';
import { danceOf } from '../../style/dances.ts';
import { PROFILES } from '../../style/profiles.ts';
import type { School, SchoolKey } from '../../style/schools.ts';
import { schoolClause } from '../../style/schools-prose.ts';
import { care } from '../../survey/care.ts';
import { cautions } from '../../survey/cautions.ts';
import { range } from '../../survey/range.ts';
import { suggestedTempo, tempi } from '../../survey/tempo.ts';
import { beatName } from './beat-name.ts';
import type { Edition } from './edition.ts';

/** Lines on technique in a drafted preface; the survey has them all. */
const MOST_TECHNIQUE = 6;

const sentence = (text: string): string => (/[.!?]$/.test(text) ? text : `${text}.`);
const cited = (keys: readonly SourceKey[]): string => {
  const named = shortNames(keys.filter((k) => k !== 'common'));
  return named.length ? ` (${named.join('; ')})` : '';
};

/** The piece in numbers: bars, meters, keys, form and phrases. */
function thePiece({ score, facts, reading, title, composer, instrument }: Edition): RichBlock[] {
  const keys = new Set(facts.keys.map((k) => keyAsRead(k, score.parts[reading.part].transpose)));
  const [first, ...others] = keys;
  const meters = [...new Set(score.measures.map((m) => m.time?.text ?? 'free meter'))];
  const sections = facts.sections.map((s) => `${s.label} (${barLabel(score.measures, measureAt(score, s.start))})`).join(', ');
  const dates = reading.composer?.dates;
  const by = composer ? ` by ${composer}${dates && !composer.includes(dates) ? ` (${dates})` : ''}` : '';
  const lines = [
    `${title}${by}${instrument ? `, for ${instrument}` : ''}: ${score.measures.length} bars in ${meters.join(', ')}${first ? `. It begins in ${first}` : ''}${others.length ? ` and goes through ${others.join(', ')}` : ''}.`,
    `${facts.form ? `Form: ${facts.form}. ` : ''}It divides into ${facts.phrases.length} phrase${facts.phrases.length === 1 ? '' : 's'}${facts.sections.length > 1 ? ` and the sections ${sections}` : ''}.`
  ];
  return lines.map((l) => paragraph(l));
}

/** The tempo with its arithmetic: what the page and its words say, what was decided, how long it lasts. */
function tempoDecision({ score, reading, performance }: Edition): RichBlock[] {
  const lines: (string | Inline[])[] = tempi(score)
    .lines.filter((l) => l.label !== 'Tempo')
    .map((l) => `${l.label}: ${l.value}.`);
  const first = score.measures[0];
  const { beat } = beatOfMeter(first);
  const perMinute = tempoOfReading(score, reading.markings, first.start);
  const own = reading.markings.filter((m) => m.kind === 'metronome');
  if (reading.requested) lines.push(`Asked for: ${reading.requested.low} to ${reading.requested.high} beats a minute.`);
  for (const m of own)
    lines.push(`Decided at ${barLabel(score.measures, measureAt(score, m.start))}: ${m.value}. ${m.because.map((b) => b.text).join(' ')}`);
  const quarters = performance.bars.reduce((sum, b) => sum + b.quarters, 0);
  const tempo = perMinute ?? suggestedTempo(score)?.low ?? null;
  if (tempo) {
    const beats = quarters / toNumber(beat);
    lines.push([
      span('The arithmetic: ', 'italic'),
      span(
        `${performance.bars.length} bars as played are ${Number(beats.toFixed(2))} ${beatName(beat)} beats; at ${Math.round(tempo / toNumber(beat))} a minute the first tempo alone would make ${Number(beats.toFixed(2))} × 60 ÷ ${Math.round(tempo / toNumber(beat))} = ${clock((quarters * 60) / tempo)}. To the letter, with every mark, it lasts ${clock(performance.literalLength)}; as planned ${clock(performance.length)}.`
      )
    ]);
  }
  return lines.length ? [bullets(lines)] : [paragraph('No tempo is given, and none has been decided yet.')];
}

/** The questions of school that were answered, with the reason of the answer; what the period's custom settles comes in one line. */
function schools({ questions }: Edition): RichBlock[] {
  const decided = questions.filter((q) => q.decidedOn || q.local.length);
  const label = (school: School, value: string | null) => school.options.find((o) => o.value === value);
  const items = decided.map((q): Inline[] => {
    const option = label(q.school, q.option);
    const local = q.local.length ? ` Otherwise in ${q.local.length} place${q.local.length === 1 ? '' : 's'}.` : '';
    return [
      span(`${capital(schoolClause(q.school.key as SchoolKey, q.option ?? '', option?.label ?? q.option ?? ''))}. `, 'italic'),
      span(`${option?.reason ?? ''}${cited(option?.sources ?? [])}${local}`)
    ];
  });
  const usual = questions
    .filter((q) => !q.decidedOn && !q.local.length && q.option)
    .map((q) => schoolClause(q.school.key as SchoolKey, q.option!, label(q.school, q.option)?.label ?? q.option!));
  return [
    ...(items.length ? [bullets(items)] : []),
    ...(usual.length ? [paragraph(`By the custom of the period ${listed(usual, ';')}.`)] : [])
  ];
}

/** What the teacher marked in the survey for the preface. */
function fromSurvey({ reading }: Edition): RichBlock[] {
  return Object.entries(reading.survey).flatMap(([id, note]) =>
    note.preface ? [paragraph(sentence(note.text ?? `${id.split('/').slice(1).join('/')}: ${note.comment ?? ''}`))] : []
  );
}

/** What is known of the composer's own practice, with its source. */
const composerPractice = ({ reading: { composer } }: Edition): RichBlock[] =>
  composer?.practice ? [paragraph(`${sentence(composer.practice)}${composer.source ? ` (${composer.source})` : ''}`)] : [];

/** The preface as it can be drafted from what is known; the legend follows it by itself. */
export function draftPreface(edition: Edition): RichText {
  const { score, reading, source, collations, title } = edition;
  const profile = PROFILES[reading.period];
  const dance = danceOf(title);
  const safety = cautions(score, reading.instruments).lines.map((l) => `${l.label}: ${sentence(l.value)}`);
  const character = reading.markings
    .filter((m) => m.kind === 'text' && m.because.some((b) => b.rule?.includes('character')))
    .map((m) => m.value);
  // Range and rhythms that need care, as the survey has them.
  const technique = [...range(score, reading.instruments).lines.filter((l) => !/, (highest|lowest)$/.test(l.label)), ...care(score).lines]
    .slice(0, MOST_TECHNIQUE)
    .map((l) => `${l.label}: ${sentence(l.value)}`);
  const notes = fromSurvey(edition);
  return {
    type: 'doc',
    content: [
      heading('The piece'),
      ...thePiece(edition),
      ...notes,
      heading('Style'),
      paragraph(`This reading is ${profile.name.toLowerCase()} in style. ${profile.summary}`),
      ...(dance ? [paragraph(`${dance.name}: ${dance.character}${cited(dance.sources)}.`)] : []),
      ...composerPractice(edition),
      ...(character.length ? [paragraph(`Character: ${[...new Set(character)].join(', ')}.`)] : []),
      ...schools(edition),
      heading('Tempo'),
      ...tempoDecision(edition),
      heading('Sources'),
      paragraph(
        collations.length
          ? `The pages follow “${source}”. Compared with it: ${collations.map((c) => `“${c.name}” (${c.differences.length} difference${c.differences.length === 1 ? '' : 's'})`).join(', ')}. The critical report says what was decided where they differ.`
          : `“${source}”. Everything printed in it stands here unchanged; what is editorial is marked as such.`
      ),
      ...(technique.length ? [heading('Technique'), bullets(technique)] : []),
      heading('Care'),
      bullets(safety)
    ]
  };
}

/** The preface of an edition: the instructor's own, or the drafted one. */
export const preface = (edition: Edition): RichText => edition.reading.preface ?? draftPreface(edition);
