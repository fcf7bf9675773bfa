import { add } from '../../score/fraction.ts';
import { FILL } from '../../style/rule-weights.ts';
import { ofMoment } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** Rules for unpitched percussion, whose phrases are told by density. Common practice. */
export const PERCUSSION: Rule[] = [
  {
    id: 'the-fill-leads-on',
    area: 'dynamics',
    title: 'A busier bar leads into the next',
    looksAt: 'Bars of unpitched percussion with half as many strokes again as the bar before and after.',
    proposes: 'A crescendo through the bar to the next downbeat.',
    periods: { classical: 0.4, romantic: 0.45, modern: 0.5, swing: 0.5 },
    needs: ['strikes'],
    sources: ['common'],
    find: (c) => {
      const strokes = c.score.measures.map((m) => c.strokes.filter((n) => n.measure === m.index));
      return strokes.flatMap((now, k): Draft[] => {
        const [before, after] = [strokes[k - 1], strokes[k + 1]];
        if (!before?.length || !after?.length || now.length < FILL.least) return [];
        if (now.length < FILL.times * Math.max(before.length, after.length)) return [];
        const { start, length } = c.score.measures[k];
        const goal = add(start, length);
        if (c.hairpinIn(start, goal)) return [];
        return [{ kind: 'hairpin', value: 'crescendo', at: start, to: goal, fact: ofMoment('busier bar', start, { count: now.length }) }];
      });
    }
  }
];
