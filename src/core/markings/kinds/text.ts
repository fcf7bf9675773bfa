import { escapeXml } from '../../score/musicxml/escape.ts';
import { ENGRAVING } from '../../style/page-weights.ts';
import type { MarkingDescription } from '../description.ts';
import { anyWords, neverAgainstPrint, sameWords, wordsXml } from '../usual.ts';

/** Words as MEI text, in two lines of about the same length when they are long. */
function inLines(text: string): string {
  const blanks = [...text.matchAll(/ /g)].map((m) => m.index);
  if (text.length < ENGRAVING.longWords || !blanks.length) return escapeXml(text);
  const at = blanks.reduce((a, b) => (Math.abs(2 * b - text.length) < Math.abs(2 * a - text.length) ? b : a));
  return `${escapeXml(text.slice(0, at))}<lb/>${escapeXml(text.slice(at + 1))}`;
}

export const text: MarkingDescription = {
  name: 'words',
  says: 'Words to the player.',
  hangs: 'moment',
  values: anyWords('words'),
  inWords: (value) => `“${value}”`,
  legend: { sign: '[words]', meaning: 'editorial words, in square brackets' },
  mei: (m, { common, side, stamp }) => ({
    beside: `<dir ${common} ${side('above')} ${stamp}><rend fontstyle="italic">${inLines(`[${m.value}]`)}</rend></dir>`
  }),
  musicXml: (m) => ({ direction: wordsXml(m.value), placement: 'above' }),
  clashes: sameWords,
  againstPrinted: neverAgainstPrint,
  sound: (value) => ({ words: value })
};
