import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription, MeiPlace, MeiSign } from '../description.ts';
import type { Marking } from '../marking.ts';
import { anyWords, atOnePlace, neverAgainstPrint, withName, wordsXml } from '../usual.ts';

/** Words in square brackets above the staff. */
export const meiTempo = (m: Marking, { common, side, stamp }: MeiPlace): MeiSign => ({
  beside: `<tempo ${common} ${side('above')} ${stamp}><rend fontstyle="italic" fontweight="normal">[${escapeXml(m.value)}]</rend></tempo>`
});

export const tempo: MarkingDescription = {
  name: 'tempo word',
  says: 'Words on time: a tempo, slowing, hurrying, coming back.',
  hangs: 'moment',
  values: anyWords('poco rit.'),
  inWords: withName('tempo word'),
  legend: { sign: '[poco rit.]', meaning: 'editorial words on time, in square brackets' },
  mei: meiTempo,
  musicXml: (m) => ({ direction: wordsXml(m.value), placement: 'above' }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: (value) => ({ words: value })
};
