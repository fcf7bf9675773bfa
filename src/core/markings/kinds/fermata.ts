import type { MarkingDescription } from '../description.ts';
import { atOnePlace, LOOKS_PRINTED, neverAgainstPrint, withName } from '../usual.ts';

export const fermata: MarkingDescription = {
  name: 'fermata',
  says: 'A note that is held longer than it is written.',
  hangs: 'note',
  values: ['fermata'],
  inWords: withName('fermata'),
  legend: LOOKS_PRINTED,
  mei: (_, { common, anchor }) => ({ beside: `<fermata ${common} place="above" ${anchor}/>` }),
  musicXml: () => ({ notation: '<fermata type="upright"/>' }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({ holds: true })
};
