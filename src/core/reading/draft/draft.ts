import type { Study } from '../../analysis/study.ts';
import type { Marking } from '../../markings/marking.ts';
import { cmp, toNumber } from '../../score/fraction.ts';
import { DRAFT, type Amount } from '../../style/draft-weights.ts';
import { ruleContext, type RuleContext, type Style } from '../context.ts';
import type { Proposal } from '../proposal.ts';
import { propose } from '../propose.ts';
import { ruleById } from '../rules/index.ts';
import { casesOf, type Case } from './cases.ts';
import { choose, type Budget } from './choose.ts';
import { PartPage } from './part-page.ts';

/** A kept proposal: its key and the marking that it makes. */
export interface Drafted {
  key: string;
  marking: Marking;
}

/** What a draft starts from. */
export interface DraftOrder {
  amount: Amount;
  /** Parts that are edited; the others are context. */
  parts: readonly number[];
  /** Keys that have been kept or set aside already. */
  decided: ReadonlySet<string>;
  /** Markings that the reading has already. */
  standing: readonly Marking[];
}

/** A draft of a whole score, of which nothing has been decided yet. */
export const wholeScore = (study: Study, amount: Amount = 'usual'): DraftOrder => ({
  amount,
  parts: study.score.parts.map((p) => p.index),
  decided: new Set(),
  standing: []
});

/** Id of the marking that a kept proposal makes: the same each time, so that a draft taken twice changes nothing. */
export const draftId = (key: string): string => `mark-${key.replace(/[^\w]+/g, '-')}`;

/** Share of the tune that a part has, 0 to 1. */
function shareOfTune(c: RuleContext): number {
  return c.line.length ? c.line.filter((t) => c.hasTune(t)).length / c.line.length : 0;
}

/** Part of the notes from which on a part is said to have the tune. */
const HAS_TUNE = 0.5;

/** Rules that speak to a part that accompanies, too. */
const OF_ALL = /^(say-how-it-begins|say-how-a-section-begins|give-the-hairpin-a-goal|accompaniment-below|bring-out-the-lower-line)$/;

/** What accompanies is told how it begins; what is shaped there is the tune's. */
function speaksTo(c: RuleContext, p: Proposal): boolean {
  if (OF_ALL.test(p.rule)) return true;
  const to = p.marking.end ?? p.marking.start;
  const tones = c.line.filter((t) => cmp(t.note.start, p.marking.start) >= 0 && cmp(t.note.start, to) <= 0);
  return tones.filter((t) => c.hasTune(t)).length >= HAS_TUNE * Math.max(1, tones.length);
}

/** How many marks the score bears: by the bars in which something is played, the parts, the period, and what is printed already. */
function budgetOf(contexts: readonly RuleContext[], pages: readonly PartPage[], style: Style, amount: Amount): Budget {
  const { score, facts } = contexts[0];
  const bars = score.measures.length;
  const rate = DRAFT.rate[amount] * DRAFT.period[style.period];
  const density = pages.reduce((sum, p) => sum + p.density, 0) / pages.length;
  const room = DRAFT.saysMuch / (DRAFT.saysMuch + density);
  const all = Math.min(DRAFT.most, (rate + DRAFT.otherParts * (pages.length - 1)) * (DRAFT.rate[amount] / DRAFT.rate.usual)) * room;
  return {
    marks: Math.max(DRAFT.least, Math.round(all * bars)),
    ofPhrase: (k) => {
      const phrase = facts.phrases[k];
      const length = phrase ? (toNumber(phrase.end) - toNumber(phrase.start)) / Math.max(1, toNumber(score.measures[0].length)) : bars;
      return Math.max(2, Math.round(DRAFT.inAPhrase * rate * length));
    }
  };
}

/** Advice for the commentary: the strongest of each rule, once a piece, no more than can be read. */
function adviceOf(proposals: readonly Proposal[], bars: number): Proposal[] {
  const rules = new Set<string>();
  return [...proposals]
    .sort((a, b) => b.strength - a.strength)
    .filter((p) => !rules.has(p.rule) && rules.add(p.rule))
    .slice(0, Math.max(1, Math.round(DRAFT.advice * bars)));
}

/**
 * A first reading of a whole score: of all that its rules suggest, what says most within the marks that a page bears, each fitting
 * what is printed and what stands beside it.
 */
export function draft(study: Study, style: Style, order: DraftOrder): Drafted[] {
  const contexts = order.parts.map((part) => ruleContext(study, style, part)).filter((c) => c.line.length > 0);
  if (!contexts.length) return [];
  const pages = contexts.map((c) => PartPage.of(study.score, c.part));
  for (const m of order.standing) pages.find((p) => p.part === m.part)?.take(m);
  // Words on time stand once, over the part that has the tune.
  const leading = contexts.reduce((a, b) => (shareOfTune(b) > shareOfTune(a) ? b : a));
  const cases: Case[] = [];
  const advice: Proposal[] = [];
  for (const c of contexts) {
    const ofTime = (p: Proposal): boolean => p.marking.kind === 'tempo' || p.marking.kind === 'metronome';
    const open = propose(study, style, c.part)
      .filter((p) => !order.decided.has(p.key) && (c === leading || !ofTime(p)))
      .filter((p) => speaksTo(c, p));
    cases.push(
      ...casesOf(
        c,
        open.filter((p) => p.marking.kind !== 'advice')
      )
    );
    // Questions about the text are for the editor, not for the player.
    if (c === leading) advice.push(...open.filter((p) => p.marking.kind === 'advice' && ruleById(p.rule)?.area !== 'text'));
  }
  const chosen = choose(cases, pages, study.score, budgetOf(contexts, pages, style, order.amount)).flatMap((c) => c.proposals);
  return [...chosen, ...adviceOf(advice, study.score.measures.length)]
    .sort((a, b) => cmp(a.marking.start, b.marking.start))
    .map((p) => ({ key: p.key, marking: { ...p.marking, id: draftId(p.key) } }));
}
