import { cmp } from '../../score/fraction.ts';
import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, withName } from '../usual.ts';

/** Signs for which MusicXML has an element of their own. MusicXML 4.0, dynamics. */
const OWN_ELEMENT = /^(p{1,6}|f{1,6}|mp|mf|sfz?|sfpp?|fp|rfz?|sffz|fz|n|pf|sfzp)$/;

export const dynamicXml = (sign: string): string =>
  OWN_ELEMENT.test(sign) ? `<dynamics><${sign}/></dynamics>` : `<dynamics><other-dynamics>${escapeXml(sign)}</other-dynamics></dynamics>`;

export const dynamic: MarkingDescription = {
  name: 'dynamic',
  says: 'A level of loudness from here on, or a note that is forced.',
  hangs: 'moment',
  values: ['mf', 'ppp', 'pp', 'p', 'mp', 'f', 'ff', 'fff', 'sf', 'sfz', 'fp'],
  inWords: withName('dynamic'),
  legend: { sign: '[mf]', meaning: 'editorial dynamic, in square brackets' },
  mei: (m, { common, side, stamp }) => ({
    beside: `<dynam ${common} ${side('below')} ${stamp} enclose="brack">${escapeXml(m.value)}</dynam>`
  }),
  musicXml: (m) => ({ direction: dynamicXml(m.value), placement: 'below' }),
  clashes: atOnePlace,
  againstPrinted(score, { value, part, start }) {
    const printed = score.directions.find((d) => d.kind === 'dynamic' && d.part === part && cmp(d.start, start) === 0 && d.value !== value);
    return printed?.kind === 'dynamic' ? `${printed.value} is printed there` : null;
  },
  sound: (value) => ({ sign: value })
};
