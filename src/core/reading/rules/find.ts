import { distinct } from '../../distinct.ts';
import type { Tone } from '../../analysis/sounding-score.ts';
import { cmp, lte, type Fraction } from '../../score/fraction.ts';
import { tempoInForce } from '../../score/tempo.ts';
import { can } from '../../style/instruments/instrument.ts';
import { setsATempo } from '../../style/tempo-words.ts';
import type { TimeAct } from '../../style/terms/acts.ts';
import { timeActIn } from '../../style/terms/read-words.ts';
import type { RuleContext } from '../context.ts';
import type { ClaimName } from '../claims/claims.ts';
import type { Draft, Said } from './rule.ts';

/** The first note of the line at or after a moment. */
export const firstAt = (c: RuleContext, at: Fraction): Tone | null => c.firstAt(at);

/** The note of the line with an id. */
export const toneOf = (c: RuleContext, id: string): Tone | null => c.line.find((t) => t.note.id === id) ?? null;

/** A claim about notes of the line, made where the first of them begins. */
export function about(what: ClaimName, tones: Tone | readonly Tone[], rest: Partial<Said> = {}): Said {
  const list = 'note' in tones ? [tones] : tones;
  return { what, at: list[0].note.start, notes: list.map((t) => t.note.id), ...rest };
}

/** A claim about a moment. */
export const ofMoment = (what: ClaimName, at: Fraction, rest: Partial<Said> = {}): Said => ({ what, at, ...rest });

/** Short words of the field at a note, printed over the music. */
export const term = (value: string, at: Tone | Fraction, fact: Said, rest: Partial<Draft> = {}): Draft => ({
  kind: 'text',
  value,
  at,
  fact,
  ...rest
});

/** Advice at a note, with the fact that calls for it: it stands in the commentary. */
export const words = (value: string, at: Tone | Fraction, fact: Said, rest: Partial<Draft> = {}): Draft => ({
  kind: 'advice',
  value,
  at,
  fact,
  ...rest
});

/** True when printed words that match stand in a stretch of time. */
export const says = (c: RuleContext, pattern: RegExp, from: Fraction, to: Fraction): boolean =>
  c.score.directions.some((d) => d.kind === 'words' && pattern.test(d.text) && lte(from, d.start) && lte(d.start, to));

/** True when something printed in a stretch of time acts on it as asked; a number for the tempo restores it. */
export const actsOnTime = (c: RuleContext, asked: (act: TimeAct) => boolean, from: Fraction, to: Fraction): boolean =>
  c.score.directions.some((d) => {
    if (!lte(from, d.start) || !lte(d.start, to)) return false;
    const act =
      d.kind === 'words' ? (timeActIn(d.text) ?? (setsATempo(d.text) ? RESTORES : null)) : d.kind === 'metronome' ? RESTORES : null;
    return act !== null && asked(act);
  });

const RESTORES: TimeAct = { kind: 'restore' };

/** What parts two notes: a breath for who is blown or sung, else the bow or hand leaves early. */
export const parting = (c: RuleContext): { kind: 'breath' | 'comma'; value: string } =>
  can(c.instrument, 'breathes') ? { kind: 'breath', value: 'breath' } : { kind: 'comma', value: 'comma' };

export const hasMark = (t: Tone, name: RegExp): boolean => t.note.marks?.some((m) => name.test(m.name)) ?? false;

/** Length in quarters. */
export const quarters = (c: RuleContext, t: Tone): number => (t.end - t.start) / c.sounding.ticksPerQuarter;

/** Quarters a minute at a moment; null where the page gives none. */
export const tempoAt = (c: RuleContext, at: Fraction): number | null => tempoInForce(c.score, at);

/** The first of a list of places in each section, so that a general remark is made once and not everywhere. */
export function oncePerSection<T>(c: RuleContext, list: readonly T[], start: (item: T) => Fraction): T[] {
  return distinct(list, (item) => String(c.facts.sections.findLastIndex((s) => cmp(s.start, start(item)) <= 0)));
}

export const seconds = (c: RuleContext, t: Tone): number | null => {
  const tempo = tempoAt(c, t.note.start);
  return tempo ? (quarters(c, t) * 60) / tempo : null;
};
