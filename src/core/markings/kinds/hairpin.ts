import { cmp } from '../../score/fraction.ts';
import type { MarkingDescription } from '../description.ts';
import { withName } from '../usual.ts';

export const hairpin: MarkingDescription = {
  name: 'hairpin',
  says: 'Growing or fading over a stretch of time.',
  hangs: 'stretch',
  values: ['crescendo', 'diminuendo'],
  inWords: withName('hairpin'),
  legend: { sign: 'dashed hairpin', meaning: 'editorial crescendo or diminuendo' },
  mei: (m, { common, side, stamp, until }) => ({
    beside: `<hairpin ${common} ${side('below')} form="${m.value === 'diminuendo' ? 'dim' : 'cres'}" lform="dashed" ${stamp} ${until}/>`
  }),
  musicXml: (m) => ({
    wedge: (number) => ({
      start: `<wedge type="${m.value}" number="${number}" line-type="dashed"/>`,
      stop: `<wedge type="stop" number="${number}"/>`
    }),
    placement: 'below'
  }),
  clashes: (m, other) => cmp(m.start, other.end!) < 0 && cmp(other.start, m.end!) < 0,
  againstPrinted(score, { value, part, start, end }) {
    const printed = score.hairpins.find((h) => h.part === part && h.kind !== value && cmp(h.start, end!) < 0 && cmp(h.end, start) > 0);
    return printed ? `a printed ${printed.kind} stands there` : null;
  },
  sound: (value) => ({ swell: value === 'crescendo' ? 1 : -1 })
};
