import { escapeXml } from '../../score/musicxml/escape.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName } from '../usual.ts';

export const fingering: MarkingDescription = {
  name: 'fingering',
  says: 'The finger that takes a note.',
  hangs: 'note',
  values: { hint: '1', most: 20, fault: () => null },
  inWords: withName('fingering'),
  legend: { sign: 'small figure', meaning: 'editorial fingering' },
  mei: (m, { common, side, anchor }) => ({ beside: `<fing ${common} ${side('above')} ${anchor}>${escapeXml(m.value)}</fing>` }),
  musicXml: (m) => ({ notation: `<technical><fingering>${escapeXml(m.value)}</fingering></technical>` }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
