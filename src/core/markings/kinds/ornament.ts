import type { MarkingDescription } from '../description.ts';
import { atOnePlace, noteOf, wordsXml } from '../usual.ts';

/** The printed ornament of a note is left out. */
export const WITHOUT = 'none';

/** Each ornament as MEI and MusicXML 4.0 have it. */
const SIGNS: Record<string, { mei: string; xml: string }> = {
  trill: { mei: '<trill', xml: 'trill-mark' },
  'short trill': { mei: '<mordent form="upper"', xml: 'inverted-mordent' },
  mordent: { mei: '<mordent form="lower"', xml: 'mordent' },
  turn: { mei: '<turn form="upper"', xml: 'turn' },
  'inverted turn': { mei: '<turn form="lower"', xml: 'inverted-turn' }
};

export const ornament: MarkingDescription = {
  name: 'ornament',
  says: 'An ornament that is added, put in place of the printed one, or left out.',
  hangs: 'note',
  values: [...Object.keys(SIGNS), WITHOUT],
  inWords: (value) => (value === WITHOUT ? 'without the ornament' : value),
  legend: { sign: '[tr]', meaning: 'editorial ornaments, in square brackets' },
  mei(m, { common, side, anchor, stamp }) {
    const sign = SIGNS[m.value];
    return sign
      ? { beside: `${sign.mei} ${common} ${side('above')} enclose="brack" ${anchor}/>` }
      : { beside: `<dir ${common} ${side('above')} ${stamp}><rend fontstyle="italic">[without]</rend></dir>` };
  },
  musicXml: (m) =>
    m.value === WITHOUT
      ? { direction: wordsXml('without the ornament'), placement: 'above' }
      : { notation: `<ornaments><${SIGNS[m.value].xml}/></ornaments>` },
  clashes: atOnePlace,
  againstPrinted(score, m) {
    const printed = noteOf(score, m)?.marks?.find((p) => p.group === 'ornament' && p.name !== SIGNS[m.value]?.xml);
    return printed ? `a ${printed.name.replace('-mark', '').replace(/-/g, ' ')} is printed on the note` : null;
  },
  sound: (value) => ({ ornament: SIGNS[value]?.xml ?? WITHOUT })
};
