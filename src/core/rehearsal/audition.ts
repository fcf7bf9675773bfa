import { LISTENING, type ListeningKey } from '../style/practice.ts';
import type { Day } from './plan/day.ts';
import type { Plan } from './plan/plan.ts';

/** What was heard, asked by asked. */
export const MARKS = { yes: 'yes', partly: 'in part', no: 'no' } as const;
export type Mark = keyof typeof MARKS;

/** One take as a listener heard it, before the real one. Handbook 21.5. */
export interface Mock {
  /** Given by the window that made it, so that what is sent twice stands once. */
  id: string;
  plan: string;
  day: Day;
  /** Numbers of the pieces as they were drawn. */
  order: number[];
  /** Beats that each was taken at, in quarters a minute, by number of the piece; what was not taken is absent. */
  tempi: Record<number, number>;
  sheet: Partial<Record<ListeningKey, Mark>>;
  listener: string;
  words: string;
}

/** What is said of a take, without its name and its plan. */
export type MockContent = Omit<Mock, 'id' | 'plan'>;
export const mockContentOf = ({ id: _id, plan: _plan, ...content }: Mock): MockContent => content;

/** A small generator of numbers from 0 to 1 with a seed, so that a lot can be drawn again. Mulberry32, public domain. */
function numbers(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** The pieces in an order by lot: each order is as likely. @param seed any whole number */
export function drawn<T>(items: readonly T[], seed: number): T[] {
  const next = numbers(seed);
  const order = [...items];
  for (let k = order.length - 1; k > 0; k--) {
    const at = Math.floor(next() * (k + 1));
    [order[k], order[at]] = [order[at], order[k]];
  }
  return order;
}

/** What is said of a tempo against the one that was asked for; null where it fits, or nothing was asked. */
export function tempoRemark(asked: { low: number; high: number } | null, taken: number | undefined): string | null {
  if (!asked || taken === undefined) return null;
  const range = asked.low === asked.high ? `${asked.low}` : `${asked.low} to ${asked.high}`;
  if (taken < asked.low) return `${taken}: slower than the ${range} that are asked for`;
  return taken > asked.high ? `${taken}: quicker than the ${range} that are asked for` : null;
}

/** How a question of the sheet went over several takes, the first one first. */
export const overTakes = (mocks: readonly Mock[]): { key: ListeningKey; asks: string; marks: (Mark | null)[] }[] =>
  LISTENING.map(({ key, asks }) => ({ key, asks, marks: mocks.map((m) => m.sheet[key] ?? null) }));

/** A first strategy sentence from what is hardest in the plan: where to be sure rather than grand. The teacher writes the real one. */
export function strategyFor(plan: Plan): string {
  const spots = plan.tasks.filter((t) => t.kind === 'passage').sort((a, b) => b.difficulty - a.difficulty);
  const [hardest] = spots;
  if (!hardest) return '';
  const piece = plan.pieces.length > 1 ? ` of ${plan.pieces.find((p) => p.id === hardest.piece)?.title ?? 'it'}` : '';
  const easiest = spots.length > 1 ? ` Be grand where it is easy: it will be remembered.` : '';
  return `Be sure rather than grand in ${hardest.title.charAt(0).toLowerCase()}${hardest.title.slice(1)}${piece} (${hardest.because}): a tempo that never breaks there decides all of it.${easiest}`;
}
