import { PRACTICE as W } from '../../style/practice.ts';
import type { PlannedItem } from './days.ts';
import type { Plan } from './plan.ts';

/** One turn at a task in a session. */
export interface Turn {
  task: string;
  minutes: number;
  /** Which turn of how many, from 1. */
  turn: number;
  of: number;
  why: PlannedItem['why'];
}

/**
 * A day's items as they are played: passages alternate, some minutes each, in rounds (Carter & Grahn 2016); what is heard
 * or run through is not divided and comes last.
 */
export function turnsOf(items: readonly PlannedItem[], plan: Plan): Turn[] {
  const kinds = new Map(plan.tasks.map((t) => [t.key, t.kind]));
  const whole = (i: PlannedItem): boolean => !['passage', 'drill', 'own'].includes(kinds.get(i.task) ?? 'own');
  const divided = items.filter((i) => !whole(i));
  const of = (i: PlannedItem): number => (divided.length < 2 ? 1 : Math.max(1, Math.floor(i.minutes / W.turn)));
  const rounds = Math.max(0, ...divided.map(of));
  const turns: Turn[] = [];
  for (let round = 0; round < rounds; round++)
    for (const i of divided) {
      if (round >= of(i)) continue;
      // What does not divide evenly is in the first turn.
      const each = Math.floor(i.minutes / of(i));
      const minutes = round === 0 ? i.minutes - each * (of(i) - 1) : each;
      turns.push({ task: i.task, minutes, turn: round + 1, of: of(i), why: i.why });
    }
  return [...turns, ...items.filter(whole).map((i): Turn => ({ task: i.task, minutes: i.minutes, turn: 1, of: 1, why: i.why }))];
}
