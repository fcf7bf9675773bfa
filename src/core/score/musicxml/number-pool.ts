import { cmp, type Fraction } from '../fraction.ts';
import type { Note, Score } from '../model.ts';

/** Numbers 1 to 6, by which MusicXML tells overlapping slurs or wedges of one part apart. */
export class NumberPool {
  private readonly used: { part: number; number: number; from: Fraction; to: Fraction }[] = [];

  occupy(part: number, number: number, from: Fraction, to: Fraction): void {
    this.used.push({ part, number, from, to });
  }

  /** A number that nothing of the part bears between two moments, both included. */
  take(part: number, from: Fraction, to: Fraction): number {
    let number = 6;
    while (number > 1 && this.used.some((u) => u.part === part && u.number === number && cmp(u.from, to) <= 0 && cmp(u.to, from) >= 0))
      number--;
    this.occupy(part, number, from, to);
    return number;
  }
}

/** The numbers that the slurs of a score bear. */
export function slurNumbers(score: Score, notes: ReadonlyMap<string, Note>): NumberPool {
  const pool = new NumberPool();
  for (const slur of score.slurs) {
    const from = notes.get(slur.from)!;
    for (const end of from.spans ?? [])
      if (end.type === 'start' && end.kind === 'slur') pool.occupy(from.part, Number(end.number), from.start, notes.get(slur.to)!.start);
  }
  return pool;
}
