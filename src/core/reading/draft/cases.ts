import type { RuleContext } from '../context.ts';
import type { Proposal } from '../proposal.ts';
import { cmp, toNumber } from '../../score/fraction.ts';
import { measureAt } from '../../score/position.ts';
import { DRAFT, IMPORTANCE, OF_RETURNS } from '../../style/draft-weights.ts';

/** Proposals that are drafted together or not at all: a level and where it ends, a slowing and the tempo after it. */
export interface Case {
  proposals: readonly Proposal[];
  rule: string;
  part: number;
  /** Index of the phrase in which it begins. */
  phrase: number;
  /** What is won by it, per mark. */
  worth: number;
}

/** Measures whose music in a part has stood before, note for note. */
function comesAgain(c: RuleContext): Set<number> {
  const seen = new Set<string>();
  const again = new Set<number>();
  for (const m of c.score.measures) {
    const text = c.contentOf(m.index);
    if (text && seen.has(text)) again.add(m.index);
    seen.add(text);
  }
  return again;
}

/** The cases that a draft may choose from, of one part. */
export function casesOf(c: RuleContext, proposals: readonly Proposal[]): Case[] {
  const again = comesAgain(c);
  const groups = new Map<string, Proposal[]>();
  for (const p of proposals) {
    if (!(p.rule in IMPORTANCE)) continue;
    const name = p.group ?? p.key;
    groups.set(name, [...(groups.get(name) ?? []), p]);
  }
  const found = [...groups.values()].map((list) => {
    const [first] = list;
    const measure = measureAt(c.score, first.marking.start).index;
    const repeated = again.has(measure) && !OF_RETURNS.includes(first.rule) ? DRAFT.again : 1;
    // A long way is heard more than a short one.
    const { end, start, kind } = first.marking;
    const { least, quarter, most } = DRAFT.way;
    const way = kind === 'hairpin' && end ? Math.min(most, least + quarter * (toNumber(end) - toNumber(start))) : 1;
    return {
      proposals: list,
      rule: first.rule,
      part: c.part,
      phrase: c.facts.phrases.findLastIndex((p) => cmp(p.start, first.marking.start) <= 0),
      worth: first.strength * IMPORTANCE[first.rule] * repeated * way
    };
  });
  return wearingOff(found);
}

/** What a rule has said often says less each time, the strongest first. */
function wearingOff(cases: readonly Case[]): Case[] {
  const times = new Map<string, number>();
  return [...cases]
    .sort((a, b) => b.worth - a.worth)
    .map((c) => {
      const k = times.get(c.rule) ?? 0;
      times.set(c.rule, k + 1);
      return { ...c, worth: c.worth * DRAFT.decay ** k };
    });
}
