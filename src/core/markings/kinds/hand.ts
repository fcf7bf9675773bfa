import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName, wordsXml } from '../usual.ts';

export const hand: MarkingDescription = {
  name: 'hand',
  says: 'The hand that takes a note.',
  hangs: 'note',
  needs: ['keys'],
  values: ['r.h.', 'l.h.'],
  inWords: withName('hand'),
  legend: { sign: '[r.h.] [l.h.]', meaning: 'editorial: right hand, left hand' },
  mei: (m, { common, side, anchor }) => ({
    beside: `<dir ${common} ${side('above')} ${anchor}><rend fontstyle="normal" fontsize="80%">[${m.value}]</rend></dir>`
  }),
  musicXml: (m) => ({ direction: wordsXml(m.value), placement: 'above' }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
