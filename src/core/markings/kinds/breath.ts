import type { MarkingDescription, MeiPlace, MeiSign, XmlSign } from '../description.ts';
import type { Marking } from '../marking.ts';
import { atOnePlace, neverAgainstPrint, withName } from '../usual.ts';

/** A comma above the staff, where the note ends. */
export const meiBreath = (_: Marking, { common, side, beforeTheEnd }: MeiPlace): MeiSign => ({
  beside: `<breath ${common} ${side('above')} ${beforeTheEnd}/>`
});

export const xmlBreath = (): XmlSign => ({ notation: '<articulations><breath-mark>comma</breath-mark></articulations>' });

export const breath: MarkingDescription = {
  name: 'breath',
  says: 'A breath after a note.',
  hangs: 'note',
  needs: ['breathes'],
  values: ['breath'],
  inWords: withName('breath'),
  legend: { sign: 'comma above the staff', meaning: 'breath' },
  mei: meiBreath,
  musicXml: xmlBreath,
  clashes: atOnePlace,
  againstPrinted: neverAgainstPrint,
  sound: () => ({ pause: 'breath' })
};
