import { escapeXml } from '../../score/musicxml/escape.ts';
import { can, type Instrument } from '../../style/instruments/instrument.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName } from '../usual.ts';

/** Figures that players write: an open string is 0, strings have no fifth finger, valves and slides have their own. */
function fingers(instrument: Instrument): readonly string[] {
  if (can(instrument, 'keys')) return ['1', '2', '3', '4', '5'];
  if (can(instrument, 'bows', 'plucks')) return ['1', '2', '3', '4', '0'];
  return ['1', '2', '3', '4', '5', '0'];
}

export const fingering: MarkingDescription = {
  name: 'fingering',
  says: 'The finger that takes a note.',
  hangs: 'note',
  needs: ['bows', 'plucks', 'keys', 'holds'],
  unless: ['sings'],
  values: { hint: '1', most: 20, offered: fingers, fault: () => null },
  inWords: withName('fingering'),
  legend: { sign: 'small figure', meaning: 'editorial fingering' },
  mei: (m, { common, side, anchor }) => ({ beside: `<fing ${common} ${side('above')} ${anchor}>${escapeXml(m.value)}</fing>` }),
  musicXml: (m) => ({ notation: `<technical><fingering>${escapeXml(m.value)}</fingering></technical>` }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
