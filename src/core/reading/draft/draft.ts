import type { Study } from '../../analysis/study.ts';
import { isPrinted } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { cmp, toNumber, type Fraction } from '../../score/fraction.ts';
import type { Score } from '../../score/model.ts';
import { AS_BEFORE, DRAFT, FOR_EVERY_PART, type Amount } from '../../style/draft-weights.ts';
import { ruleContext, type RuleContext, type Style } from '../context.ts';
import type { Proposal } from '../proposal.ts';
import { proposeIn } from '../propose.ts';
import { ruleById } from '../rules/index.ts';
import { casesOf } from './cases.ts';
import { choose, isOfAll, type Budget } from './choose.ts';
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

/** What accompanies is told how it begins; what is shaped there is the tune's. */
function speaksTo(c: RuleContext, { rule, marking: { start, end } }: Proposal): boolean {
  if (FOR_EVERY_PART.includes(rule)) return true;
  const last = c.firstAt(end ?? start);
  const tones = c.between(start, end ?? start);
  if (last && cmp(last.note.start, end ?? start) === 0) tones.push(last);
  return tones.filter((t) => c.hasTune(t)).length >= DRAFT.hasTune * Math.max(1, tones.length);
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
    floor: DRAFT.floor[amount],
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

/** The first time of what comes again has more marks than the second: they are meant for both. */
function isMarkedOnce(c: RuleContext, { marking }: Proposal, chosen: readonly Proposal[]): boolean {
  const { claim } = marking.because[0];
  if (!claim?.beside) return false;
  const marks = (from: Fraction): number => {
    const first = c.bar(from).index;
    return chosen.filter(({ marking: m }) => {
      const { index } = c.bar(m.start);
      return m.part === c.part && index >= first && index < first + (claim.count ?? 1);
    }).length;
  };
  return marks(claim.beside) > marks(claim.at);
}

/** Everything about a score that drafts are chosen from, and that no choice changes. */
export interface DraftGround {
  score: Score;
  contexts: readonly RuleContext[];
  pages: readonly PartPage[];
  /** What the rules suggest to each part. */
  proposals: readonly Proposal[][];
  style: Style;
  /** Index of the part that has the tune: words on time and advice stand by it. */
  leading: number;
}

export function draftGround(study: Study, style: Style, parts: readonly number[]): DraftGround {
  const contexts = parts.map((part) => ruleContext(study, style, part)).filter((c) => c.line.length > 0 || c.strokes.length > 0);
  const shares = contexts.map(shareOfTune);
  const leading = shares.indexOf(Math.max(...shares));
  const proposals = contexts.map((c, k) => proposeIn(c, style).filter((p) => speaksTo(c, p) && (k === leading || !isOfAll(p.marking))));
  return { score: study.score, contexts, pages: contexts.map((c) => PartPage.of(study.score, c.part)), proposals, style, leading };
}

/** The choice of one draft on a ground. */
export function draftOn({ score, contexts, pages, proposals, style, leading }: DraftGround, order: Omit<DraftOrder, 'parts'>): Drafted[] {
  if (!contexts.length) return [];
  const open = proposals.map((list) => list.filter((p) => !order.decided.has(p.key)));
  const own = pages.map((page) => page.copy());
  for (const m of order.standing) own.find((p) => p.part === m.part)?.take(m);
  const cases = contexts.flatMap((c, k) =>
    casesOf(
      c,
      open[k].filter((p) => isPrinted(p.marking))
    )
  );
  const chosen = choose(cases, own, score, budgetOf(contexts, pages, style, order.amount)).flatMap((c) => c.proposals);
  // Questions about the text are for the editor, not for the player.
  const advice = open[leading].filter((p) => !isPrinted(p.marking) && ruleById(p.rule)?.area !== 'text' && p.rule !== AS_BEFORE);
  const again = contexts.flatMap((c, k) => open[k].filter((p) => p.rule === AS_BEFORE && isMarkedOnce(c, p, chosen)));
  return [...chosen, ...again, ...adviceOf(advice, score.measures.length)]
    .sort((a, b) => cmp(a.marking.start, b.marking.start))
    .map((p) => ({ key: p.key, marking: { ...p.marking, id: draftId(p.key) } }));
}

/**
 * A first reading of a whole score: of all that its rules suggest, what says most within the marks that a page bears, each fitting
 * what is printed and what stands beside it.
 */
export const draft = (study: Study, style: Style, order: DraftOrder): Drafted[] => draftOn(draftGround(study, style, order.parts), order);
