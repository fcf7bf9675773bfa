import { inSigns } from '../analysis/words.ts';

/** One line of the survey: what is there, how it is to be understood, and in which bars. */
export interface SurveyLine {
  /** Stable while the score is: group and label; what the teacher ticks or writes hangs on it. */
  id: string;
  label: string;
  value: string;
  /** Measure indices that the line leads to. */
  bars: number[];
  /** The teacher is asked to fill it in: a word that the dictionary does not know. */
  ask?: true;
}

export interface SurveyGroup {
  title: string;
  lines: SurveyLine[];
}

export const unique = (bars: number[]): number[] => [...new Set(bars)].sort((a, b) => a - b);

/** Collects the lines of one group and gives each its id. */
export class GroupBuilder {
  private readonly lines: SurveyLine[] = [];
  private readonly ids = new Map<string, number>();

  constructor(private readonly title: string) {}

  add(label: string, value: string, bars: number[] = [], extra: Pick<SurveyLine, 'ask'> = {}): this {
    const base = `${this.title}/${label}`;
    const seen = this.ids.get(base) ?? 0;
    this.ids.set(base, seen + 1);
    this.lines.push({ id: seen ? `${base}/${seen + 1}` : base, label, value: inSigns(value), bars: unique(bars), ...extra });
    return this;
  }

  get group(): SurveyGroup {
    return { title: this.title, lines: this.lines };
  }
}

/** Counts things by name, with the bars they stand in, most frequent first. */
export function tally<T>(
  items: Iterable<T>,
  name: (item: T) => string | null,
  bar: (item: T) => number
): { name: string; count: number; bars: number[] }[] {
  const counts = new Map<string, { count: number; bars: number[] }>();
  for (const item of items) {
    const key = name(item);
    if (key === null) continue;
    const entry = counts.get(key) ?? { count: 0, bars: [] };
    entry.count++;
    entry.bars.push(bar(item));
    counts.set(key, entry);
  }
  return [...counts].map(([key, e]) => ({ name: key, count: e.count, bars: unique(e.bars) })).sort((a, b) => b.count - a.count);
}

export const times = (count: number): string => `${count}×`;
export const plural = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;
