import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName, wordsXml } from '../usual.ts';

export const sticking: MarkingDescription = {
  name: 'sticking',
  says: 'The hand that strikes a note.',
  hangs: 'note',
  needs: ['strikes'],
  unless: ['keys'],
  values: ['R', 'L'],
  inWords: withName('sticking'),
  legend: { sign: 'R L', meaning: 'editorial sticking: right, left' },
  mei: (m, { common, side, anchor }) => ({ beside: `<fing ${common} ${side('below')} ${anchor}>${m.value}</fing>` }),
  musicXml: (m) => ({ direction: wordsXml(m.value), placement: 'below' }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
