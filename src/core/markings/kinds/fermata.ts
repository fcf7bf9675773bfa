import type { MarkingDescription } from '../description.ts';
import { atOnePlace, IN_BRACKETS, neverAgainstPrint, withName } from '../usual.ts';

export const fermata: MarkingDescription = {
  name: 'fermata',
  says: 'A note that is held longer than it is written.',
  hangs: 'note',
  values: ['fermata'],
  inWords: withName('fermata'),
  legend: IN_BRACKETS,
  mei: (_, { common, side, anchor }) => ({ beside: `<fermata ${common} ${side('above')} enclose="brack" ${anchor}/>` }),
  musicXml: () => ({ notation: '<fermata type="upright"/>' }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({ holds: true })
};
