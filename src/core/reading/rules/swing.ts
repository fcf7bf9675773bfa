import { levelAt, type Tone } from '../../analysis/sounding-score.ts';
import { about, hasMark, quarters, term } from './find.ts';
import type { Rule } from './rule.ts';

/** Rules for swing beyond the ratio of its eighths. Common practice. */
export const SWING: Rule[] = [
  {
    id: 'quarters-short',
    area: 'articulation',
    title: 'Quarters on the beat are short unless marked',
    looksAt: 'Plain quarters that begin on a beat, in a line of eighths.',
    proposes: 'The field’s own words, once.',
    periods: { swing: 0.55 },
    sources: ['common'],
    find: (c) => {
      const slurred = (t: Tone, k: number): boolean =>
        [c.line[k - 1], c.line[k + 1]].some((x) => x !== undefined && (c.slurred(x, t) || c.slurred(t, x)));
      const plain = c.line.filter(
        (t, k) => quarters(c, t) === 1 && levelAt(c.sounding, t.start) >= 1 && !t.note.marks?.length && !slurred(t, k)
      );
      const eighths = c.line.filter((t) => quarters(c, t) === 0.5).length;
      return plain.length && eighths > plain.length ? [term('quarters short', plain[0], about('plain quarter', plain[0]))] : [];
    }
  },
  {
    id: 'kick-the-anticipation',
    area: 'weight',
    title: 'A note that comes before its beat is kicked',
    looksAt: 'Notes that begin half a beat early and sound over the beat.',
    proposes: 'An accent.',
    periods: { swing: 0.6 },
    sources: ['common'],
    find: (c) =>
      c.line
        .filter((t) => levelAt(c.sounding, t.start) === 0 && quarters(c, t) >= 1 && !hasMark(t, /accent|tenuto/))
        .map((t) => ({ kind: 'accent' as const, value: 'accent', at: t, fact: about('syncopation', t) }))
  }
];
