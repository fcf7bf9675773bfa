import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint } from '../usual.ts';

export const harmonic: MarkingDescription = {
  name: 'harmonic',
  says: 'A note that is touched and not pressed: on the open string, or over a stopped note.',
  hangs: 'note',
  needs: ['bows', 'plucks'],
  unless: ['keys'],
  values: ['natural', 'artificial'],
  inWords: (value) => `${value} harmonic`,
  legend: { sign: '[○]', meaning: 'editorial harmonic' },
  mei: (m, { identity }) => ({
    inNote: `<artic ${identity} artic="harm" enclose="brack"${m.placing?.side ? ` place="${m.placing.side}"` : ''}/>`
  }),
  musicXml: (m) => ({ notation: `<technical><harmonic><${m.value}/></harmonic></technical>` }),
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({})
};
