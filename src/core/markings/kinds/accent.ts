import { SIGN_SOUNDS } from '../../style/articulations.ts';
import type { MarkingDescription } from '../description.ts';
import { atOnePlace, IN_BRACKETS, neverAgainstPrint, withName } from '../usual.ts';
import { meiArticulation, xmlArticulation } from './articulation.ts';

export const accent: MarkingDescription = {
  name: 'accent',
  says: 'A note that stands over its neighbours.',
  hangs: 'note',
  values: ['accent', 'strong-accent'],
  inWords: withName('accent'),
  legend: IN_BRACKETS,
  mei: meiArticulation,
  musicXml: xmlArticulation,
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: (value) => SIGN_SOUNDS[value] ?? {}
};
