import type { MarkingDescription } from '../description.ts';
import { atOnePlace, noteOf, withName } from '../usual.ts';

/** Bow signs of the music font. SMuFL 1.4, strings. */
const GLYPHS: Record<string, string> = { 'down-bow': '\uE610', 'up-bow': '\uE612' };

export const bowing: MarkingDescription = {
  name: 'bowing',
  says: 'The way that the bow moves on a note.',
  hangs: 'note',
  needs: ['bows'],
  values: ['down-bow', 'up-bow'],
  inWords: withName('bowing'),
  legend: { sign: 'small bow sign', meaning: 'editorial bowing' },
  mei: (m, { common, side, anchor }) => ({
    beside: `<dir ${common} ${side('above')} ${anchor}><rend glyph.auth="smufl" fontstyle="normal">${GLYPHS[m.value]}</rend></dir>`
  }),
  musicXml: (m) => ({ notation: `<technical><${m.value}/></technical>` }),
  clashes: atOnePlace,
  againstPrinted(score, m) {
    const printed = noteOf(score, m)?.marks?.find((p) => /bow/.test(p.name) && p.name !== m.value);
    return printed ? `${printed.name} is printed on the note` : null;
  },
  sound: () => ({})
};
