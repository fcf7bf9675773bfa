import type { MarkingDescription } from '../description.ts';
import { atOnePlace, neverAgainstPrint, withName } from '../usual.ts';
import { meiBreath, xmlBreath } from './breath.ts';

export const comma: MarkingDescription = {
  name: 'comma',
  says: 'A small parting after a note, by bow, hand or tongue.',
  hangs: 'note',
  values: ['comma'],
  inWords: withName('comma'),
  legend: { sign: 'comma above the staff', meaning: 'a small parting: leave the note early' },
  mei: meiBreath,
  musicXml: xmlBreath,
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({ pause: 'comma' })
};
