import type { MarkingDescription } from '../description.ts';
import { atOnePlace, noteOf, withName } from '../usual.ts';

/** Strings are counted from the highest; on the page they have Roman numerals. */
export const STRING_NAMES = ['I', 'II', 'III', 'IV', 'V', 'VI'];

export const string: MarkingDescription = {
  name: 'string',
  says: 'The string that a note is played on, counted from the highest.',
  hangs: 'note',
  needs: ['bows', 'plucks'],
  unless: ['keys'],
  values: STRING_NAMES,
  fits: (value, { strings }) => STRING_NAMES.indexOf(value) < (strings?.length ?? STRING_NAMES.length),
  inWords: withName('string'),
  legend: { sign: 'I II III IV', meaning: 'editorial string, counted from the highest' },
  mei: (m, { common, side, anchor }) => ({ beside: `<fing ${common} ${side('above')} ${anchor}>${m.value}</fing>` }),
  musicXml: (m) => ({ notation: `<technical><string>${STRING_NAMES.indexOf(m.value) + 1}</string></technical>` }),
  clashes: atOnePlace,
  againstPrinted(score, m) {
    const printed = noteOf(score, m)?.marks?.find((p) => p.name === 'string' && p.value !== `${STRING_NAMES.indexOf(m.value) + 1}`);
    return printed ? `string ${printed.value} is printed on the note` : null;
  },
  sound: () => ({})
};
