import type { Study } from '../analysis/study.ts';
import { outdated, toldAnew } from '../reading/claims/anew.ts';
import { groundOf } from '../reading/claims/claims.ts';
import { dynamicLevels } from '../reading/in-force.ts';
import { draftGround, draftOn, type Drafted, type DraftOrder } from '../reading/draft/draft.ts';
import { styleOf, type Reading } from '../reading/reading.ts';
import { cmp, lte } from '../score/fraction.ts';
import type { Finding } from './finding.ts';
import { proof } from './proof.ts';

/** Rounds in which what the proof finds is left out and the room used otherwise. */
const ROUNDS = 3;

/** Contradictions and risks of one part under some markings; questions are the teacher's. */
const faultsOf = (study: Study, reading: Reading): Finding[] => proof(study, reading, []).filter((f) => f.severity !== 'question');

/** Keys of the drafted markings that stand where the proof finds something that it does not find without them. */
function atFault(study: Study, reading: Reading, kept: readonly Drafted[]): Set<string> {
  const keys = new Set<string>();
  for (const part of new Set(kept.map((k) => k.marking.part))) {
    const own = { ...reading, part };
    const known = new Set(faultsOf(study, own).map((f) => f.id));
    const drafted = { ...own, markings: [...reading.markings, ...kept.map((k) => k.marking)] };
    for (const fault of faultsOf(study, drafted)) {
      if (known.has(fault.id)) continue;
      for (const { key, marking: m } of kept)
        if (m.part === part && m.kind !== 'advice' && lte(m.start, fault.start) && cmp(m.end ?? m.start, fault.start) >= 0) keys.add(key);
    }
  }
  return keys;
}

/** Keys of the drafted markings whose reasons do not hold under the levels of the draft. */
function untrue(study: Study, reading: Reading, kept: readonly Drafted[]): Set<string> {
  const drafted = kept.map((k) => k.marking);
  const ground = groundOf(study.score, study.facts, dynamicLevels(study.score, [...reading.markings, ...drafted]));
  const gone = new Set(outdated(drafted, ground));
  return new Set(kept.filter((k) => gone.has(k.marking)).map((k) => k.key));
}

/** A draft with its reasons in the words of what holds when all of it stands. */
function told(study: Study, reading: Reading, kept: readonly Drafted[]): Drafted[] {
  const all = toldAnew([...reading.markings, ...kept.map((k) => k.marking)], study.score, () => study.facts);
  const byId = new Map(all.map((m) => [m.id, m]));
  return kept.map((k) => ({ ...k, marking: byId.get(k.marking.id) ?? k.marking }));
}

/** A draft that the proof has nothing to say against: what it finds is left out, and the room that is won is used again. */
export function provedDraft(study: Study, reading: Reading, order: DraftOrder): Drafted[] {
  const ground = draftGround(study, styleOf(reading), order.parts);
  let decided = new Set(order.decided);
  for (let round = 0; ; round++) {
    const kept = draftOn(ground, { ...order, decided });
    const faulty = new Set([...atFault(study, reading, kept), ...untrue(study, reading, kept)]);
    if (!faulty.size) return told(study, reading, kept);
    if (round === ROUNDS)
      return told(
        study,
        reading,
        kept.filter((k) => !faulty.has(k.key))
      );
    decided = new Set([...decided, ...faulty]);
  }
}
