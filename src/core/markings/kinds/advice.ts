import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { anyWords, neverAgainstPrint, sameWords } from '../usual.ts';

export const advice: MarkingDescription = {
  name: 'advice',
  says: 'Words that stand in the commentary and are practised, but not printed over the music.',
  hangs: 'moment',
  values: anyWords('advice'),
  inWords: (value) => `“${value}”`,
  legend: null,
  mei: () => null,
  // MusicXML 4.0, element other-direction: "to define any direction symbols not yet in the format"; it need not be printed.
  musicXml: (m) => ({ direction: `<other-direction print-object="no">${escapeXml(m.value)}</other-direction>`, placement: 'above' }),
  clashes: sameWords,
  againstPrinted: neverAgainstPrint,
  sound: (value) => ({ words: value })
};
