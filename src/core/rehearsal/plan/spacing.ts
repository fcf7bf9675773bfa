import { createEmptyCard, fsrs, Rating, type Card, type FSRS, type Grade } from 'ts-fsrs';
import { PRACTICE as W } from '../../style/practice.ts';
import type { Day } from './day.ts';
import { feltAt, type Felt, type Visit } from './visit.ts';

export type { Card };

const GRADES: Record<Felt, Grade> = { again: Rating.Again, hard: Rating.Hard, good: Rating.Good, easy: Rating.Easy };
const at = (day: Day): Date => new Date(`${day}T12:00:00Z`);

/** When things come back: spread over days (Simmons 2012), each after as long as it is likely still known. */
export class Spacing {
  private readonly scheduler: FSRS;

  /** @param longest days after which everything comes back, about */
  constructor(longest: number) {
    this.scheduler = fsrs({
      request_retention: W.retention,
      maximum_interval: Math.max(1, longest),
      enable_fuzz: false,
      enable_short_term: false
    });
  }

  /** What is known of a task after a visit; @param card null before the first */
  after(card: Card | null, day: Day, felt: Felt): Card {
    return this.scheduler.next(card ?? createEmptyCard(at(day)), at(day), GRADES[felt]).card;
  }

  /** How likely it is still known, 0 to 1. */
  known(card: Card, day: Day): number {
    return this.scheduler.get_retrievability(card, at(day), false);
  }

  /** What is known of a task after all its visits: one rating a day, of the last visit. */
  history(visits: readonly Visit[], goal: number | null): Card | null {
    const last = new Map<Day, Visit>();
    for (const v of [...visits].sort((a, b) => a.day.localeCompare(b.day))) last.set(v.day, v);
    let card: Card | null = null;
    for (const [day, visit] of last) card = this.after(card, day, feltAt(visit, goal));
    return card;
  }
}

/** The day on which a task is due. */
export const dueDay = (card: Card): Day => new Date(card.due).toISOString().slice(0, 10);

/** The day of its last visit. */
export const lastDay = (card: Card): Day => new Date(card.last_review!).toISOString().slice(0, 10);
