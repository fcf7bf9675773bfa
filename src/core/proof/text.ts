import { isInWords } from '../markings/describe.ts';
import { alteredNotes } from '../score/accidentals.ts';
import { openQuestions, questionsOf } from '../reading/questions.ts';
import { cmp, lt } from '../score/fraction.ts';
import type { Note } from '../score/model.ts';
import { pitchName } from '../score/pitch.ts';
import { lookUp } from '../style/terms/lookup.ts';
import { missReason } from '../survey/ledger.ts';
import { declined, finding, type Check } from './finding.ts';

const suspectUnanswered: Check = (p) =>
  p.details.suspects
    .filter(
      (s) => !p.reading.markings.some((m) => m.note === s.note && isInWords(m)) && !declined(p, 'ask-about-the-suspect-note', s.start)
    )
    .map((s) =>
      finding('suspect note unanswered', 'question', s.start, s.evidence, 'Say in Structure that it is right, or note the other reading.')
    );

const breathInTheWrongPlace: Check = (p) => {
  const { line, slurred } = p.rules;
  const roles = new Map(p.details.roles.map((r) => [r.note, r.role]));
  return p.reading.markings.flatMap((m) => {
    if (m.kind !== 'breath' && m.kind !== 'comma') return [];
    const k = line.findIndex((t) => t.note.id === m.note);
    const [tone, next] = [line[k], line[k + 1]];
    if (!tone || !next) return [];
    const where = p.rules.place(m.start, true);
    if (tone.note.tie?.start)
      return [finding('tie cut', 'contradiction', m.start, `${where}: the ${m.kind} cuts a tie`, 'Move it behind the tied note.')];
    if (slurred(tone, next))
      return [
        finding(
          'breath inside a slur',
          'contradiction',
          m.start,
          `${where}: the ${m.kind} stands inside a printed slur`,
          'Move it to the end of the slur.'
        )
      ];
    if (['appoggiatura', 'suspension'].includes(roles.get(tone.note.id) ?? '') && Math.abs(next.midi - tone.midi) <= 2)
      return [
        finding(
          'breath before the resolution',
          'contradiction',
          m.start,
          `${where}: the ${m.kind} parts a dissonance from its resolution`,
          'Breathe after the resolution.'
        )
      ];
    if (tone.note.marks?.some((x) => x.name === 'trill-mark'))
      return [
        finding(
          'breath after a trill',
          'risk',
          m.start,
          `${where}: the ${m.kind} parts a trill from its ending`,
          'Breathe after the goal of the trill.'
        )
      ];
    return [];
  });
};

const tieCutByDot: Check = (p) =>
  p.reading.markings.flatMap((m) => {
    const tone = m.kind === 'articulation' && m.value.startsWith('staccat') ? p.rules.line.find((t) => t.note.id === m.note) : undefined;
    return tone?.note.tie?.start
      ? [
          finding(
            'tie cut',
            'contradiction',
            m.start,
            `${p.rules.place(m.start, true)}: a dot on a tied note`,
            'Take the dot away: the note sounds through its tie.'
          )
        ]
      : [];
  });

/** Kinds of markings that parallel places should share, unless a reason is given. */
const SHARED = ['dynamic', 'articulation', 'accent', 'slur', 'hairpin', 'breath', 'comma'];

const parallelsTreatedDifferently: Check = (p) => {
  const own = p.reading.markings.filter((m) => m.part === p.reading.part && SHARED.includes(m.kind) && m.note);
  return p.facts.parallels
    .filter((f) => f.semitones % 12 === 0)
    .flatMap((f) => {
      const partner = new Map(
        f.pairs.flatMap(([a, b]) => [
          [a, b],
          [b, a]
        ])
      );
      const lonely = own.find((m) => {
        const other = partner.get(m.note!);
        const reasoned = m.because.some((b) => !b.rule);
        return other && !reasoned && !own.some((o) => o.note === other && o.kind === m.kind && o.value === m.value);
      });
      return lonely
        ? [
            finding(
              'parallel places treated differently',
              'question',
              lonely.start,
              `${p.rules.place(f.a.start)} and ${p.rules.place(f.b.start)} are the same music, but only one is marked: ${lonely.kind === lonely.value ? lonely.kind : `${lonely.kind} ${lonely.value}`}`,
              'Mark both, or write down why they differ.'
            )
          ]
        : [];
    });
};

const carriedAccidental: Check = (p) => {
  const bars = new Map<string, Note[]>();
  for (const n of p.score.notes) {
    if (n.rest || n.cue || n.part !== p.reading.part) continue;
    const key = `${n.measure}|${n.staff}`;
    const bar = bars.get(key);
    if (bar) bar.push(n);
    else bars.set(key, [n]);
  }
  return alteredNotes(p.score)
    .filter((a) => a.note.part === p.reading.part && !a.printed && missReason(a, bars.get(`${a.note.measure}|${a.note.staff}`) ?? []))
    .filter(
      (a) =>
        !p.reading.markings.some((m) => m.note === a.note.id && isInWords(m)) &&
        !declined(p, 'remind-of-the-carried-accidental', a.note.start)
    )
    .map((a) =>
      finding(
        'carried accidental likely to be missed',
        'risk',
        a.note.start,
        `${p.rules.place(a.note.start)}: ${pitchName(a.note.pitch!)} depends on a sign far before it`,
        'Remind of it.'
      )
    );
};

const displacedTheme: Check = (p) =>
  p.details.rhythms
    .filter(
      (r) =>
        r.kind === 'displaced theme' &&
        !declined(p, 'mark-the-displaced-theme', r.start) &&
        !p.reading.markings.some((m) => cmp(m.start, r.start) >= 0 && lt(m.start, r.end) && (isInWords(m) || m.kind === 'accent'))
    )
    .map((r) =>
      finding(
        'displaced theme not marked',
        'risk',
        r.start,
        `${p.rules.place(r.start)}: ${r.evidence}`,
        'Mark the note that bears the accent now.'
      )
    );

const unknownTerms: Check = (p) =>
  p.score.directions.flatMap((d) => {
    if (d.kind !== 'words' || !/\p{L}{3}/u.test(d.text)) return [];
    const { terms, unknown } = lookUp(d.text);
    const told = p.reading.survey[`Terms/${d.text.replace(/\s+/g, ' ')}`]?.comment;
    return !terms.length && unknown.length && !told
      ? [
          finding(
            'term without effect',
            'question',
            d.start,
            `${p.rules.place(d.start)}: “${d.text}” is not in the dictionary`,
            'Say in the Survey what it means.'
          )
        ]
      : [];
  });

const openProposals: Check = (p) => {
  const open = p.proposals.filter((x) => !p.reading.decisions[x.key]);
  return open.length
    ? [
        finding(
          'proposals left open',
          'question',
          open[0].marking.start,
          `${open.length} ${open.length === 1 ? 'proposal is' : 'proposals are'} still open, the first in ${p.rules.place(open[0].marking.start)}`,
          'Keep, change or set aside each one, or draft a reading.'
        )
      ]
    : [];
};

const questionsLeftOpen: Check = (p) => {
  const open = openQuestions(questionsOf(p.rules, p.reading));
  const first = open[0]?.places[0];
  const later = open.filter((q) => q.postponedOn).length;
  return first
    ? [
        finding(
          'questions left open',
          'question',
          first,
          `${open.length} ${open.length === 1 ? 'question' : 'questions'} of school ${open.length === 1 ? 'stands' : 'stand'} as usual for the period, not decided for this piece${later ? ` (${later} put off)` : ''}: ${open
            .slice(0, 3)
            .map((q) => q.school.question.replace(/\?$/, '').toLowerCase())
            .join('; ')}`,
          'Decide them under Style and schools, or at their places.'
        )
      ]
    : [];
};

/** Checks of the text, of places that belong together, and of what is left undecided. */
export const TEXT_CHECKS: readonly Check[] = [
  suspectUnanswered,
  breathInTheWrongPlace,
  tieCutByDot,
  parallelsTreatedDifferently,
  carriedAccidental,
  displacedTheme,
  unknownTerms,
  openProposals,
  questionsLeftOpen
];
