import type { Score } from '../../score/model.ts';
import { DRAFT, ONCE } from '../../style/draft-weights.ts';
import type { Case } from './cases.ts';
import { fits } from './fits.ts';
import type { PartPage } from './part-page.ts';

/** How much may be printed: marks in all, and in a phrase of one part. */
export interface Budget {
  marks: number;
  ofPhrase(phrase: number): number;
}

interface Chosen {
  cases: Case[];
  worth: number;
  /** Cases for which there was room, but that did not fit what stood there. */
  refused: Case[];
}

/** A slowing with the tempo after it concerns all parts. */
const isOfAll = (c: Case): boolean => c.proposals.some((p) => p.marking.kind === 'tempo' || p.marking.kind === 'metronome');

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
    const trial = page.copy();
    const all = c.proposals.every((p) => {
      const fit = fits(p.marking, trial, score);
      if (fit) trial.take(p.marking);
      return fit;
    });
    if (!all) {
      chosen.refused.push(c);
      continue;
    }
    own.set(c.part, trial);
    // Words on time stand over all parts.
    if (isOfAll(c)) for (const [part, other] of own) if (part !== c.part) for (const p of c.proposals) other.signs.words.push(wordAt(p));
    said.add(spoken);
    inPhrase.set(phrase, used + size);
    left -= size;
    chosen.cases.push(c);
    chosen.worth += c.worth * size;
  }
  return chosen;
}

const wordAt = ({ marking }: Case['proposals'][number]): number => marking.start.n / marking.start.d;

/** Refused cases that are tried in the place of what stood in their way. */
const TRIES = 12;

/**
 * The cases that say most together within a budget: the weightiest first, then what was refused in the place of what stood in its
 * way, as long as the whole gains by it.
 */
export function choose(cases: readonly Case[], pages: readonly PartPage[], score: Score, budget: Budget): Case[] {
  const order = cases.filter((c) => c.worth >= DRAFT.floor).sort((a, b) => b.worth - a.worth);
  let best = taken(order, pages, score, budget);
  let front: Case[] = [];
  for (let k = 0; k < Math.min(TRIES, best.refused.length); k++) {
    const ahead = [...front, best.refused[k]];
    const other = taken([...ahead, ...order.filter((c) => !ahead.includes(c))], pages, score, budget);
    if (other.worth <= best.worth) continue;
    best = other;
    front = ahead;
    k = -1;
    if (front.length >= TRIES) break;
  }
  return best.cases;
}
