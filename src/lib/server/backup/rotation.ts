/** Copies that are kept: of the last days, and of the last weeks one each. Set by hand. */
const DAYS = 7;
const WEEKS = 4;

const NAME = /^nuvelo-(\d{4}-\d{2}-\d{2})\.db$/;

/** Name of the copy of a day. */
export const nameOf = (day: Date): string => `nuvelo-${day.toISOString().slice(0, 10)}.db`;

/** Number of the week in which a day lies, counted from one Monday long ago. */
const weekOf = (day: string): number => Math.floor((Date.parse(day) / 86_400_000 + 3) / 7);

/** Which of the copies in a folder may go; files of other names are never among them. */
export function dispensable(names: readonly string[]): string[] {
  const copies = names
    .flatMap((name) => {
      const day = NAME.exec(name)?.[1];
      return day ? [{ name, day }] : [];
    })
    .sort((a, b) => b.day.localeCompare(a.day));
  const kept = new Set(copies.slice(0, DAYS).map((c) => c.name));
  const weeks = new Map<number, string>();
  // The newest copy of each week stands for it.
  for (const c of copies.slice(DAYS)) if (!weeks.has(weekOf(c.day))) weeks.set(weekOf(c.day), c.name);
  for (const name of [...weeks.values()].slice(0, WEEKS)) kept.add(name);
  return copies.filter((c) => !kept.has(c.name)).map((c) => c.name);
}
