import { levelAt, type Tone } from '../analysis/sounding-score.ts';
import type { Study } from '../analysis/study.ts';
import { cmp, toNumber, type Fraction } from '../score/fraction.ts';
import { can } from '../style/instruments/instrument.ts';
import { PROFILES } from '../style/profiles.ts';
import { SCHOOLS, type LocalAnswer, type School, type SchoolKey } from '../style/schools.ts';
import type { Reading } from './reading.ts';
import type { RuleContext, Style } from './context.ts';
import type { Proposal } from './proposal.ts';
import { propose } from './propose.ts';

/** A question of school as it stands for one piece. */
export interface Question {
  key: SchoolKey;
  school: School;
  /** Moments at which the answer makes a difference, in order; a question for the whole has its first note only. */
  places: Fraction[];
  /** The answer in force for the whole piece, and whether the instructor gave it. */
  option: string | null;
  decidedOn: string | null;
  postponedOn: string | null;
  local: LocalAnswer[];
}

const marked = (c: RuleContext, name: RegExp): Tone[] => c.line.filter((t) => t.note.marks?.some((m) => name.test(m.name)));
const starts = (tones: readonly Tone[]): Fraction[] => tones.map((t) => t.note.start);
const quarters = (c: RuleContext, t: Tone): number => (t.end - t.start) / c.sounding.ticksPerQuarter;
const always = (c: RuleContext): Fraction[] => starts(c.line.slice(0, 1));
const chords = (c: RuleContext): Fraction[] => c.score.notes.filter((n) => n.part === c.part && n.chord && !n.grace).map((n) => n.start);

/** Where each question matters. */
const WHERE: Record<SchoolKey, (c: RuleContext) => Fraction[]> = {
  text: always,
  tempo: always,
  rubato: always,
  plan: always,
  repeats: (c) => c.score.measures.filter((m) => m.repeatEnd).map((m) => m.start),
  'third-time': (c) => c.details.gestures.filter((g) => g.kind === 'three times').map((g) => g.start),
  return: (c) =>
    c.facts.sections
      .filter((s, k) => c.facts.sections.slice(0, Math.max(0, k - 1)).some((o) => o.label.replace(/'/g, '') === s.label.replace(/'/g, '')))
      .map((s) => s.start),
  'trill-start': (c) => starts(marked(c, /^trill-mark$|^inverted-mordent$/)),
  appoggiatura: (c) => c.score.notes.filter((n) => n.grace && n.part === c.part && !n.cue).map((n) => n.start),
  touch: (c) =>
    starts(
      c.line.filter(
        (t, k) =>
          !t.note.marks?.length &&
          quarters(c, t) <= 1 &&
          !(c.line[k + 1] && c.slurred(t, c.line[k + 1])) &&
          !(k > 0 && c.slurred(c.line[k - 1], t))
      )
    ),
  staccato: (c) => starts(marked(c, /^staccato$/)),
  'slur-pairs': (c) =>
    starts(
      c.line.filter(
        (t, k) =>
          c.line[k + 1] &&
          c.slurred(t, c.line[k + 1]) &&
          !(k > 0 && c.slurred(c.line[k - 1], t)) &&
          !(c.line[k + 2] && c.slurred(c.line[k + 1], c.line[k + 2]))
      )
    ),
  'short-notes': (c) =>
    starts(c.line.filter((t, k) => quarters(c, t) <= 0.25 && k > 0 && c.line[k - 1].end - c.line[k - 1].start >= 2 * (t.end - t.start))),
  dotting: (c) => starts(c.line.filter((t, k) => t.note.dots === 1 && c.line[k + 1] && quarters(c, t) === 3 * quarters(c, c.line[k + 1]))),
  inegales: (c) =>
    starts(
      c.line.filter(
        (t, k) =>
          quarters(c, t) <= 0.5 &&
          levelAt(c.sounding, t.start) >= 1 &&
          [1, 2, 3].every((n) => c.line[k + n] && quarters(c, c.line[k + n]) === quarters(c, t))
      )
    ),
  sforzando: (c) =>
    c.score.directions.flatMap((d) =>
      d.kind === 'dynamic' && d.part === c.part && /^(sf|sfz|fz|rf|rfz|sffz)$/.test(d.value) ? [d.start] : []
    ),
  'chord-break': chords,
  'chord-release': chords,
  bowing: (c) => c.facts.phrases.map((p) => p.start),
  'suspect-notes': (c) => c.details.suspects.map((s) => s.start),
  joins: (c) => c.facts.sections.slice(1).map((s) => s.start),
  'pipe-movements': (c) => c.score.notes.filter((n) => n.grace && n.part === c.part).map((n) => n.start),
  'pipe-placing': (c) => c.score.notes.filter((n) => n.grace && n.part === c.part).map((n) => n.start),
  swing: (c) => starts(c.line.filter((t) => quarters(c, t) === 0.5))
};

/** Where each question of the period matters in this piece; questions without a place are left out. */
export interface QuestionPlaces {
  key: SchoolKey;
  /** In order of time. */
  places: Fraction[];
}

export const questionPlaces = (c: RuleContext): QuestionPlaces[] =>
  (SCHOOLS as readonly School[])
    .filter(({ needs }) => !needs || can(c.instrument, ...needs))
    .map((school) => school.key as SchoolKey)
    .filter((key) => key in c.profile.schools || key in c.schools)
    .map((key) => ({ key, places: WHERE[key](c).sort(cmp) }))
    .filter(({ places }) => places.length > 0);

/** The questions as a reading has answered them so far. */
export function questionsFrom(where: readonly QuestionPlaces[], reading: Reading): Question[] {
  const usual = PROFILES[reading.period].schools;
  return where.map(({ key, places }) => ({
    key,
    school: (SCHOOLS as readonly School[]).find((s) => s.key === key)!,
    places,
    option: reading.schools[key]?.option ?? usual[key] ?? null,
    decidedOn: reading.schools[key]?.on ?? null,
    postponedOn: reading.postponed[key] ?? null,
    local: reading.localAnswers.filter((a) => a.key === key)
  }));
}

/** The questions that this piece puts in its style, each with the places where the answer makes a difference. */
export const questionsOf = (c: RuleContext, reading: Reading): Question[] => questionsFrom(questionPlaces(c), reading);

/** Questions that nobody has decided for this piece: the profile's usual answer stands, and may not be meant. */
export const openQuestions = (questions: readonly Question[]): Question[] => questions.filter((q) => !q.decidedOn && !q.local.length);

/** What one answer would change on the page, against the answers in force. */
export interface Effect {
  option: string;
  added: Proposal[];
  gone: Proposal[];
}

/** What each answer to a question would change, for the whole piece or from one moment to another. */
export function effectsOf(
  study: Study,
  style: Style,
  key: SchoolKey,
  part = 0,
  range: { from: Fraction; to: Fraction } | null = null
): Effect[] {
  const now = propose(study, style, part);
  const says = (p: Proposal): string => `${p.key}|${p.marking.value}`;
  const before = new Set(now.map(says));
  const school = (SCHOOLS as readonly School[]).find((s) => s.key === key)!;
  return school.options.map(({ value }) => {
    const changed: Style = range
      ? { ...style, local: [...(style.local ?? []), { key, option: value, on: '', ...range }] }
      : { ...style, schools: { ...style.schools, [key]: value } };
    const then = propose(study, changed, part);
    const after = new Set(then.map(says));
    return { option: value, added: then.filter((p) => !before.has(says(p))), gone: now.filter((p) => !after.has(says(p))) };
  });
}

/** The places of a question that lie in [from, to). */
export const placesWithin = (q: Question, from: Fraction, to: Fraction): Fraction[] =>
  q.places.filter((t) => toNumber(t) >= toNumber(from) && toNumber(t) < toNumber(to));
