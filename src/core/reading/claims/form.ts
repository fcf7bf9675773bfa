import { cmp, eq, lt, lte, sub, toNumber, type Fraction } from '../../score/fraction.ts';
import { intervalWords } from '../../analysis/words.ts';
import { SAME_BEGINNING } from '../../style/rule-weights.ts';
import { dynamicStep } from '../../style/dynamics.ts';
import { levelInForce } from '../in-force.ts';
import type { Claim } from '../../markings/claim.ts';
import type { ClaimKind, Ground } from './claim.ts';
import { measureAt } from '../../score/position.ts';
import { barsOf, contentOf } from './levels.ts';
import { rangeWords } from './places.ts';
import { heightOf, pitchOf, placeLevel, quartersOf } from './page.ts';

const sectionOf = ({ fact }: Claim, { facts }: Ground) => facts.sections.find((s) => s.id === fact);

/** Share of the first notes after two moments that stand at one distance in one rhythm, 0 to 1: of the top notes of the whole. */
function alike({ score, page }: Ground, a: Fraction, b: Fraction, quarters: number): number {
  const top = (from: Fraction): Map<string, number> => {
    const found = new Map<string, number>();
    for (const { index } of score.parts)
      for (const n of page.within(index, from, { n: from.n + Math.ceil(quarters) * from.d, d: from.d })) {
        const at = toNumber(sub(n.start, from)).toFixed(4);
        found.set(at, Math.max(found.get(at) ?? 0, pitchOf(n)));
      }
    return found;
  };
  const [x, y] = [top(a), top(b)];
  const both = [...x.keys()].filter((k) => y.has(k));
  const counts = new Map<number, number>();
  for (const k of both) counts.set(y.get(k)! - x.get(k)!, (counts.get(y.get(k)! - x.get(k)!) ?? 0) + 1);
  return Math.max(0, ...counts.values()) / Math.max(1, x.size, y.size);
}

const upbeatOf = (claim: Claim, ground: Ground): number => {
  const [first, next] = ground.page.notes(claim.notes) ?? [];
  return next ? heightOf(next) - heightOf(first) : 0;
};

/** What is said of phrases, sections, returns and sequences. */
export const OF_FORM = {
  'section returns': {
    needs: ['beside'],
    words: (claim, ground) => `section ${sectionOf(claim, ground)?.label.replace(/'/g, '') ?? ''} returns`,
    holds: (claim, ground) => sectionOf(claim, ground) !== undefined && alike(ground, claim.beside!, claim.at, 4) >= SAME_BEGINNING
  },
  'same bars': {
    needs: ['beside', 'count'],
    words: ({ beside, count }, { score }) => {
      const first = measureAt(score, beside!);
      const last = score.measures[Math.min(score.measures.length - 1, first.index + count! - 1)];
      return `the same notes as in ${rangeWords(score, first.start, last.start)}`;
    },
    holds: ({ part, at, beside, count }, { score, page }) => {
      const [from, model] = [measureAt(score, at).index, measureAt(score, beside!).index];
      const bars = barsOf(count!, score);
      return (
        bars.length > 0 &&
        bars.every((k) => contentOf(page, part, from + k) !== '' && contentOf(page, part, from + k) === contentOf(page, part, model + k))
      );
    }
  },
  'theme returns': {
    needs: ['beside'],
    words: () => 'the theme returns',
    holds: (claim, ground) => sectionOf(claim, ground) !== undefined && alike(ground, claim.beside!, claim.at, 4) >= SAME_BEGINNING
  },
  'section begins': {
    words: (claim, ground) => `section ${sectionOf(claim, ground)?.label ?? ''} begins`,
    holds: (claim, ground) => {
      const section = sectionOf(claim, ground);
      return section !== undefined && eq(section.start, claim.at);
    }
  },
  sequence: {
    words: ({ fact }, { facts }) => {
      const s = facts.sequences.find((x) => x.id === fact);
      return s ? `a sequence of ${s.units} units${s.kind ? `, ${s.kind}` : ''}, each ${intervalWords(s.step)}` : 'a sequence';
    },
    holds: sequenceHolds
  },
  'unit begins': { words: () => 'a unit of the sequence begins', holds: sequenceHolds },
  period: {
    needs: ['beside', 'text'],
    words: ({ text }) => text!,
    holds: (claim, ground) => {
      const said = claim.text!.includes('same beginning');
      return !said || alike(ground, claim.beside!, claim.at, 4) >= SAME_BEGINNING;
    }
  },
  'two bars as one': { needs: ['text'], words: ({ text }) => text!, holds: (_, { facts }) => facts.phrases.length > 0 },
  'upbeat goes the other way': {
    words: (claim, ground) =>
      `the upbeat ${upbeatOf(claim, ground) > 0 ? 'rises' : 'falls'} to the downbeat, the ones before go the other way`,
    holds: (claim, ground) => {
      const [first, next] = ground.page.notes(claim.notes) ?? [];
      return (
        next !== undefined && placeLevel(ground.score, next) === 3 && placeLevel(ground.score, first) < 3 && upbeatOf(claim, ground) !== 0
      );
    }
  },
  'upbeat begins the phrase': {
    beat: true,
    words: () => 'an upbeat begins the phrase',
    holds: ({ notes, fact }, { page, score, facts }) => {
      const [first, next] = page.notes(notes) ?? [];
      const phrase = facts.phrases.find((p) => p.id === fact);
      return (
        next !== undefined &&
        phrase !== undefined &&
        placeLevel(score, first) < 3 &&
        placeLevel(score, next) === 3 &&
        quartersOf(page, first) <= 1
      );
    }
  },
  'phrase begins on the downbeat': {
    beat: true,
    words: () => 'the phrase begins on the downbeat',
    holds: ({ notes }, { page, score }) => {
      const [first] = page.notes(notes) ?? [];
      return first !== undefined && placeLevel(score, first) === 3;
    }
  },
  'upbeat leads to the downbeat': {
    beat: true,
    words: () => 'an upbeat leads to the downbeat',
    holds: ({ notes }, { page, score }) => {
      const [first, next] = page.notes(notes) ?? [];
      return next !== undefined && placeLevel(score, first) < 3 && placeLevel(score, next) === 3 && lt(first.start, next.start);
    }
  },
  character: {
    needs: ['text'],
    words: ({ text }) => text!,
    holds: (claim, ground) => {
      const section = sectionOf(claim, ground);
      if (!section || !claim.text!.startsWith(section.opens)) return false;
      // What is said of the level must be what is in force.
      const level = levelInForce(ground.levels, claim.part, claim.at)?.step;
      const [loud, soft] = [claim.text!.includes('a loud level'), claim.text!.includes('a soft level')];
      if (!loud && !soft) return true;
      return level !== undefined && loud === level >= dynamicStep('mf')!;
    }
  }
} satisfies Record<string, ClaimKind>;

/** Two units and more follow each other at one distance, in the line or the bass. */
function sequenceHolds({ fact }: Claim, ground: Ground): boolean {
  const s = ground.facts.sequences.find((x) => x.id === fact);
  if (!s || s.units < 2) return false;
  const anchors = ground.page.notes(s.anchors);
  if (!anchors || anchors.length < 2) return false;
  const steps = anchors.slice(1).map((n, k) => heightOf(n) - heightOf(anchors[k]));
  const spaced = anchors.slice(1).every((n, k) => cmp(sub(n.start, anchors[k].start), s.unit) === 0);
  const way = Math.sign(steps[0]);
  return spaced && way !== 0 && steps.filter((x) => x === steps[0]).length * 2 >= steps.length && lte(s.start, anchors[0].start);
}
