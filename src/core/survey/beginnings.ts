import type { Score } from '../score/model.ts';
import { pitchName } from '../score/pitch.ts';
import { CHANTER, GUESS, LANGUAGE_OF_PERIOD, PERIODS_BY_YEAR, SUITE_DANCES, WORDS_OF_PERIOD, WORKING_YEARS } from '../style/beginnings.ts';
import type { Period } from '../style/profiles.ts';
import { lookUp } from '../style/terms/lookup.ts';

/** What a piece seems to be, with what speaks for it: asked of the teacher, never decided. */
export interface Guess {
  period: Period;
  evidence: string[];
}

/** Years in a composer's line: "(1685–1750)", "b. 1821", "1903". */
function yearsIn(text: string): number[] {
  return [...text.matchAll(/\b(1[3-9]\d\d|20\d\d)\b/g)].map((m) => Number(m[1]));
}

/** The period in which who is named wrote: of two years those of a life, of one the year of the piece. */
function byYear(text: string): { period: Period; evidence: string } | null {
  const years = yearsIn(text);
  if (!years.length) return null;
  const [from, to] = [Math.min(...years), Math.max(...years)];
  const born = years.length === 1 && /\b(b\.|born|\*)/.test(text);
  const year = years.length > 1 ? Math.min(to, from + WORKING_YEARS) : born ? from + WORKING_YEARS : from;
  const found = PERIODS_BY_YEAR.find(([until]) => year < until);
  return found ? { period: found[1], evidence: `written about ${year}` } : null;
}

/** The nine notes of the chanter, low G to high A with C and F sharp, and grace notes in half of the bars. Handbook 9.5. */
function pipersScale(score: Score, part: number): boolean {
  const own = score.notes.filter((n) => n.part === part && n.pitch);
  const graced = new Set(own.filter((n) => n.grace).map((n) => n.measure));
  return own.length > 0 && 2 * graced.size >= score.measures.length && own.every((n) => CHANTER.includes(pitchName(n.pitch!)));
}

/**
 * Period and genre from what stands on the page: dates beside the composer, names of genres and dances, words, signs, the pipers'
 * scale. Null where nothing speaks.
 * @param dates of the composer, as the teacher gives them
 */
export function guessPeriod(score: Score, dates = ''): Guess | null {
  const votes = new Map<Period, { weight: number; evidence: string[] }>();
  const vote = (period: Period, weight: number, evidence: string): void => {
    const found = votes.get(period) ?? { weight: 0, evidence: [] };
    found.weight += weight;
    found.evidence.push(evidence);
    votes.set(period, found);
  };
  const words = score.directions.flatMap((d) => (d.kind === 'words' ? [d.text] : []));
  const year = byYear(dates || score.composer);
  if (year) vote(year.period, GUESS.year, year.evidence);
  for (const [pattern, period, weight] of WORDS_OF_PERIOD)
    for (const text of [score.title, ...words]) {
      const found = pattern.exec(text);
      if (found) vote(period, weight, `“${found[0]}”`);
    }
  const dynamics = score.directions.some((d) => d.kind === 'dynamic') || score.hairpins.length > 0;
  const dance = SUITE_DANCES.exec(score.title);
  if (dance)
    vote(dynamics ? 'classical' : 'baroque', GUESS.dance, `a ${dance[0].toLowerCase()} ${dynamics ? 'with' : 'without'} printed dynamics`);
  const languages = new Set(words.flatMap((w) => lookUp(w).terms.map((t) => t.language)));
  for (const [language, period] of LANGUAGE_OF_PERIOD) if (languages.has(language)) vote(period, GUESS.language, `${language} words`);
  if (score.hairpins.length > score.measures.length * GUESS.manyHairpins) vote('romantic', GUESS.hairpins, 'many hairpins');
  if (!dynamics && !words.length) vote('baroque', GUESS.bare, 'nothing printed on loudness or tempo');
  if (score.parts.some((p) => pipersScale(score, p.index)))
    vote('highland-pipes', GUESS.pipes, 'the nine notes of the pipes, with grace notes throughout');
  const best = [...votes].sort((a, b) => b[1].weight - a[1].weight)[0];
  return best ? { period: best[0], evidence: [...new Set(best[1].evidence)] } : null;
}
