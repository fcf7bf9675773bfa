import { lt, lte, type Fraction } from '../../score/fraction.ts';
import { dynamicAt } from '../../style/dynamics.ts';
import type { Steps } from '../../units.ts';
import type { Tone } from '../../analysis/sounding-score.ts';
import type { RuleContext } from '../context.ts';
import type { Draft, Said } from './rule.ts';

/** True when a level is printed in the part within [from, to]. */
export const levelPrinted = (c: RuleContext, from: Fraction, to: Fraction): boolean =>
  c.levels.some((l) => l.part === c.part && lte(from, l.start) && lte(l.start, to));

/**
 * A level for a stretch, and the one before where the stretch ends, as one case: who says that something is softer says where it
 * ends. Nothing where a level is printed at its beginning; nothing to restore where one is printed at its end, or the music ends.
 */
export function softened(
  c: RuleContext,
  tone: Tone,
  until: Fraction,
  level: Steps,
  before: Steps,
  fact: Said,
  rest: Partial<Draft> = {}
): Draft[] {
  if (levelPrinted(c, tone.note.start, tone.note.start)) return [];
  const group = `${tone.note.start.n}_${tone.note.start.d}`;
  const drafts: Draft[] = [{ kind: 'dynamic', value: dynamicAt(level), at: tone, fact, group, ...rest }];
  const after = c.firstAt(until);
  if (after && lt(tone.note.start, after.note.start) && !levelPrinted(c, tone.note.start, after.note.start))
    drafts.push({
      ...rest,
      kind: 'dynamic',
      value: dynamicAt(before),
      at: after,
      fact: { what: 'level of before', at: after.note.start, beside: tone.note.start },
      group
    });
  return drafts;
}
