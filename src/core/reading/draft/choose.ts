import type { Marking } from '../../markings/marking.ts';
import { toNumber } from '../../score/fraction.ts';
import type { Score } from '../../score/model.ts';
import { DRAFT, ONCE } from '../../style/draft-weights.ts';
import type { Case } from './cases.ts';
import { fits } from './fits.ts';
import type { PartPage } from './part-page.ts';

/** How much may be printed: marks in all, and in a phrase of one part. */
export interface Budget {
  marks: number;
  /** Worth under which nothing is printed. */
  floor: number;
  ofPhrase(phrase: number): number;
}

interface Chosen {
  cases: Case[];
  worth: number;
  /** Cases for which there was room, but that did not fit what stood there. */
  refused: Case[];
}

/** What is said of time concerns all parts. */
export const isOfAll = ({ kind }: Pick<Marking, 'kind'>): boolean => kind === 'tempo' || kind === 'metronome';

/** The page with a case on it; null where one of its marks does not fit. Only a case of several is tried on a copy. */
function withCase(page: PartPage, { proposals }: Case, score: Score): PartPage | null {
  const tried = proposals.length > 1 ? page.copy() : page;
  for (const { marking } of proposals) {
    if (!fits(marking, tried, score)) return null;
    tried.take(marking);
  }
  return tried;
}

/** Takes cases in the given order, each that fits the page, the budget and what its rule has said already. */
function taken(cases: readonly Case[], pages: readonly PartPage[], score: Score, budget: Budget): Chosen {
  const own = new Map(pages.map((p) => [p.part, p.copy()]));
  const chosen: Chosen = { cases: [], worth: 0, refused: [] };
  const said = new Set<string>();
  const inPhrase = new Map<string, number>();
  let left = budget.marks;
  for (const c of cases) {
    const size = c.proposals.length;
    const page = own.get(c.part);
    if (!page || size > left) continue;
    // One reason speaks once a phrase, and some once a piece.
    const spoken = ONCE.includes(c.rule) ? `${c.rule} ${c.part}` : `${c.rule} ${c.part} ${c.phrase}`;
    const phrase = `${c.part} ${c.phrase}`;
    if (said.has(spoken)) continue;
    const used = inPhrase.get(phrase) ?? 0;
    if (used + size > Math.max(size, budget.ofPhrase(c.phrase)) && used > 0) continue;
    const taken = withCase(page, c, score);
    if (!taken) {
      chosen.refused.push(c);
      continue;
    }
    own.set(c.part, taken);
    // Words on time stand over all parts.
    for (const { marking } of c.proposals)
      if (isOfAll(marking)) for (const [part, other] of own) if (part !== c.part) other.signs.words.push(toNumber(marking.start));
    said.add(spoken);
    inPhrase.set(phrase, used + size);
    left -= size;
    chosen.cases.push(c);
    chosen.worth += c.worth * size;
  }
  return chosen;
}

/**
 * The cases that say most together within a budget: the weightiest first, then what was refused in the place of what stood in its
 * way, as long as the whole gains by it.
 */
export function choose(cases: readonly Case[], pages: readonly PartPage[], score: Score, budget: Budget): Case[] {
  const order = cases.filter((c) => c.worth >= budget.floor).sort((a, b) => b.worth - a.worth);
  let best = taken(order, pages, score, budget);
  let front: Case[] = [];
  for (let k = 0; k < Math.min(DRAFT.tries, best.refused.length); k++) {
    const ahead = [...front, best.refused[k]];
    const other = taken([...ahead, ...order.filter((c) => !ahead.includes(c))], pages, score, budget);
    if (other.worth <= best.worth) continue;
    best = other;
    front = ahead;
    k = -1;
    if (front.length >= DRAFT.tries) break;
  }
  return best.cases;
}
