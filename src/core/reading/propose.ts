import type { Study } from '../analysis/study.ts';
import type { Tone } from '../analysis/sounding-score.ts';
import { cmp, format, type Fraction } from '../score/fraction.ts';
import { strengthIn, type Period } from '../style/profiles.ts';
import { can, type Instrument } from '../style/instruments/instrument.ts';
import { ruleContext, type RuleContext, type Style } from './context.ts';
import { groundOf, holds, reasonText, told } from './claims/claims.ts';
import type { Claim } from '../markings/claim.ts';
import type { Ground } from './claims/claim.ts';
import { clash } from '../markings/describe.ts';
import type { Proposal } from './proposal.ts';
import { RULES } from './rules/index.ts';
import type { Draft, Rule } from './rules/rule.ts';

const isTone = (place: Tone | Fraction): place is Tone => 'note' in place;

function toProposal(c: RuleContext, rule: Rule, strength: number, draft: Draft, claim: Claim, ground: Ground): Proposal {
  const start = isTone(draft.at) ? draft.at.note.start : draft.at;
  // A level is said to both hands, unless a rule speaks to one of them.
  const staff = draft.staff ?? (isTone(draft.at) && draft.kind !== 'dynamic' ? draft.at.note.staff : 1);
  const proposal: Proposal = {
    key: `${rule.id}@${c.part}.${format(start)}.${draft.kind}`,
    rule: rule.id,
    strength: Math.round(100 * strength * (draft.confidence ?? 1)) / 100,
    marking: {
      kind: draft.kind,
      value: draft.value,
      part: c.part,
      staff,
      start,
      because: [
        {
          text: reasonText(told(claim, ground), rule.title),
          claim,
          rule: rule.id,
          sources: [...rule.sources],
          ...(draft.facts ? { facts: draft.facts } : {})
        }
      ]
    }
  };
  if (draft.group) proposal.group = `${rule.id}@${c.part}.${draft.group}`;
  if (isTone(draft.at)) proposal.marking.note = draft.at.note.id;
  if (draft.to) {
    if (isTone(draft.to)) {
      proposal.marking.end = draft.to.note.start;
      proposal.marking.endNote = draft.to.note.id;
    } else proposal.marking.end = draft.to;
  }
  return proposal;
}

/** Whether a rule speaks to the players of an instrument. */
const isFor = ({ needs, unless }: Rule, instrument: Instrument): boolean =>
  (!needs || can(instrument, ...needs)) && !(unless && can(instrument, ...unless));

/** Runs all rules that a style knows over one context. */
function drafts(context: RuleContext, style: Style): Proposal[] {
  const all: Proposal[] = [];
  const ground = groundOf(context.score, context.facts, context.levels);
  for (const rule of RULES) {
    const usual = strengthIn(rule.periods, style.period);
    const strength = usual === null ? 0 : Math.min(1, usual * (style.ruleFactors[rule.id] ?? 1));
    if (strength === 0 || !isFor(rule, context.instrument)) continue;
    for (const draft of rule.find(context)) {
      const claim: Claim = { ...draft.fact, part: context.part };
      if (holds(claim, ground)) all.push(toProposal(context, rule, strength, draft, claim, ground));
    }
  }
  return all;
}

/** Rules as they speak where a question of school is answered otherwise for some bars only. */
function withLocalAnswers(context: RuleContext, style: Style): Proposal[] {
  const inside = (p: Proposal, from: Fraction, to: Fraction): boolean => cmp(p.marking.start, from) >= 0 && cmp(p.marking.start, to) < 0;
  let all = drafts(context, style);
  for (const { from, to, key, option } of style.local ?? []) {
    // Later answers win where ranges overlap; other local answers of the same bars stay in force.
    const also = (style.local ?? []).filter((o) => cmp(o.from, to) < 0 && cmp(from, o.to) < 0);
    const schools = { ...context.schools, ...Object.fromEntries(also.map((o) => [o.key, o.option])), [key]: option };
    const here = drafts({ ...context, schools }, style).filter((p) => inside(p, from, to));
    all = [...all.filter((p) => !inside(p, from, to)), ...here];
  }
  return all;
}

/**
 * Everything that the rules of a style (a period with its answers) suggest for one part, in order of time. Where two rules speak on
 * the same matter at one place, the stronger one is heard, and says which it outweighs.
 */
export function propose(study: Study, style: Style | Period, part = 0): Proposal[] {
  const chosen: Style = typeof style === 'string' ? { period: style, schools: {}, ruleFactors: {} } : style;
  return proposeIn(ruleContext(study, chosen, part), chosen);
}

/** The same in a context that is open already. */
export function proposeIn(context: RuleContext, style: Style): Proposal[] {
  if (!context.line.length && !context.strokes.length) return [];
  const all = withLocalAnswers(context, style).sort((a, b) => b.strength - a.strength);
  const kept: Proposal[] = [];
  const byKind = new Map<string, Proposal[]>();
  for (const proposal of all) {
    const same = byKind.get(proposal.marking.kind) ?? [];
    const stronger = same.find((other) => clash(other.marking, proposal.marking));
    if (stronger) {
      const { value } = proposal.marking;
      if (value !== stronger.marking.value && proposal.rule !== stronger.rule)
        (stronger.outweighs ??= []).push({ rule: proposal.rule, value, strength: proposal.strength });
      continue;
    }
    same.push(proposal);
    byKind.set(proposal.marking.kind, same);
    kept.push(proposal);
  }
  return kept.sort((a, b) => cmp(a.marking.start, b.marking.start) || b.strength - a.strength);
}
