import { MALLETED } from '../../style/mallets.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName, wordsXml } from '../usual.ts';

export const sticking: MarkingDescription = {
  name: 'sticking',
  says: 'The hand that strikes a note.',
  hangs: 'note',
  needs: ['strikes'],
  unless: ['keys'],
  values: ['R', 'L', '1', '2', '3', '4'],
  // Mallets are numbered from the left where there may be four.
  fits: (value, { key }) => !/\d/.test(value) || MALLETED.includes(key),
  inWords: withName('sticking'),
  legend: { sign: 'R L, 1–4', meaning: 'editorial sticking: right, left; mallets from the left' },
  mei: (m, { common, side, anchor }) => ({ beside: `<fing ${common} ${side('below')} ${anchor}>${m.value}</fing>` }),
  musicXml: (m) => ({ direction: wordsXml(m.value), placement: 'below' }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
