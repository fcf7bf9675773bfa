import { once } from '../once.ts';
import type { Study } from '../analysis/study.ts';
import type { Performance } from '../performance/perform.ts';
import { styleOf, type Reading } from '../reading/reading.ts';
import { ruleContext } from '../reading/context.ts';
import { dynamicLevels } from '../reading/in-force.ts';
import { swellsOf } from '../reading/swells.ts';
import type { Proposal } from '../reading/proposal.ts';
import { tuneOf } from '../reading/tune.ts';
import { cmp, lte } from '../score/fraction.ts';
import { SEVERITIES, type Finding, type ProofContext } from './finding.ts';
import { LOUDNESS } from './loudness.ts';
import { MARK_CHECKS } from './marks.ts';
import { playedFindings } from './played.ts';
import { TEXT_CHECKS } from './text.ts';
import { TIME_CHECKS } from './time.ts';

/**
 * What does not add up in a reading: contradictions first, then risks, then questions, each in order of time.
 * One cause gives one finding.
 * @param performed the reading as it is played and the page to the letter, where they are known: some findings only sound
 */
export function proof(
  study: Study,
  reading: Reading,
  proposals: readonly Proposal[],
  performed: { plan: Performance; page: Performance } | null = null
): Finding[] {
  const { score, facts, details } = study;
  const rules = ruleContext(study, styleOf(reading), reading.part);
  const levels = dynamicLevels(score, reading.markings);
  const tune = once(() => tuneOf(study));
  const context: ProofContext = {
    score,
    facts,
    details,
    reading,
    proposals,
    rules,
    hasTune: (part, at) => {
      const tone = study.soundingPart(part).melody.findLast((t) => lte(t.note.start, at));
      return tone !== undefined && tune().has(tone.note.id);
    },
    levels: levels.filter((l) => l.part === reading.part),
    hairpins: swellsOf(score, facts, reading.markings, levels, reading.part)
  };
  const found = new Map<string, Finding>();
  for (const check of [...LOUDNESS, ...TIME_CHECKS, ...TEXT_CHECKS, ...MARK_CHECKS])
    for (const f of check(context)) if (!found.has(f.id)) found.set(f.id, f);
  if (performed) for (const f of playedFindings(context, performed.plan, performed.page)) if (!found.has(f.id)) found.set(f.id, f);
  return inOrder([...found.values()]);
}

/** Contradictions first, then risks, then questions, each in order of time. */
export const inOrder = (findings: readonly Finding[]): Finding[] =>
  [...findings].sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity) || cmp(a.start, b.start));
