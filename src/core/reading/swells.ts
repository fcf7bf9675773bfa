import type { Facts } from '../analysis/facts.ts';
import { soundOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { add, cmp, lte, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { PLAN } from '../style/plan-weights.ts';
import type { Size } from '../style/terms/acts.ts';
import { handsOf, isForHand, loudnessWords, type Level } from './in-force.ts';

/** A growing or fading over a stretch of time: a hairpin, or words such as “cresc.” with their reach worked out. */
export interface Swell {
  id: string;
  up: boolean;
  start: Fraction;
  end: Fraction;
  editorial: boolean;
  /** Asked for in words. */
  words: boolean;
  size: Size;
  /** Fades as far as can be heard. */
  toNothing: boolean;
}

const earliest = (times: readonly Fraction[]): Fraction => times.reduce((a, b) => (cmp(b, a) < 0 ? b : a));

/**
 * Everything that grows or fades in one part, or in the hand of one of its staves, printed and editorial, in order of time. Words reach to the end of the
 * dashes after them, else to the next level or hairpin, else to the end of their phrase, some bars at most.
 */
export function swellsOf(
  score: Score,
  facts: Pick<Facts, 'phrases'>,
  markings: readonly Marking[],
  levels: readonly Level[],
  part: number,
  hand = 1
): Swell[] {
  const handOf = handsOf(score);
  const hairpin = { words: false, size: 'plain' as const, toNothing: false };
  const printed = score.hairpins
    .filter((h) => h.part === part && isForHand({ staff: handOf(h) }, hand))
    .map((h): Swell => ({ ...hairpin, id: h.id, up: h.kind === 'crescendo', start: h.start, end: h.end, editorial: false }));
  const own = markings.flatMap((m): Swell[] => {
    const { swell } = soundOf(m);
    return swell && m.end && m.part === part && isForHand(m, hand)
      ? [{ ...hairpin, id: m.id, up: swell > 0, start: m.start, end: m.end, editorial: true }]
      : [];
  });
  const hairpins = [...printed, ...own];
  const words = loudnessWords(score, markings).filter((w) => w.part === part && isForHand(w, hand) && w.act.kind === 'swell');
  const last = score.measures[score.measures.length - 1];
  const end = add(last.start, last.length);
  const inWords = words.flatMap((w): Swell[] => {
    const { act } = w;
    if (act.kind !== 'swell' || hairpins.some((h) => lte(h.start, w.start) && cmp(w.start, h.end) < 0)) return [];
    const dashes = score.directions.find(
      (d) => d.kind === 'span' && d.name === 'dashes' && d.type === 'stop' && d.part === part && cmp(d.start, w.start) > 0
    );
    const after = <T extends { start: Fraction }>(list: readonly T[]): Fraction[] =>
      list.filter((x) => cmp(x.start, w.start) > 0).map((x) => x.start);
    const furthest = score.measures[measureAt(score, w.start).index + PLAN.wordBars]?.start ?? end;
    const next = earliest([
      ...after(levels.filter((l) => l.part === part && isForHand(l, hand))),
      ...after(hairpins),
      ...after(words),
      furthest,
      end
    ]);
    const phrase = facts.phrases.find((p) => cmp(p.end, w.start) > 0)?.end ?? end;
    const mark = levels.some((l) => l.part === part && isForHand(l, hand) && cmp(l.start, next) === 0);
    // A mark that comes before long is the goal, even beyond the phrase.
    const reach = dashes && lte(dashes.start, next) ? dashes.start : mark ? next : earliest([next, phrase]);
    const { start, editorial, id } = w;
    return [{ id, up: act.way > 0, start, end: reach, editorial, words: true, size: act.size, toNothing: act.toNothing === true }];
  });
  return [...hairpins, ...inWords].filter((s) => cmp(s.end, s.start) > 0).sort((a, b) => cmp(a.start, b.start));
}
