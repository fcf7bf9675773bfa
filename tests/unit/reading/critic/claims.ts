/** What the rules claim about the scores of the critic, and how much of it cannot be read back from them. */
import { groundOf, holds } from '../../../../src/core/reading/claims/claims.ts';
import { ruleContext } from '../../../../src/core/reading/context.ts';
import { RULES } from '../../../../src/core/reading/rules/index.ts';
import { strengthIn } from '../../../../src/core/style/profiles.ts';
import type { Criticised } from './scores.ts';

export interface ClaimCount {
  made: number;
  refused: number;
  /** Refused claims by kind. */
  byKind: Record<string, number>;
}

export function claimsOf(scores: readonly Criticised[]): ClaimCount {
  const count: ClaimCount = { made: 0, refused: 0, byKind: {} };
  for (const { study, period } of scores) {
    const s = study();
    for (const { index } of s.score.parts) {
      const c = ruleContext(s, { period, schools: {}, ruleFactors: {} }, index);
      if (!c.line.length) continue;
      const ground = groundOf(c.score, c.facts, c.levels);
      for (const rule of RULES) {
        if (!strengthIn(rule.periods, period)) continue;
        for (const { fact } of rule.find(c)) {
          count.made++;
          if (holds({ ...fact, part: index }, ground)) continue;
          count.refused++;
          count.byKind[fact.what] = (count.byKind[fact.what] ?? 0) + 1;
        }
      }
    }
  }
  return count;
}
