import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { anyWords, neverAgainstPrint, sameWords, wordsXml } from '../usual.ts';

export const manner: MarkingDescription = {
  name: 'playing technique',
  says: 'Words on how the sound is made: pizz., arco, con sordino, on the string.',
  hangs: 'moment',
  values: anyWords('pizz.'),
  inWords: (value) => `“${value}”`,
  legend: { sign: '[pizz.]', meaning: 'editorial words on how the sound is made, in square brackets' },
  mei: (m, { common, side, stamp }) => ({
    beside: `<dir ${common} ${side('above')} ${stamp}><rend fontstyle="normal">[${escapeXml(m.value)}]</rend></dir>`
  }),
  musicXml: (m) => ({ direction: wordsXml(m.value), placement: 'above' }),
  clashes: sameWords,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
